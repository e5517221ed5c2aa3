import { changesData, type Screen } from '../model/definition';
import type { Id } from '../model/id';
import type { Element } from '../model/tree';
import { Access, type Gates } from './access';
import { Doors } from './doors';
import { editOnlyIf, lower, type Rule } from './rule';

const NOTHING: Gates = { levels: new Uint8Array(), rules: new Map(), outer: new Map() };

/**
 * What somebody gets who looks as another person: every decision is the lower of the two people's. What is
 * asked of *the viewer* (a list's filter, where they land) is asked of the other person. Where `reading`,
 * nothing can be changed either, whatever both may do. `own` is left out where the builder lets that
 * person's roles be stood in for in full.
 */
export class Lower extends Access {
  constructor(
    private readonly theirs: Access,
    private readonly own: Access | undefined,
    private readonly reading: boolean,
  ) {
    super(theirs.compiled, theirs.held, NOTHING);
  }

  protected override makeDoors(): Doors {
    return new LowerDoors(this);
  }

  /** Of both; a function of the two accesses, so that `Doors` and pages can ask each alike. */
  both(ask: (access: Access) => Rule): Rule {
    return this.own ? lower(ask(this.theirs), ask(this.own)) : ask(this.theirs);
  }

  /** The rule, for reading only where nothing may be changed. */
  capped(rule: Rule, changes: boolean): Rule {
    return this.reading && changes ? editOnlyIf(false, rule) : rule;
  }

  override gateRule(element: Element): Rule {
    return this.both((access) => access.gateRule(element));
  }

  override outerRule(element: Element): Rule | undefined {
    const [a, b] = [this.theirs.outerRule(element), this.own?.outerRule(element)];
    return a && b ? lower(a, b) : (a ?? b);
  }

  protected override work(element: Element): Rule {
    return this.capped(
      this.both((access) => access.rule(element)),
      this.canChange(element),
    );
  }

  /** Does its level of edit let data, people or the session be changed, rather than lead somewhere or read? */
  private canChange(element: Element): boolean {
    switch (element.kind) {
      case 'menu-item':
      case 'rows':
        return false;
      case 'action':
        return changesData(element.node);
      case 'button':
        return this.changes(element.node) || element.node.effect.do === 'set-session';
      default:
        return true;
    }
  }
}

class LowerDoors extends Doors {
  /** The accesses are asked when a door is: at the time of making, `Lower` does not have them yet. */
  private get lower(): Lower {
    return this.access as Lower;
  }

  override screen(screen: Screen): Rule {
    return this.lower.both(({ doors }) => doors.screen(screen));
  }

  override rows(entity: Id): Rule {
    return this.lower.both(({ doors }) => doors.rows(entity));
  }

  override action(id: Id): Rule {
    const action = this.lower.compiled.tree.need(id, 'action').node;
    return this.lower.capped(
      this.lower.both(({ doors }) => doors.action(id)),
      changesData(action),
    );
  }

  override field(field: Id, record: 'existing' | 'new'): Rule {
    return this.lower.capped(
      this.lower.both(({ doors }) => doors.field(field, record)),
      true,
    );
  }
}

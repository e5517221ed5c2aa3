import { bind } from '../condition/bind';
import { any, type Formula } from '../condition/formula';
import { changesData, type List, type Screen } from '../model/definition';
import type { Id } from '../model/id';
import type { Element } from '../model/tree';
import type { Access } from './access';
import type { Handle } from './handles';
import { EDIT, NONE } from './level';
import {
  ALWAYS,
  editOnlyIf,
  higher,
  leastOf,
  lower,
  onlyWhere,
  ruleOf,
  seeCountsAsEdit,
  type Rule,
} from './rule';

/**
 * The doors, as one viewer finds them. Worked out in the order gates → rows → actions → fields, and
 * read only gate results, so nothing is circular. Each is worked out once, when it is first asked for.
 */
export class Doors {
  /** By the number of the door's element. */
  private readonly known = new Map<number, Rule>();
  /** Of fields, on a record that is being made. */
  private readonly knownNew = new Map<number, Rule>();
  private readonly knownSaves = new Map<Screen, Formula>();

  constructor(protected readonly access: Access) {}

  /** A screen: its own gate and, for one that shows a record, that record's rows door. */
  screen(screen: Screen): Rule {
    const gate = this.gate(screen.id);
    return screen.binds?.record === 'existing' ? lower(gate, this.rows(screen.binds.entity)) : gate;
  }

  /**
   * An entity's rows. Following: open for a record if a screen for it can be opened on that record, or
   * a list of them stands on a screen that can be opened and the record passes the list's filter.
   */
  rows(entity: Id): Rule {
    const { number } = this.access.element(entity);
    const rule = this.known.get(number) ?? this.workRows(entity);
    this.known.set(number, rule);
    return rule;
  }

  /**
   * An action. Following: as its buttons give it, each for the records that its screen or list carries.
   * The action may be done only where this reaches edit; for one that only reads, see counts as edit.
   */
  action(id: Id): Rule {
    const { number } = this.access.element(id);
    const rule = this.known.get(number) ?? this.workAction(id);
    this.known.set(number, rule);
    return rule;
  }

  /**
   * A field of the data, of a stored record or of one that is being made. Following: the highest that its
   * handles give. A handle gives edit only if a button on its screen saves.
   */
  field(field: Id, record: 'existing' | 'new'): Rule {
    const known = record === 'new' ? this.knownNew : this.known;
    const { number } = this.access.element(field);
    const rule = known.get(number) ?? this.workField(field, record);
    known.set(number, rule);
    return rule;
  }

  private workRows(entity: Id): Rule {
    if (this.compiled.lines(entity)) return this.gate(entity);
    const { handles } = this.compiled;
    const open = any(
      ...handles.recordScreensOf(entity).map((screen) => this.gate(screen.id).see),
      ...handles.listsOf(entity).map(({ element, node }) => this.onRows(element, node).see),
    );
    return ruleOf(open, open);
  }

  private workAction(id: Id): Rule {
    const action = this.compiled.tree.need(id, 'action').node;
    const rows = this.rows(this.entityOf(id));
    if (rows === ALWAYS[NONE]) return rows;
    const base = this.compiled.lines(id) ? this.gate(id) : this.actionOnScreens(id);
    const rule = lower(base, rows);
    return changesData(action) ? rule : seeCountsAsEdit(rule);
  }

  private actionOnScreens(id: Id): Rule {
    let rule = ALWAYS[NONE];
    for (const handle of this.compiled.handles.buttonsOf(id)) rule = higher(rule, this.onCarried(handle));
    return rule;
  }

  private workField(field: Id, record: 'existing' | 'new'): Rule {
    const entity = this.compiled.tree.need(this.entityOf(field), 'rows').node;
    const rows = record === 'new' ? ALWAYS[EDIT] : this.rows(entity.id);
    if (rows === ALWAYS[NONE]) return rows;
    const base = this.compiled.lines(field) ? this.gate(field) : this.fieldOnScreens(field, record);
    if (base === ALWAYS[NONE]) return base;
    const save = this.compiled.tree.action(entity, record === 'new' ? 'create' : 'update');
    return lower(editOnlyIf(this.action(save.id).edit, base), rows);
  }

  /** Which records pass a list's fixed filter, for this viewer. One in doubt does not. */
  carried({ entity: id, filter }: List): Formula {
    const { definition } = this.compiled;
    const entity = this.compiled.tree.entityOf(id);
    return filter === undefined
      ? true
      : bind(this.access.held.facts, { definition, entity }, filter, 'be true');
  }

  private fieldOnScreens(field: Id, record: 'existing' | 'new'): Rule {
    const { handles, tree } = this.compiled;
    if (tree.need(field, 'data-field').node.neverFollows) return ALWAYS[NONE];
    let rule = ALWAYS[NONE];
    for (const { element, screen } of handles.fieldsOf(field, record)) {
      const gate = this.access.gateRule(element);
      rule = higher(rule, gate.edit === false ? gate : editOnlyIf(this.saves(screen), gate));
    }
    if (record === 'existing')
      for (const handle of handles.columnsOf(field))
        rule = higher(rule, editOnlyIf(false, this.onCarried(handle)));
    return rule;
  }

  /** What it takes for some button on the screen to save. */
  private saves(screen: Screen): Formula {
    let saves = this.knownSaves.get(screen);
    if (saves === undefined) {
      const buttons = this.compiled.handles.savesOn(screen);
      saves = any(...buttons.map((button) => this.access.gateRule(button).edit));
      this.knownSaves.set(screen, saves);
    }
    return saves;
  }

  /** What a handle's gate gives on the records that its screen, or the list that it is about, carries. */
  private onCarried({ element, list, screen }: Handle<unknown>): Rule {
    if (!list) return this.access.gateRule(element);
    if (element.list) return this.onRows(element, list);
    const onList = onlyWhere(this.onRows(this.access.element(list.id), list).see, ALWAYS[2]);
    // A button that is not within its list, on a screen that shows a record: that record is another one.
    const own = this.access.gateRule(element);
    return lower(screen.binds ? leastOf(own) : own, onList);
  }

  /**
   * What the gate of a list, or of something in it, gives on the rows. Which record the screen shows is
   * not known here: what depends on that one counts only where every record gives it.
   */
  private onRows(element: Element, list: List): Rule {
    const outer = this.access.outerRule(element);
    const gate = this.access.gateRule(element);
    return onlyWhere(this.carried(list), outer ? lower(gate, leastOf(outer)) : gate);
  }

  private get compiled() {
    return this.access.compiled;
  }

  private gate(id: Id): Rule {
    return this.access.gateRule(this.access.element(id));
  }

  private entityOf(part: Id): Id {
    const entity = this.compiled.tree.entityOf(part);
    if (!entity) throw new Error(`No entity has the part ${part}`);
    return entity.id;
  }
}

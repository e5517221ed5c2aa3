import type { Screen } from '../model/definition';
import type { Id } from '../model/id';
import type { Element } from '../model/tree';
import type { Values } from '../model/value';
import type { Compiled } from './compile';
import { Doors } from './doors';
import { NONE, type Answer, type Level } from './level';
import { ALWAYS, answerOf, levelOn, lower, seeCountsAsEdit, type Rule } from './rule';

/** In the array of levels, what is not a level: not worked out yet, and different from record to record. */
const UNKNOWN = 255;
const ASKS_RECORD = 254;

/**
 * What one viewer gets of one definition. Every question about access is asked here: by pages, the
 * API, the studio, explanations and checks.
 */
export class Access {
  readonly doors: Doors;
  private readonly rules: (Rule | undefined)[] = [];
  private readonly levels: Uint8Array;

  constructor(
    readonly compiled: Compiled,
    /** By element number: its own gate within its containers, doors left aside. */
    private readonly gateResults: Uint8Array,
  ) {
    this.doors = new Doors(compiled, (id) => ALWAYS[this.gateResult(this.element(id))]);
    this.levels = new Uint8Array(gateResults.length).fill(UNKNOWN);
  }

  /** The element with this id. Throws where there is none. */
  element(id: Id): Element {
    const element = this.compiled.tree.get(id);
    if (!element) throw new Error(`No element has the id ${id}`);
    return element;
  }

  /** What the element's gate gives within its containers. For a following door of data, its container's. */
  gateResult(element: Element): Level {
    return this.gateResults[element.number] as Level;
  }

  /** What it takes to get the element: its gate, its containers and its door. */
  rule(element: Element): Rule {
    return (this.rules[element.number] ??= this.work(element));
  }

  /** The answer where no record is known. */
  answer(element: Element): Answer {
    return answerOf(this.rule(element));
  }

  /**
   * The level on a record: the row's for what stands in a list, else the screen's. Without a record
   * it is what some record could give: for structure only, never for data.
   */
  level(element: Element, values: Values | undefined): Level {
    let level = this.levels[element.number] as number;
    if (level === UNKNOWN) {
      const { least, most } = this.answer(element);
      this.levels[element.number] = level = least === most ? least : ASKS_RECORD;
    }
    if (level !== ASKS_RECORD) return level as Level;
    return values ? levelOn(this.rule(element), values) : this.answer(element).most;
  }

  /** May the viewer open the screen, on this record where it shows one? */
  opens(screen: Screen, values: Values | undefined): boolean {
    if (screen.binds?.record === 'existing' && !values) return false;
    return this.level(this.element(screen.id), values) > NONE;
  }

  private work(element: Element): Rule {
    const gate = ALWAYS[this.gateResult(element)];
    switch (element.kind) {
      case 'rows':
        return this.doors.rows(element.id);
      case 'action':
        return this.doors.action(element.id);
      case 'data-field':
        return this.doors.field(element.id, 'existing');
      case 'screen':
        return this.doors.screen(element.node);
      case 'menu-item':
        return seeCountsAsEdit(this.throughDoor(element, gate));
      case 'list':
      case 'column':
        return this.throughDoor(element, gate);
      case 'button': {
        const { effect } = element.node;
        const rule = this.throughDoor(element, gate);
        const changes = effect.do !== 'open' && effect.do !== 'sign-out';
        return this.onScreen(element, changes ? rule : seeCountsAsEdit(rule));
      }
      case 'field':
        return this.onScreen(element, this.throughDoor(element, gate));
      default:
        return this.onScreen(element, gate);
    }
  }

  /** A handle can narrow its door, never widen it. */
  private throughDoor(element: Element, gate: Rule): Rule {
    const door = this.compiled.handles.doorOf(element);
    switch (door?.kind) {
      case undefined:
        return gate;
      case 'screen':
        return lower(gate, this.doors.screen(this.compiled.tree.need(door.id, 'screen').node));
      case 'rows':
        return lower(gate, this.doors.rows(door.id));
      case 'action':
        return lower(gate, this.doors.action(door.id));
      case 'data-field': {
        const making = element.kind === 'field' && element.screen?.binds?.record === 'new';
        return lower(gate, this.doors.field(door.id, making ? 'new' : 'existing'));
      }
    }
  }

  /** What stands on a record's screen is there only where the screen opens for that record. */
  private onScreen(element: Element, rule: Rule): Rule {
    const { screen, list } = element;
    if (list || screen?.binds?.record !== 'existing') return rule;
    return lower(rule, seeCountsAsEdit(this.doors.screen(screen)));
  }
}

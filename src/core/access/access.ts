import type { RecordFacts } from '../condition/atom';
import type { Button, Screen } from '../model/definition';
import { changesData } from '../model/definition';
import type { Id } from '../model/id';
import type { Element } from '../model/tree';
import type { Compiled } from './compile';
import { Doors } from './doors';
import type { Held } from './held';
import { NONE, type Answer, type Level } from './level';
import { ALWAYS, answerOf, levelOn, lower, mostOf, seeCountsAsEdit, type Rule } from './rule';

/** In the array of levels, what is not a level: not worked out yet, and different from record to record. */
const UNKNOWN = 255;
const ASKS_RECORD = 254;

/** By element number: what gates give within their containers, doors left aside. */
export interface Gates {
  /** The highest that some record gives. */
  readonly levels: Uint8Array;
  /** Where it differs from record to record: by which. */
  readonly rules: ReadonlyMap<number, Rule>;
  /** For a list on a record's screen and what is in it: what the containers ask of the screen's record. */
  readonly outer: ReadonlyMap<number, Rule>;
}

/**
 * What one viewer gets of one definition, at one moment. Every question about access is asked here: by
 * pages, the API, the studio, explanations and checks.
 */
export class Access {
  readonly doors: Doors;
  private readonly rules = new Map<number, Rule>();
  private readonly levels: Uint8Array;

  constructor(
    readonly compiled: Compiled,
    readonly held: Held,
    private readonly gates: Gates,
  ) {
    this.doors = this.makeDoors();
    this.levels = new Uint8Array(compiled.tree.elements.length).fill(UNKNOWN);
  }

  protected makeDoors(): Doors {
    return new Doors(this);
  }

  /** The element with this id. Throws where there is none. */
  element(id: Id): Element {
    const element = this.compiled.tree.get(id);
    if (!element) throw new Error(`No element has the id ${id}`);
    return element;
  }

  /**
   * What the element's gate gives within its containers, by the record at the element. For a following
   * door of data, its container's.
   */
  gateRule({ number }: Element): Rule {
    const { rules, levels } = this.gates;
    const level = ALWAYS[levels[number] as Level];
    return rules.size === 0 ? level : (rules.get(number) ?? level);
  }

  /** For what is in a list on a record's screen: what its containers ask of the screen's record. */
  outerRule({ number }: Element): Rule | undefined {
    const { outer } = this.gates;
    return outer.size === 0 ? undefined : outer.get(number);
  }

  /** What it takes to get the element: its gate, its containers and its door. */
  rule(element: Element): Rule {
    let rule = this.rules.get(element.number);
    if (!rule) this.rules.set(element.number, (rule = this.work(element)));
    return rule;
  }

  /** The answer where no record is known. */
  answer(element: Element): Answer {
    return this.answerBy(this.rule(element), element);
  }

  /** Tells the answer for every element, in order. They are not kept: whoever asks for all keeps them. */
  eachAnswer(tell: (element: Element, answer: Answer) => void): void {
    for (const element of this.compiled.tree.elements)
      tell(element, this.answerBy(this.work(element), element));
  }

  private answerBy(rule: Rule, element: Element): Answer {
    const outer = this.outerRule(element);
    return answerOf(outer ? lower(rule, outer) : rule);
  }

  /**
   * The level on a record: the row's for what stands in a list, else the screen's. Without a record
   * it is what some record could give: for structure only, never for data. For a list on a record's
   * screen, `screenRecord` is what its containers are decided on.
   */
  level(element: Element, record: RecordFacts | undefined, screenRecord?: RecordFacts): Level {
    let level = this.levels[element.number] as number;
    if (level === UNKNOWN) {
      const { least, most } = this.answer(element);
      this.levels[element.number] = level = least === most ? least : ASKS_RECORD;
    }
    if (level !== ASKS_RECORD) return level as Level;
    const on = record ? levelOn(this.rule(element), record) : answerOf(this.rule(element)).most;
    const outer = this.outerRule(element);
    if (!outer) return on;
    return Math.min(on, screenRecord ? levelOn(outer, screenRecord) : answerOf(outer).most) as Level;
  }

  /** May the viewer open the screen, on this record where it shows one? */
  opens(screen: Screen, record: RecordFacts | undefined): boolean {
    if (screen.binds?.record === 'existing' && !record) return false;
    return this.level(this.element(screen.id), record) > NONE;
  }

  protected work(element: Element): Rule {
    switch (element.kind) {
      case 'rows':
        return this.doors.rows(element.id);
      case 'action':
        return this.doors.action(element.id);
      case 'data-field':
        return this.doors.field(element.id, 'existing');
    }
    const gate = this.gateRule(element);
    // No door can widen it.
    if (gate.see === false) return ALWAYS[NONE];
    switch (element.kind) {
      case 'screen':
        return this.doors.screen(element.node);
      case 'menu-item':
        return seeCountsAsEdit(this.throughDoor(element, gate));
      case 'list':
      case 'column':
        return this.throughDoor(element, gate);
      case 'button': {
        const rule = this.throughDoor(element, gate);
        return this.onScreen(element, this.changes(element.node) ? rule : seeCountsAsEdit(rule));
      }
      case 'field':
        return this.onScreen(element, this.throughDoor(element, gate));
      default:
        return this.onScreen(element, gate);
    }
  }

  /** Does the button change data, rather than lead somewhere or read? */
  protected changes({ effect }: Button): boolean {
    if (effect.do === 'action') return changesData(this.compiled.tree.need(effect.action, 'action').node);
    return effect.do === 'save' || effect.do === 'delete' || effect.do === 'bulk';
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
      case 'action': {
        const action = this.doors.action(door.id);
        // A button for a whole list, on a record's screen: its door is about other records than that one.
        const otherRecords =
          element.kind === 'button' && 'list' in element.node.effect && element.screen?.binds;
        return lower(gate, otherRecords ? mostOf(action) : action);
      }
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

import type { Chart, List, Screen } from '../../model/definition';
import type { Id } from '../../model/id';
import { leadsOrReads, type AppElement, type Tree } from '../../model/tree';
import type { Handle, Handles } from './handles';
import { EDIT, NONE, SEE, type Level } from './level';

/**
 * One step of a decision. `a` and `b` are numbers of earlier steps, where nothing else is said. Rules are told
 * of in `rule.ts`: what it takes of a record to reach see, and to reach edit.
 */
export interface PlanStep {
  readonly op:
    /** The level `a`, for every record. */
    | 'always'
    /** The lines of element `b`, within what `a` leaves; without lines, `a`. */
    | 'gate'
    /** Full where the record passes the fixed filter of list `a`, by its place in `lists`. */
    | 'carried'
    /** What both give. */
    | 'lower'
    /** What any gives of the steps that `many` holds from `a` to before `b`. */
    | 'higher'
    /** `a`, with edit only where `b` gives edit. */
    | 'edit-if'
    /** For what only leads somewhere or reads: see of `a` counts as edit. */
    | 'see-as-edit'
    /** What `a` gives whatever the record is. */
    | 'least'
    /** What `a` could give for some record. */
    | 'most'
    /** `a` decided without a record, whatever record is at hand. */
    | 'without-record'
    /** The part of `a` that is the same for all records: `a` where it asks for none, else edit. */
    | 'constant'
    /** The other part: `a` where it asks for the record, else edit. Both together are `a`. */
    | 'asking'
    /** `a`, a gate, where that has lines of its own; else `b`. */
    | 'unless-followed'
    /** `b` where the gate `a` has lines of its own; else full. */
    | 'if-own';
  readonly a: number;
  readonly b: number;
  /** Of a gate or a filter, for data without a field for the unit: what is held in a unit only is in doubt there. */
  readonly inNoUnit?: true;
}

/** The steps that stand for a level come first, so that their numbers are the levels. */
const ALWAYS: readonly Level[] = [NONE, SEE, EDIT];

/**
 * How access is decided in one application, whoever looks and whatever its gates' lines say: access.md 3 and 4
 * as a list of steps, each made of earlier ones. Worked through for one viewer it gives their rules
 * (`access.ts`); for many at once, their answers (`crowd.ts`). Doors are worked out in the order
 * gates → rows → actions → fields, and read only gate results, so nothing is circular.
 */
export class Plan {
  readonly steps: PlanStep[] = ALWAYS.map((level) => ({ op: 'always', a: level, b: 0 }));
  readonly many: number[] = [];
  readonly lists: List[] = [];
  /**
   * By element number: the step of what its gate gives within its containers. A gate without lines gives what its
   * container gives; for a door of data that is not yet its answer, since without lines it follows the screens (derived from what they show).
   */
  readonly gates: number[] = [];
  /**
   * By element number. Within a list on a record's screen, `record` is the row, while the gates around the list ask
   * of the screen's record: what those ask of it is kept here, apart. For all else it is edit.
   */
  private readonly outerGates: number[] = [];
  /** By element number: all that it takes to get it; and beside it, in `outers`, what is asked of the screen's record. */
  readonly rules: number[] = [];
  readonly outers: number[] = [];
  /** By the number of a door of data: what the screens give of it, on stored records, where it follows them. */
  readonly followed = new Map<number, number>();
  private readonly newFields = new Map<number, number>();
  private readonly carriedBy = new Map<Id, number>();
  private readonly saving = new Map<Screen, number>();
  /** By a step, the same for data without a field for the unit. */
  private readonly inNoUnit = new Map<number, number>();

  constructor(
    private readonly tree: Tree,
    private readonly handles: Handles,
  ) {
    for (const element of tree.elements) {
      this.addGate(element);
      if (element.kind === 'list') this.addFilter(element.node);
    }
    for (const element of tree.elements) {
      const outer = this.outerGates[element.number] as number;
      this.outers.push(leadsOrReads(tree, element) ? this.seeAsEdit(outer) : outer);
      this.rule(element);
    }
    for (const entity of tree.elements)
      if (entity.kind === 'rows')
        for (const { id } of entity.node.fields) this.field(this.element(id), 'new');
    for (const element of tree.elements)
      this.gates[element.number] = this.forUnit(element, this.gate(element));
  }

  /** The step of a field of the data, on a record that is being made. */
  newField({ number }: AppElement): number {
    return this.newFields.get(number) ?? NONE;
  }

  /** The step of a list's fixed filter. */
  carried({ id }: List): number {
    const step = this.carriedBy.get(id);
    if (step === undefined) throw new Error(`There is no list with the id ${id}`);
    return step;
  }

  /** access.md 3: min(own, container). A list's rows are other records than its screen's, whose part is kept apart. */
  private addGate(element: AppElement): void {
    const { container, number } = element;
    const above = container ? (this.gates[container.number] as number) : EDIT;
    const outside = container ? (this.outerGates[container.number] as number) : EDIT;
    if (!container || element.kind !== 'list' || !element.screen?.binds) {
      this.outerGates.push(outside);
      this.gates.push(this.add('gate', above, number));
      return;
    }
    // Around the list it is the screen's record that has a unit or none.
    const around = this.forUnit(container, above);
    this.outerGates.push(this.one('asking', around));
    this.gates.push(this.add('gate', this.one('constant', around), number));
  }

  /** A step as it is for the record at an element: where its data has no field for the unit, for records in no unit. */
  private forUnit(element: AppElement, step: number): number {
    const entity = this.tree.recordOf(element);
    return entity && entity.unitField === undefined ? this.withoutUnit(step) : step;
  }

  private withoutUnit(step: number): number {
    const known = this.inNoUnit.get(step);
    if (known !== undefined) return known;
    const { op, a, b, inNoUnit } = this.steps[step] as PlanStep;
    const made = inNoUnit ? step : this.madeWithoutUnit(step, { op, a, b });
    this.inNoUnit.set(step, made);
    return made;
  }

  private madeWithoutUnit(step: number, { op, a, b }: PlanStep): number {
    switch (op) {
      case 'gate':
        return this.steps.push({ op, a: this.withoutUnit(a), b, inNoUnit: true }) - 1;
      case 'carried':
        return this.steps.push({ op, a, b, inNoUnit: true }) - 1;
      case 'lower':
        return this.lower(this.withoutUnit(a), this.withoutUnit(b));
      case 'higher':
        return this.higher(this.many.slice(a, b).map((one) => this.withoutUnit(one)));
      case 'edit-if':
      case 'if-own':
      case 'unless-followed':
        return this.add(op, this.withoutUnit(a), this.withoutUnit(b));
      case 'see-as-edit':
        return this.seeAsEdit(this.withoutUnit(a));
      case 'always':
      // These ask of no record, or of the one around a list, which is looked after there.
      case 'least':
      case 'most':
      case 'without-record':
      case 'constant':
      case 'asking':
        return step;
    }
  }

  private addFilter(list: List): void {
    const step = list.filter === undefined ? EDIT : this.add('carried', this.lists.push(list) - 1);
    this.carriedBy.set(list.id, step);
  }

  private rule(element: AppElement): number {
    return (this.rules[element.number] ??= this.forUnit(element, this.ruleOf(element)));
  }

  private ruleOf(element: AppElement): number {
    const gate = this.gate(element);
    switch (element.kind) {
      case 'rows':
        return this.rows(element.node.id);
      case 'action':
        return this.action(element);
      case 'data-field':
        return this.field(element, 'existing');
      case 'screen': {
        const { binds } = element.node;
        return binds?.record === 'existing' ? this.lower(gate, this.ofId(binds.entity)) : gate;
      }
      case 'menu-item':
        return this.seeAsEdit(this.throughDoor(element, gate));
      case 'list':
      case 'column':
        return this.throughDoor(element, gate);
      case 'button': {
        const rule = this.throughDoor(element, gate);
        return this.onScreen(element, leadsOrReads(this.tree, element) ? this.seeAsEdit(rule) : rule);
      }
      case 'field':
        return this.onScreen(element, this.throughDoor(element, gate));
      case 'chart':
        return this.onScreen(element, this.ofChart(element.node, gate));
      case 'application':
      case 'area':
      case 'face':
      case 'menu':
      case 'people':
      case 'section':
      case 'text':
        return this.onScreen(element, gate);
    }
  }

  /** A handle can narrow its door, never widen it. */
  private throughDoor(element: AppElement, gate: number): number {
    const door = this.handles.doorOf(element);
    if (!door) return gate;
    if (door.kind === 'action') {
      // A button for a whole list, on a record's screen: its door is about other records than that one.
      const otherRecords =
        element.kind === 'button' && 'list' in element.node.effect && element.screen?.binds;
      const action = this.ofId(door.id);
      return this.lower(gate, otherRecords ? this.one('most', action) : action);
    }
    const making = element.kind === 'field' && element.screen?.binds?.record === 'new';
    if (door.kind === 'data-field' && making)
      return this.lower(gate, this.field(this.element(door.id), 'new'));
    const target = this.ofId(door.id);
    // What leads to a screen that makes a record is about none that is at hand.
    const makes = door.kind === 'screen' && this.tree.need(door.id, 'screen').node.binds?.record === 'new';
    return this.lower(gate, makes ? this.one('without-record', target) : target);
  }

  /** A chart shows no more than its list does, of fields that can be seen there at all; it opens nothing by itself. */
  private ofChart({ list: id, by, of }: Chart, gate: number): number {
    const list = this.element(id);
    const shown = this.lower(this.one('most', this.rule(list)), this.outerGates[list.number] as number);
    const fields = [by, ...(of === undefined ? [] : [of])].map((field) => this.one('most', this.ofId(field)));
    return [shown, ...fields].reduce((a, b) => this.lower(a, b), gate);
  }

  /** What stands on a record's screen is there only where the screen opens for that record. */
  private onScreen({ screen, list }: AppElement, rule: number): number {
    if (list || screen?.binds?.record !== 'existing') return rule;
    return this.lower(rule, this.seeAsEdit(this.ofId(screen.id)));
  }

  /**
   * An entity's rows. Following: open for a record if a screen for it can be opened on that record, or
   * a list of them stands on a screen that can be opened and the record passes the list's filter.
   */
  private rows(entity: Id): number {
    const open = this.higher([
      ...this.handles.recordScreensOf(entity).map((screen) => this.gate(this.element(screen.id))),
      ...this.handles.listsOf(entity).map(({ element, node }) => this.onRows(element, node)),
    ]);
    const element = this.element(entity);
    const followed = this.seeAsEdit(open);
    this.followed.set(element.number, followed);
    return this.unlessFollowed(element, followed);
  }

  /**
   * An action. Following: as its buttons give it, each for the records that its screen or list carries.
   * The action may be done only where this reaches edit; for one that only reads, see counts as edit.
   */
  private action(element: AppElement & { kind: 'action' }): number {
    const onScreens = this.higher(this.handles.buttonsOf(element.id).map((one) => this.onCarried(one)));
    this.followed.set(element.number, onScreens);
    const rows = this.element(this.entityOf(element));
    if (element.node.kind === 'create') {
      // A form is enough to make a record that its maker will not see, unless lines decide about rows.
      const form = this.lower(this.ifOwn(rows, this.rule(rows)), onScreens);
      return this.lower(this.ifOwn(element, this.rule(rows)), this.unlessFollowed(element, form));
    }
    const rule = this.lower(this.rule(rows), this.unlessFollowed(element, onScreens));
    return leadsOrReads(this.tree, element) ? this.seeAsEdit(rule) : rule;
  }

  /**
   * A field of the data, of a stored record or of one that is being made. Following: the highest that its
   * handles give. A handle gives edit only if a button on its screen saves.
   */
  private field(element: AppElement, record: 'existing' | 'new'): number {
    const known = record === 'new' ? this.newFields.get(element.number) : this.rules[element.number];
    if (known !== undefined) return known;
    const rows = this.tree.need(this.entityOf(element), 'rows');
    const save = this.tree.action(rows.node, record === 'new' ? 'create' : 'update');
    const onScreens = this.fieldOnScreens(element, record);
    if (record === 'existing') this.followed.set(element.number, onScreens);
    const base = this.unlessFollowed(element, onScreens);
    const written = this.add('edit-if', base, this.ofId(save.id));
    if (record === 'existing') return this.lower(this.rule(rows), written);
    const rule = this.forUnit(element, written);
    this.newFields.set(element.number, rule);
    return rule;
  }

  private fieldOnScreens(element: AppElement, record: 'existing' | 'new'): number {
    if (element.kind === 'data-field' && element.node.neverFollows) return NONE;
    const fields = this.handles
      .fieldsOf(element.id, record)
      .map((one) => this.add('edit-if', this.gate(one.element), this.saves(one.screen)));
    const columns = record === 'existing' ? this.handles.columnsOf(element.id) : [];
    return this.higher([...fields, ...columns.map((one) => this.add('edit-if', this.onCarried(one), NONE))]);
  }

  /** What it takes for some button on the screen to save. */
  private saves(screen: Screen): number {
    let step = this.saving.get(screen);
    if (step === undefined) {
      step = this.higher(this.handles.savesOn(screen).map((button) => this.gate(button)));
      this.saving.set(screen, step);
    }
    return step;
  }

  /** What a handle's gate gives on the records that its screen, or the list that it is about, carries. */
  private onCarried({ element, list, screen }: Handle<unknown>): number {
    const own = this.gate(element);
    if (!list) return own;
    if (element.list) return this.onRows(element, list);
    const onList = this.seeAsEdit(this.onRows(this.element(list.id), list));
    // A button that is not within its list, on a screen that shows a record: that record is another one.
    return this.lower(screen.binds ? this.one('least', own) : own, onList);
  }

  /**
   * What the gate of a list, or of something in it, gives on the rows. Which record the screen shows is
   * not known here: what depends on that one counts only where every record gives it, and a list that shows only what
   * belongs to that one opens nothing by itself.
   */
  private onRows(element: AppElement, list: List): number {
    if (list.of !== undefined) return NONE;
    const outer = this.one('least', this.outerGates[element.number] as number);
    return this.lower(this.lower(this.gate(element), outer), this.carried(list));
  }

  private gate({ number }: AppElement): number {
    return this.gates[number] as number;
  }

  private element(id: Id): AppElement {
    const element = this.tree.get(id);
    if (!element) throw new Error(`There is no element with the id ${id}`);
    return element;
  }

  private ofId(id: Id): number {
    return this.rule(this.element(id));
  }

  private entityOf({ id }: AppElement): Id {
    const entity = this.tree.entityOf(id);
    if (!entity) throw new Error(`No entity contains the element ${id}`);
    return entity.id;
  }

  private unlessFollowed(element: AppElement, other: number): number {
    return this.add('unless-followed', this.gate(element), other);
  }

  private ifOwn(element: AppElement, rule: number): number {
    return this.add('if-own', this.gate(element), rule);
  }

  private lower(a: number, b: number): number {
    if (a === NONE || b === NONE) return NONE;
    if (a === EDIT || a === b) return b;
    return b === EDIT ? a : this.add('lower', a, b);
  }

  private higher(steps: readonly number[]): number {
    const some = [...new Set(steps)].filter((step) => step !== NONE);
    if (some.length < 2) return some[0] ?? NONE;
    const from = this.many.length;
    this.many.push(...some);
    return this.add('higher', from, this.many.length);
  }

  private seeAsEdit(a: number): number {
    return this.one('see-as-edit', a);
  }

  private one(op: PlanStep['op'], a: number): number {
    return a === NONE || a === EDIT ? a : this.add(op, a);
  }

  private add(op: PlanStep['op'], a: number, b = 0): number {
    return this.steps.push({ op, a, b }) - 1;
  }
}

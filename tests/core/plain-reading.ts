import { addDays, readClock } from '@/core/condition/clock';
import type { Condition, Operand } from '@/core/condition/condition';
import type { Button, Definition, Entity, List, Screen } from '@/core/model/definition';
import type { Line } from '@/core/model/gate';
import type { Id } from '@/core/model/id';
import { sectionsOf, Tree, type AppElement } from '@/core/model/tree';
import type { Value } from '@/core/model/value-type';
import type { KnownRecord } from '@/core/access/sent/resolve';
import type { Circumstances, Viewer } from '@/core/access/deciding/viewer';

/** Which answers a question can have: one where all is known, perhaps all where the record is not. */
type Possible = ReadonlySet<boolean | 'doubt'>;
type Truth = boolean | 'doubt';

interface Span {
  readonly least: number;
  readonly most: number;
}

const only = (truth: Truth): Possible => new Set([truth]);
const ANY: Possible = new Set<Truth>([true, false, 'doubt']);
const lowest = (...spans: readonly Span[]): Span => ({
  least: Math.min(...spans.map((one) => one.least)),
  most: Math.min(...spans.map((one) => one.most)),
});

/**
 * A plain, slow reading of access.md 1 to 10, for one record, sentence by sentence. It shares nothing
 * with the access code that it is compared with but the clock: no bit sets, no formulas, no caches.
 */
export class PlainReading {
  private readonly tree: Tree;
  /** Of what is decided without a record: has its data no field for the unit, so that it is in none? */
  private inNoUnit = false;

  constructor(
    private readonly definition: Definition,
    private readonly viewer: Viewer,
    private readonly at: Circumstances,
  ) {
    this.tree = new Tree(definition);
  }

  private below(unit: Id): Id[] {
    const within = (units: Definition['units'], inside: boolean): Id[] =>
      units.flatMap((one) => {
        const here = inside || one.id === unit;
        return [...(here ? [one.id] : []), ...within(one.units, here)];
      });
    return within(this.definition.units, false);
  }

  /** Is it a unit that there is? A record in one that is gone is in doubt. */
  private isThere(unit: Value | null | undefined): boolean {
    return typeof unit === 'string' && this.below(unit).length > 0;
  }

  private includes(from: Id, role: Id): boolean {
    const found = this.definition.roles.find((one) => one.id === from);
    return found !== undefined && (from === role || found.includes.some((one) => this.includes(one, role)));
  }

  /** Does some assignment that counts now give what `gives` says, everywhere or for this record's unit? */
  private held(
    gives: (role: Id) => boolean,
    record: KnownRecord | undefined,
    where?: 'everywhere' | 'anywhere',
  ): Possible {
    if (this.viewer.kind === 'signed-out') return only(false);
    const now = this.at.moment;
    const counting = this.viewer.assignments.filter(
      ({ role, from, until }) =>
        gives(role) && (!from || Date.parse(from) <= now) && (!until || now < Date.parse(until)),
    );
    const places = counting.map(({ unit }) => (unit === undefined ? 'everywhere' : this.below(unit)));
    if (places.includes('everywhere')) return only(true);
    const units = places.flat();
    if (units.length === 0 || where === 'everywhere') return only(false);
    if (where === 'anywhere') return only(true);
    if (this.inNoUnit) return only('doubt');
    if (!record) return ANY;
    const unit = record.entity.unitField && record.values[record.entity.unitField];
    return only(this.isThere(unit) ? units.includes(String(unit)) : 'doubt');
  }

  private hasRole(
    role: Id,
    exactly: boolean,
    record: KnownRecord | undefined,
    where?: 'everywhere' | 'anywhere',
  ): Possible {
    if (!this.definition.roles.some((one) => one.id === role)) return only('doubt');
    return this.held((from) => (exactly ? from === role : this.includes(from, role)), record, where);
  }

  private hasPrivilege(
    privilege: Id,
    record: KnownRecord | undefined,
    where?: 'everywhere' | 'anywhere',
  ): Possible {
    const { privileges, roles } = this.definition;
    if (!privileges.some((group) => group.privileges.some((one) => one.id === privilege)))
      return only('doubt');
    return this.held(
      (from) => roles.some((role) => role.privileges.includes(privilege) && this.includes(from, role.id)),
      record,
      where,
    );
  }

  private speaks({ who }: Line, record: KnownRecord | undefined): Possible {
    const { viewer, definition } = this;
    const signedIn = viewer.kind === 'signed-in';
    switch (who.kind) {
      case 'everyone':
        return only(true);
      case 'signed-out':
        return only(!signedIn);
      case 'signed-in':
        return only(signedIn);
      case 'person':
        return only(signedIn && viewer.person === who.person);
      case 'role':
        return this.hasRole(who.role, who.exactly ?? false, record);
      case 'privilege':
        return this.hasPrivilege(who.privilege, record);
      case 'group': {
        const group = definition.groups.find((one) => one.id === who.group);
        if (!group) return only('doubt');
        return signedIn ? this.holds(group.condition, undefined, record) : only(false);
      }
      case 'unit': {
        if (this.below(who.unit).length === 0) return only('doubt');
        if (!signedIn) return only(false);
        const home = viewer.attributes?.['home_unit'];
        return only(this.isThere(home) ? this.below(who.unit).includes(String(home)) : 'doubt');
      }
    }
  }

  /** 3.6, three-valued; `entity` is what `record` stands for, `record` is undefined where it is not known. */
  private holds(condition: Condition, entity: Entity | undefined, record: KnownRecord | undefined): Possible {
    const all = (parts: readonly Possible[]): Possible => {
      let possible = only(true);
      for (const part of parts)
        possible = pairs(possible, part, (a, b) =>
          a === false || b === false ? false : a === true && b === true ? true : 'doubt',
        );
      return possible;
    };
    const not = (part: Possible): Possible => new Set([...part].map((one) => (one === 'doubt' ? one : !one)));
    const inner = (one: Condition): Possible => this.holds(one, entity, record);
    if ('all' in condition) return all(condition.all.map(inner));
    if ('any' in condition) return not(all(condition.any.map((one) => not(inner(one)))));
    if ('not' in condition) return not(inner(condition.not));
    if ('hasRole' in condition)
      return this.hasRole(condition.hasRole, condition.exactly ?? false, record, condition.held);
    if ('hasPrivilege' in condition) return this.hasPrivilege(condition.hasPrivilege, record, condition.held);
    if ('between' in condition) {
      const { between, from, to } = condition;
      return all([
        inner({ compare: '>=', left: between, right: from }),
        inner({ compare: '<=', left: between, right: to }),
      ]);
    }
    if ('inGroup' in condition) {
      const group = this.definition.groups.find((one) => one.id === condition.inGroup);
      if (group && this.viewer.kind === 'signed-out') return only(false);
      return group ? this.holds(group.condition, undefined, record) : only('doubt');
    }
    if ('meets' in condition) {
      const named = this.definition.conditions.find((one) => one.id === condition.meets);
      return named ? this.holds(named.condition, entity, record) : only('doubt');
    }
    if ('call' in condition) throw new Error('The random conditions call nothing');
    const asked =
      'compare' in condition
        ? [condition.left, condition.right]
        : 'empty' in condition
          ? [condition.empty]
          : 'oneOf' in condition
            ? [condition.oneOf]
            : [condition.inUnit];
    if ('inUnit' in condition) {
      if (!this.isThere(this.value(condition.unit, entity, record))) return only('doubt');
    }
    if (!('empty' in condition) && asked.some((one) => this.isUnit(one, entity)))
      for (const one of asked) {
        const unit = this.value(one, entity, record);
        if ((record || !('record' in one)) && !this.isThere(unit)) return only('doubt');
      }
    if (!record && asked.some((one) => 'record' in one)) {
      // With the other value missing there is doubt, whatever the record.
      const missing = asked.some(
        (one) => !('record' in one) && (this.value(one, entity, record) ?? null) === null,
      );
      return missing ? only('doubt') : ANY;
    }
    return only(this.question(condition, entity, record));
  }

  private question(condition: Condition, entity: Entity | undefined, record: KnownRecord | undefined): Truth {
    const value = (one: Operand): Value | null | undefined => this.value(one, entity, record);
    if ('empty' in condition) {
      const found = value(condition.empty);
      return found === undefined ? 'doubt' : found === null;
    }
    if ('oneOf' in condition) {
      const found = typed(this.typeOf(condition.oneOf, entity), value(condition.oneOf));
      return found === undefined ? 'doubt' : condition.values.some((one) => this.same(found, one));
    }
    if ('inUnit' in condition) {
      const found = value(condition.inUnit);
      return typeof found === 'string' ? this.below(String(value(condition.unit))).includes(found) : 'doubt';
    }
    if (!('compare' in condition)) throw new Error('Not a question');
    const type = this.typeOf(condition.left, entity) ?? this.typeOf(condition.right, entity);
    const [a, b] = [condition.left, condition.right].map((one) => {
      const read = typed(type, value(one));
      return condition.anyCase && typeof read === 'string' ? read.toLowerCase() : read;
    });
    if (a === undefined || b === undefined) return 'doubt';
    const order =
      type === 'number' ? Number(scaled(String(a)) - scaled(String(b))) : a < b ? -1 : a > b ? 1 : 0;
    switch (condition.compare) {
      case '=':
        return order === 0;
      case '!=':
        return order !== 0;
      case '<':
        return order < 0;
      case '<=':
        return order <= 0;
      case '>':
        return order > 0;
      case '>=':
        return order >= 0;
      case 'contains':
        return String(a).includes(String(b));
      case 'starts with':
        return String(a).startsWith(String(b));
      case 'ends with':
        return String(a).endsWith(String(b));
    }
  }

  private same(a: Value, b: Value): boolean {
    const decimal = (one: Value): boolean => /^-?\d+(\.\d+)?$/.test(String(one));
    return decimal(a) && decimal(b) ? scaled(String(a)) === scaled(String(b)) : a === b;
  }

  /** A value that is there, null where it is empty, undefined where it cannot be told. */
  private value(
    one: Operand,
    entity: Entity | undefined,
    record: KnownRecord | undefined,
  ): Value | null | undefined {
    const { viewer, at, definition } = this;
    if ('value' in one) return one.value;
    if ('user' in one)
      return viewer.kind === 'signed-out' || !viewer.attributes
        ? undefined
        : (viewer.attributes[one.user] ?? null);
    if ('session' in one)
      return viewer.kind === 'signed-out' ? undefined : (at.session?.[one.session] ?? null);
    if ('clock' in one) {
      const reading = readClock(at.moment, definition.timeZone)[one.clock];
      return one.plus ? addDays(reading, one.plus) : reading;
    }
    if (!record) return undefined;
    if (one.through === undefined) return record.values[one.record] ?? null;
    const type = entity?.fields.find((field) => field.id === one.through)?.type;
    const id = record.values[one.through];
    const target =
      type?.kind === 'record' && typeof id === 'string' ? record.lookUp?.(type.entity, id) : undefined;
    return target && (target[one.record] ?? null);
  }

  private isUnit(one: Operand, entity: Entity | undefined): boolean {
    if ('user' in one) return one.user === 'home_unit';
    if (!('record' in one)) return false;
    const fields = [...this.definition.entities, ...(entity ? [entity] : [])].flatMap((each) => each.fields);
    return fields.find((field) => field.id === one.record)?.type.kind === 'unit';
  }

  private typeOf(one: Operand, entity: Entity | undefined): string | undefined {
    if ('value' in one) return undefined;
    if ('clock' in one) return one.clock === 'day' ? 'number' : 'text';
    if ('session' in one) return 'boolean';
    if ('user' in one) return one.user === 'limit' ? 'number' : 'text';
    const kind = [...this.definition.entities, ...(entity ? [entity] : [])]
      .flatMap((each) => each.fields)
      .find((field) => field.id === one.record)?.type.kind;
    return kind === 'money' ? 'number' : kind === 'boolean' ? 'boolean' : 'text';
  }

  /** 3.2, without the container: own = min(given, limit). */
  private own(element: AppElement, record: KnownRecord | undefined): Span {
    const given = { least: 0, most: 0 };
    const limit = { least: 2, most: 2 };
    const entity = this.tree.recordOf(element);
    for (const line of this.definition.gates[element.id]?.lines ?? []) {
      const when = line.when ? this.holds(line.when, entity, record) : only(true);
      const matched = pairs(this.speaks(line, record), when, (a, b) =>
        a === false || b === false ? false : a === true && b === true ? true : 'doubt',
      );
      const level = line.what === 'edit' ? 2 : line.what === 'block' ? 0 : 1;
      if (line.what === 'see' || line.what === 'edit') {
        if (matched.has(true)) given.most = Math.max(given.most, level);
        if (matched.has(true) && matched.size === 1) given.least = Math.max(given.least, level);
      } else {
        if (!matched.has(false)) limit.most = Math.min(limit.most, level);
        if (matched.size > 1 || !matched.has(false)) limit.least = Math.min(limit.least, level);
      }
    }
    return lowest(given, limit);
  }

  /** Is this a list on a record's screen? Its rows are other records than the screen's. */
  private crosses(element: AppElement): boolean {
    return element.kind === 'list' && element.screen?.binds !== undefined;
  }

  /** 3.2: result = min(own, container's result); a follower: container's. Within the same record. */
  result(element: AppElement, record: KnownRecord | undefined): Span {
    const above: Span =
      element.container && !this.crosses(element)
        ? this.result(element.container, record)
        : { least: 2, most: 2 };
    return this.definition.gates[element.id] ? lowest(above, this.own(element, record)) : above;
  }

  /** What containers give that are about another record, which is not known. */
  private outside(element: AppElement): Span {
    if (this.crosses(element)) return this.withoutRecord(element.container as AppElement);
    return element.container ? this.outside(element.container) : { least: 2, most: 2 };
  }

  /** What an element's gate gives where the record that it is about is not known. */
  private withoutRecord(element: AppElement): Span {
    const entity = this.tree.recordOf(element);
    this.inNoUnit = entity !== undefined && entity.unitField === undefined;
    const span = this.result(element, undefined);
    this.inNoUnit = false;
    return span;
  }

  /** As doors see a handle: on this record, whatever the record of the screen is. */
  private handle(element: AppElement, record: KnownRecord): number {
    return Math.min(this.result(element, record).least, this.outside(element).least);
  }

  private get(id: Id): AppElement {
    return this.tree.get(id) as AppElement;
  }

  private parts(): { screen: Screen; part: Screen['sections'][number]['parts'][number] }[] {
    return this.tree
      .screens()
      .flatMap((screen) =>
        sectionsOf(screen).flatMap(({ parts }) => parts.map((part) => ({ screen, part }))),
      );
  }

  private lists(entity: Entity): List[] {
    return this.parts().flatMap(({ part }) =>
      part.kind === 'list' && part.entity === entity.id ? [part] : [],
    );
  }

  private passes(list: List, record: KnownRecord): boolean {
    return !list.filter || this.holds(list.filter, record.entity, record).has(true);
  }

  private carries(list: List, record: KnownRecord): boolean {
    return list.entity === record.entity.id && list.of === undefined && this.passes(list, record);
  }

  rows(record: KnownRecord): number {
    const { entity } = record;
    if (this.definition.gates[entity.id]) return this.result(this.get(entity.id), record).least;
    const onScreen = this.tree
      .screens()
      .some((one) => this.shows(one, entity) && this.result(this.get(one.id), record).least >= 1);
    const inList = this.lists(entity).some(
      (list) =>
        list.of === undefined && this.handle(this.get(list.id), record) >= 1 && this.passes(list, record),
    );
    return onScreen || inList ? 2 : 0;
  }

  private shows(screen: Screen, entity: Entity): boolean {
    return screen.binds?.entity === entity.id && screen.binds.record === 'existing';
  }

  /** What the buttons for the action give on this record, those of its screens and of the lists that carry it. */
  private buttons(kind: string, action: Id, record: KnownRecord): number[] {
    const does = (button: Button, screen: Screen): boolean =>
      (kind === 'named' && button.effect.do === 'action' && button.effect.action === action) ||
      (kind === 'delete' && button.effect.do === 'delete') ||
      (button.effect.do === 'save' && kind === (screen.binds?.record === 'new' ? 'create' : 'update'));
    return this.parts().flatMap(({ screen, part }) => {
      if (part.kind === 'button' && (part.effect.do === 'export' || part.effect.do === 'bulk')) {
        const list = this.get(part.effect.list);
        if (list.kind !== 'list' || part.effect.do !== kind || !this.carries(list.node, record)) return [];
        const on = this.result(this.get(part.id), screen.binds ? undefined : record).least;
        return [this.handle(list, record) >= 1 ? on : 0];
      }
      if (part.kind === 'button')
        return screen.binds?.entity === record.entity.id && does(part, screen)
          ? [this.result(this.get(part.id), record).least]
          : [];
      if (part.kind !== 'list' || !this.carries(part, record)) return [];
      return part.buttons
        .filter((button) => button.effect.do !== 'save' && does(button, screen))
        .map((button) => this.handle(this.get(button.id), record));
    });
  }

  private changes(action: Id): boolean {
    const node = this.tree.need(action, 'action').node;
    return node.kind === 'named' ? Object.keys(node.sets).length > 0 : node.kind !== 'export';
  }

  action(id: Id, record: KnownRecord): number {
    const action = record.entity.actions.find((one) => one.id === id);
    const given = this.definition.gates[id]
      ? this.result(this.get(id), record).least
      : Math.max(0, ...this.buttons(action?.kind ?? '', id, record));
    // A form is enough to make a record, unless lines decide about rows or about making.
    const form =
      action?.kind === 'create' && !this.definition.gates[id] && !this.definition.gates[record.entity.id];
    const level = form ? given : Math.min(this.rows(record), given);
    return level === 1 && !this.changes(id) ? 2 : level;
  }

  field(id: Id, record: KnownRecord, kind: 'existing' | 'new'): number {
    const { entity } = record;
    const save = entity.actions.find((one) => one.kind === (kind === 'new' ? 'create' : 'update'));
    const writable = this.action(save?.id ?? '', record) === 2;
    const rows = kind === 'new' ? 2 : this.rows(record);
    let level = 0;
    if (this.definition.gates[id]) level = this.result(this.get(id), record).least;
    else if (!entity.fields.find((one) => one.id === id)?.neverFollows)
      for (const { screen, part } of this.parts()) {
        if (part.kind === 'field' && part.field === id && screen.binds?.record === kind) {
          const saves = sectionsOf(screen)
            .flatMap(({ parts }) => parts)
            .some(
              (one) =>
                one.kind === 'button' &&
                one.effect.do === 'save' &&
                this.result(this.get(one.id), record).least === 2,
            );
          level = Math.max(level, Math.min(this.result(this.get(part.id), record).least, saves ? 2 : 1));
        }
        if (part.kind === 'list' && kind === 'existing' && this.carries(part, record))
          for (const column of part.columns)
            if (column.field === id)
              level = Math.max(level, Math.min(this.handle(this.get(column.id), record), 1));
      }
    return Math.min(level, rows, writable ? 2 : 1);
  }

  screen(screen: Screen, record: KnownRecord): number {
    const gate = this.result(this.get(screen.id), record).least;
    return screen.binds?.record === 'existing' ? Math.min(gate, this.rows(record)) : gate;
  }

  /**
   * The effective level of any element on a record of the entity that it is about. `leads` is the level of
   * the screen that it leads to.
   */
  level(element: AppElement, record: KnownRecord): number {
    const own = Math.min(this.result(element, record).least, this.outside(element).most);
    const onRecord = element.screen?.binds?.record === 'existing' && !element.list && element.kind !== 'list';
    const opens = onRecord && element.screen && this.screen(element.screen, record) === 0 ? 0 : 2;
    const lead = (screen: Id): number => {
      const { node } = this.tree.need(screen, 'screen');
      // What makes a record is decided without one.
      const makes = node.binds?.record === 'new';
      const there = makes ? this.withoutRecord(this.get(screen)).most : this.screen(node, record);
      return Math.min(own, there) >= 1 ? 2 : 0;
    };
    switch (element.kind) {
      case 'rows':
        return this.rows(record);
      case 'action':
        return this.action(element.id, record);
      case 'data-field':
        return this.field(element.id, record, 'existing');
      case 'screen':
        return this.screen(element.node, record);
      case 'menu-item':
        return element.node.screen ? lead(element.node.screen) : own >= 1 ? 2 : 0;
      case 'field':
        return Math.min(
          opens,
          own,
          this.field(element.node.field, record, element.screen?.binds?.record ?? 'existing'),
        );
      case 'column':
        return Math.min(own, this.field(element.node.field, record, 'existing'));
      case 'list':
        return Math.min(own, this.rows(record));
      case 'button': {
        const { effect } = element.node;
        if (effect.do === 'open') return Math.min(opens, lead(effect.screen));
        if (['sign-out', 'visit', 'set-session'].includes(effect.do))
          return Math.min(opens, own >= 1 ? 2 : 0);
        const making = element.screen?.binds?.record === 'new' ? 'create' : 'update';
        const kind = effect.do === 'save' ? making : effect.do;
        const action =
          effect.do === 'action' ? effect.action : record.entity.actions.find((one) => one.kind === kind)?.id;
        const level = Math.min(own, this.action(action ?? '', record));
        return Math.min(opens, level === 1 && !this.changes(action ?? '') ? 2 : level);
      }
      default:
        return Math.min(opens, own);
    }
  }
}

function pairs(a: Possible, b: Possible, join: (a: Truth, b: Truth) => Truth): Possible {
  return new Set([...a].flatMap((one) => [...b].map((other) => join(one, other))));
}

/** The value as the type compares it, or undefined where it is missing or not of the type. */
function typed(type: string | undefined, value: Value | null | undefined): Value | undefined {
  if (value === null || value === undefined) return undefined;
  if (type === 'boolean') return typeof value === 'boolean' ? value : undefined;
  if (typeof value !== 'string') return undefined;
  return type === 'number' && !/^-?\d{1,15}(\.\d{1,10})?$/.test(value) ? undefined : value;
}

const scaled = (decimal: string): bigint => {
  const [whole = '0', part = ''] = decimal.split('.');
  return BigInt(whole + part.padEnd(10, '0'));
};

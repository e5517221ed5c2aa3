import type {
  Action,
  Area,
  Closed,
  Definition,
  Entity,
  EntityField,
  Face,
  List,
  MenuItem,
  Part,
  Role,
  Screen,
  Section,
} from '../../model/definition';
import { gives, type Gate, type Line } from '../../model/gate';
import type { Id } from '../../model/id';
import type { Problem } from '../../model/problem';
import { treeOf } from '../../model/tree';
import { fullName } from '../comparing/words';
import type { DependentDeletion } from './goes-with';
import { settled } from './in-doubt';
import { notRemoved } from './not-removed';

/** A definition without some of its elements, and without what names them. */
export class ReferenceRemover {
  readonly also: DependentDeletion[] = [];
  /** Why it cannot be: something that stays could not do without one of them. */
  refused: Problem | undefined;

  constructor(
    private readonly definition: Definition,
    private readonly gone: ReadonlySet<Id>,
  ) {}

  private isGone(id: Id | undefined): boolean {
    return id !== undefined && this.gone.has(id);
  }

  made(): Definition {
    const { definition } = this;
    const { startScreen, ...settings } = definition;
    const starts = startScreen !== undefined && !this.gone.has(startScreen);
    if (startScreen !== undefined && !starts)
      this.tell(undefined, definition.name, 'will have no start screen.');
    return {
      ...settings,
      ...(starts && { startScreen }),
      roles: same(definition.roles, (one) => this.role(one)),
      conditions: this.kept(definition.conditions),
      entities: this.each(definition.entities, (one) => this.entity(one)),
      areas: this.each(definition.areas, (area) =>
        this.framed(changedIn(area, { screens: this.each(area.screens, (one) => this.screen(one)) })),
      ),
      menu: changedIn(definition.menu, { items: this.items(definition.menu.items) }),
      gates: this.byId(definition.gates, (gate, id) => this.gate(gate, id)),
      closed: this.byId(definition.closed, (one, id) => this.closed(one, id)),
    };
  }

  private kept<T extends { readonly id: Id }>(all: readonly T[]): readonly T[] {
    return all.some(({ id }) => this.gone.has(id)) ? all.filter(({ id }) => !this.gone.has(id)) : all;
  }

  private each<T extends { readonly id: Id }>(all: readonly T[], change: (one: T) => T): readonly T[] {
    return same(this.kept(all), change);
  }

  private byId<T>(
    all: Readonly<Record<Id, T>>,
    change: (one: T, id: Id) => T | undefined,
  ): Readonly<Record<Id, T>> {
    const kept = Object.entries(all).flatMap(([id, one]) => {
      const made = this.gone.has(id) ? undefined : change(one, id);
      return made === undefined ? [] : [[id, made] as const];
    });
    return Object.fromEntries(kept);
  }

  private tell(element: Id | undefined, about: string, says: string): void {
    this.also.push({ ...(element !== undefined && { element }), about, says });
  }

  private nameOf(id: Id): string {
    const element = treeOf(this.definition).get(id);
    return element ? fullName(element) : id;
  }

  private role(role: Role): Role {
    if (!this.isGone(role.startScreen)) return role;
    this.tell(undefined, role.name, 'will have no start screen.');
    const { startScreen: _, ...rest } = role;
    return rest;
  }

  private entity(entity: Entity): Entity {
    const fields = this.kept(entity.fields);
    const labelField = this.gone.has(entity.labelField) ? this.otherLabel(entity, fields) : entity.labelField;
    const { unitField, ...rest } = entity;
    if (this.isGone(unitField))
      this.tell(entity.id, this.nameOf(entity.id), 'will no longer have a unit field.');
    return changedIn(this.isGone(unitField) ? (rest as Entity) : entity, {
      labelField,
      fields,
      actions: this.each(entity.actions, (one) => this.action(one)),
    });
  }

  /** A record is called by its first other text; where it has none, the field cannot go. */
  private otherLabel({ id, name, labelField }: Entity, fields: readonly EntityField[]): Id {
    const other =
      fields.find(({ type }) => type.kind === 'text' && !type.long) ??
      fields.find(({ type }) => type.kind === 'text');
    if (!other) {
      this.refused = notRemoved(
        this.nameOf(labelField),
        `This field is the label of ${name} records, and there is no other text field to replace it.`,
        'Add a text field first.',
      );
      return labelField;
    }
    this.tell(id, this.nameOf(id), `will use ${other.name} as their label.`);
    return other.id;
  }

  private action(action: Action): Action {
    if (action.kind !== 'named' || !Object.keys(action.sets).some((id) => this.gone.has(id))) return action;
    this.tell(action.id, this.nameOf(action.id), 'will no longer set it.');
    const sets = Object.fromEntries(Object.entries(action.sets).filter(([id]) => !this.gone.has(id)));
    return { ...action, sets };
  }

  private screen(screen: Screen): Screen {
    const sections = this.sections(screen.sections);
    if (!screen.faces) return changedIn(screen, { sections });
    const faces = this.each(screen.faces, (face): Face =>
      changedIn(face, { sections: this.sections(face.sections) }),
    );
    const { faces: _, ...faceless } = screen;
    return faces.length > 0 ? changedIn(screen, { sections, faces }) : { ...faceless, sections };
  }

  private framed(area: Area): Area {
    const { frame, ...rest } = area;
    if (!frame) return area;
    if (this.gone.has(frame.id)) return rest;
    return changedIn(area, { frame: changedIn(frame, { items: this.items(frame.items) }) });
  }

  private sections(sections: readonly Section[]): readonly Section[] {
    return this.each(sections, (one) =>
      changedIn(one, { parts: this.each(one.parts, (part) => this.part(part)) }),
    );
  }

  private part(part: Part): Part {
    if (part.kind !== 'list') return part;
    const { opens, filter, ...rest } = part;
    const leads = opens !== undefined && !this.gone.has(opens);
    if (opens !== undefined && !leads)
      this.tell(part.id, this.nameOf(part.id), 'will no longer open a screen.');
    const made: List = changedIn(leads ? part : { ...rest, ...(filter && { filter }) }, {
      columns: this.kept(part.columns),
      buttons: this.kept(part.buttons),
    });
    const left = filter && settled(filter, this.gone, false);
    if (left === filter || left === undefined) return made;
    this.tell(
      part.id,
      this.nameOf(part.id),
      'its filter uses a deleted item, so it will show only records that certainly match.',
    );
    return { ...made, filter: typeof left === 'boolean' ? (left ? { all: [] } : { any: [] }) : left };
  }

  private items(items: readonly MenuItem[]): readonly MenuItem[] {
    return this.each(items, (item) => {
      const { screen, ...rest } = item;
      if (!this.isGone(screen)) return changedIn(item, { items: this.items(item.items) });
      this.tell(item.id, this.nameOf(item.id), 'will no longer open a screen; the items below it are kept.');
      return { ...rest, items: this.items(item.items) };
    });
  }

  private gate(gate: Gate, id: Id): Gate {
    const lines = gate.lines.flatMap((line) => this.line(line, id));
    return lines.length === gate.lines.length && lines.every((line, n) => line === gate.lines[n])
      ? gate
      : { lines };
  }

  private line(line: Line, gate: Id): readonly Line[] {
    if (!line.when) return [line];
    const left = settled(line.when, this.gone, !gives(line));
    if (left === line.when) return [line];
    const { when: _, ...always } = line;
    const about = `Gate of ${this.nameOf(gate)}`;
    if (left === false) {
      this.tell(
        gate,
        about,
        'a line that grants access will be deleted, because its condition uses a deleted item.',
      );
      return [];
    }
    this.tell(
      gate,
      about,
      left === true
        ? 'a line that restricts access will always apply, because its condition used only deleted items.'
        : 'a line loses the part of its condition that uses a deleted item; if in doubt, it will not grant access.',
    );
    return [left === true ? always : { ...always, when: left }];
  }

  private closed(closed: Closed, id: Id): Closed | undefined {
    if (closed.show !== 'sent' || !this.gone.has(closed.screen)) return closed;
    this.tell(id, this.nameOf(id), 'will show the standard “no access” page instead of redirecting.');
    return undefined;
  }
}

/** The same list, where nothing in it changes. */
function same<T>(all: readonly T[], change: (one: T) => T): readonly T[] {
  const made = all.map(change);
  return made.every((one, n) => one === all[n]) ? all : made;
}

/** The same thing, where none of these keys changes. */
function changedIn<T extends object>(one: T, keys: Partial<T>): T {
  const differs = Object.entries(keys).some(
    ([key, value]) => (one as Record<string, unknown>)[key] !== value,
  );
  return differs ? { ...one, ...keys } : one;
}

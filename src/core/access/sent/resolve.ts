import type { RecordFacts } from '../../condition/atom';
import type { Button, EntityField, FieldPart, List, Screen } from '../../model/definition';
import type { Id } from '../../model/id';
import type { AppElement } from '../../model/tree';
import { unitsOf } from '../../model/units';
import { kindOf, showValue } from '../../model/values';
import type { Value, ValueType } from '../../model/value-type';
import type { Access } from '../deciding/access';
import { fieldsAskedOf } from '../deciding/reads';
import { EDIT, NONE, type Level } from '../deciding/level';
import type {
  ShownButton,
  ShownClosed,
  ShownColumn,
  ShownEffect,
  ShownField,
  ShownInput,
  ShownPart,
  ShownRow,
  ShownScreen,
  ShownSection,
} from './shown';

/** A stored record to decide on. */
export interface KnownRecord extends RecordFacts {
  readonly id: Id;
}

/** A screen's address within its application, without a leading slash. */
export function addressOf(screen: Screen, record?: Id): string {
  return screen.binds?.record === 'existing' && record !== undefined
    ? `${screen.address}/${record}`
    : screen.address;
}

/** What the element shows to those who do not get it; undefined where it is left out. */
export function shownClosed({ compiled }: Access, element: AppElement): ShownClosed | undefined {
  const closed = compiled.closed(element.id);
  if (!closed) return undefined;
  const door = compiled.handles.doorOf(element);
  // What leads to a secret screen would tell of it.
  if (door?.kind === 'screen' && compiled.closed(door.id)?.show === 'secret') return undefined;
  if (closed.show === 'explained') return { text: closed.text };
  return closed.show === 'locked' ? {} : undefined;
}

/**
 * The tree of a screen that may be sent to this viewer; undefined where the screen does not open for
 * them. The heading shows the record's label only where that field's door is open for this record. Of its
 * faces it shows `face`, if that is open to them, else the first that is.
 *
 * @example
 * const { tree } = compile(LARKFIELD);
 * const access = accessOf(compile(LARKFIELD), viewerOfRole('lender'), at);
 * resolve(access, tree.need('s_stores', 'screen').node, undefined) // → undefined
 * resolve(access, tree.need('s_pieces', 'screen').node, undefined)?.id // → 's_pieces'
 */
export function resolve(
  access: Access,
  screen: Screen,
  record: KnownRecord | undefined,
  face?: Id,
): ShownScreen | undefined {
  if (!access.opens(screen, record)) return undefined;
  const inside = access.element(screen.id).contents;
  const faces = inside.filter((one) => one.kind === 'face' && access.level(one, record) > NONE);
  const shown = faces.find((one) => one.id === face) ?? faces[0];
  const sections = [...inside.filter((one) => one.kind === 'section'), ...(shown?.contents ?? [])].flatMap(
    (section) => resolveSection(access, section, record) ?? [],
  );
  const { binds } = screen;
  const asks = askingFields(sections, fieldsAskedOf(access.compiled.definition));
  const label = record ? labelOf(access, record) : undefined;
  return {
    id: screen.id,
    heading: label || screen.name,
    ...(binds && { binds: { entity: binds.entity, ...(record && { record: record.id }) } }),
    ...(faces.length > 1 && {
      faces: faces.map(({ id, name }) => ({ id, name, shown: id === shown?.id })),
    }),
    sections,
    ...(asks.length > 0 && { asks }),
  };
}

function resolveSection(
  access: Access,
  section: AppElement,
  record: KnownRecord | undefined,
): ShownSection | undefined {
  const { id, name } = section;
  if (access.level(section, record) === NONE) {
    const closed = shownClosed(access, section);
    return closed && { id, name, parts: [{ kind: 'closed', id, name, closed }] };
  }
  const parts: ShownPart[] = [];
  for (const element of section.contents) {
    const shown = resolvePart(access, element, record);
    if (shown) parts.push(shown);
  }
  return parts.length > 0 ? { id, name, parts } : undefined;
}

function resolvePart(
  access: Access,
  element: AppElement,
  record: KnownRecord | undefined,
): ShownPart | undefined {
  const inList = element.kind === 'list';
  const level = access.level(element, inList ? undefined : record, record);
  if (level === NONE) {
    const closed = shownClosed(access, element);
    return closed && { kind: 'closed', id: element.id, name: element.name, closed };
  }
  switch (element.kind) {
    case 'field':
      return {
        ...resolveField(access, element, element.node.field, level, record),
        ...laidOut(element.node),
      };
    case 'button':
      return resolveButton(access, element.node, level, record?.id);
    case 'text':
      return { kind: 'text', id: element.id, text: element.node.text };
    case 'people':
      return { kind: 'people', id: element.id, name: element.name, works: level === EDIT };
    case 'chart': {
      const { by, of, shows, as } = element.node;
      const nameOf = (field: Id): string => access.element(field).name;
      return {
        kind: 'chart',
        id: element.id,
        name: element.name,
        as,
        by: nameOf(by),
        shows: of === undefined ? 'Count' : `${nameOf(of)}, ${shows}`,
      };
    }
    case 'list':
      return {
        kind: 'list',
        id: element.id,
        name: element.name,
        entity: element.node.entity,
        columns: element.contents.flatMap((column) =>
          column.kind === 'column' ? (resolveColumn(access, column, column.node.field, record) ?? []) : [],
        ),
      };
    case 'action':
    case 'application':
    case 'area':
    case 'column':
    case 'data-field':
    case 'face':
    case 'menu-item':
    case 'menu':
    case 'rows':
    case 'screen':
    case 'section':
      return undefined;
  }
}

const alignOf = (type: ValueType): 'start' | 'end' => (kindOf(type).measured ? 'end' : 'start');

/** A column stays where some record shows it; one that is closed for all, where it is shown as closed. */
function resolveColumn(
  access: Access,
  element: AppElement,
  field: Id,
  screenRecord: KnownRecord | undefined,
): ShownColumn | undefined {
  const closed = shownClosed(access, element);
  if (access.level(element, undefined, screenRecord) === NONE && !closed) return undefined;
  const { type } = access.compiled.tree.need(field, 'data-field').node;
  return {
    id: element.id,
    field,
    label: element.name,
    align: alignOf(type),
    ...(closed && { closed }),
  };
}

/** How wide a field is, and what stands under it; mostly nothing is said of either. */
const laidOut = ({ wide, help }: FieldPart): Pick<ShownField, 'wide' | 'help'> => ({
  ...(wide && { wide }),
  ...(help !== undefined && { help }),
});

function resolveField(
  access: Access,
  element: AppElement,
  id: Id,
  level: Level,
  record: KnownRecord | undefined,
): ShownField {
  const field = access.compiled.tree.need(id, 'data-field').node;
  const stored = record ? (record.values[id] ?? null) : (field.initial ?? null);
  const { value, text } = showField(access, field, stored, record?.lookUp);
  const align = alignOf(field.type);
  // Two literals rather than a spread: this is the innermost of every page.
  if (level < EDIT)
    return { kind: 'field', id: element.id, field: id, label: element.name, value, text, align };
  const input = inputOf(access, field);
  return { kind: 'field', id: element.id, field: id, label: element.name, value, text, align, input };
}

/** How the field is written: a unit as a choice of the units that there are. */
function inputOf(access: Access, { type, required = false }: EntityField): ShownInput {
  if (type.kind !== 'unit') return { type, required };
  const options = unitsOf(access.compiled.definition).map(({ id, name }) => ({ id, name }));
  return { type: { kind: 'choice', options }, required };
}

/**
 * A field's value as it may be shown to a viewer who may see the field: a record that it points to
 * only through that record's own doors, else neither its label nor its id.
 */
export function showField(
  access: Access,
  field: EntityField,
  value: Value | null,
  lookUp: RecordFacts['lookUp'],
): { readonly value: Value | null; readonly text: string } {
  if (field.type.kind !== 'record')
    return { value, text: showValue(field.type, value, access.compiled.definition) };
  const label = typeof value === 'string' ? targetLabel(access, field.type.entity, value, lookUp) : undefined;
  return label === undefined ? { value: null, text: '' } : { value, text: label };
}

function targetLabel(access: Access, target: Id, id: Id, lookUp: RecordFacts['lookUp']): string | undefined {
  const values = lookUp?.(target, id);
  if (!values) return undefined;
  return labelOf(access, { entity: access.compiled.tree.need(target, 'rows').node, id, values, lookUp });
}

/** A record's label, if its rows door and its label's door are open to the viewer. */
export function labelOf(access: Access, record: RecordFacts): string | undefined {
  const { entity, values } = record;
  if (access.level(access.element(entity.id), record) === NONE) return undefined;
  if (access.level(access.element(entity.labelField), record) === NONE) return undefined;
  const label = values[entity.labelField];
  return typeof label === 'string' ? label : '';
}

function resolveButton(access: Access, button: Button, level: Level, record: Id | undefined): ShownButton {
  return {
    kind: 'button',
    id: button.id,
    name: button.name,
    usable: level === EDIT,
    effect: resolveEffect(access, button, record),
  };
}

function resolveEffect(access: Access, { effect }: Button, record: Id | undefined): ShownEffect {
  const { tree } = access.compiled;
  switch (effect.do) {
    case 'open': {
      const screen = tree.need(effect.screen, 'screen').node;
      return { do: 'open', address: addressOf(screen, record) };
    }
    case 'action': {
      const action = tree.need(effect.action, 'action').node;
      const confirm = action.kind === 'named' ? action.confirm : undefined;
      return { do: 'action', action: effect.action, ...(confirm !== undefined && { confirm }) };
    }
    case 'export':
      return { do: 'export', list: effect.list };
    case 'bulk':
      return { do: 'bulk', list: effect.list, fields: bulkFields(access, effect.list) };
    case 'set-session':
      return { do: 'set-session' };
    case 'visit':
      return effect;
    case 'delete':
    case 'save':
    case 'sign-out':
      return { do: effect.do };
  }
}

/** The fields of a list that the viewer may change on some record: what a bulk change offers. */
function bulkFields(access: Access, list: Id): Extract<ShownEffect, { do: 'bulk' }>['fields'] {
  const { tree } = access.compiled;
  const entity = tree.entityOf(tree.need(list, 'list').node.entity);
  return (entity?.fields ?? [])
    .filter((field) => access.level(access.element(field.id), undefined) === EDIT)
    .map((field) => ({ field: field.id, label: field.name, input: inputOf(access, field) }));
}

/** One record of a list, as it may be sent. The record is one that the rows door has let through. */
export function resolveRow(
  access: Access,
  list: List,
  record: KnownRecord,
  screenRecord?: KnownRecord,
): ShownRow {
  const { tree } = access.compiled;
  const cells: Record<Id, string> = {};
  const buttons: ShownButton[] = [];
  for (const element of access.element(list.id).contents) {
    const level = access.level(element, record, screenRecord);
    if (level === NONE) continue;
    if (element.kind === 'column') {
      const field = tree.need(element.node.field, 'data-field').node;
      cells[element.id] = showField(access, field, record.values[field.id] ?? null, record.lookUp).text;
    }
    if (element.kind === 'button') buttons.push(resolveButton(access, element.node, level, record.id));
  }
  const target = list.opens === undefined ? undefined : tree.need(list.opens, 'screen').node;
  return {
    id: record.id,
    cells,
    ...(target && access.opens(target, record) && { address: addressOf(target, record.id) }),
    buttons,
  };
}

/** Of the fields that can be written in these sections, those that some condition asks for. */
function askingFields(sections: readonly ShownSection[], asked: ReadonlySet<Id>): Id[] {
  if (asked.size === 0) return [];
  return sections.flatMap(({ parts }) =>
    parts.flatMap((part) => (part.kind === 'field' && part.input && asked.has(part.field) ? part.field : [])),
  );
}

/** Which of these fields the viewer may change on the record by a bulk change: none, where they may not at all. */
export function bulkChanges(access: Access, list: List, record: KnownRecord, fields: readonly Id[]): Id[] {
  const entity = access.compiled.tree.need(list.entity, 'rows').node;
  const action = access.compiled.tree.optionalAction(entity, 'bulk');
  if (!action || access.level(access.element(action.id), record) < EDIT) return [];
  return fields.filter((field) => access.level(access.element(field), record) === EDIT);
}

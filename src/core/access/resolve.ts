import type { Button, Entity, EntityField, List, MenuItem, Screen } from '../model/definition';
import type { Id } from '../model/id';
import type { Element } from '../model/tree';
import { showValue, type Value, type Values, type ValueType } from '../model/value';
import type { Access } from './access';
import { EDIT, NONE, type Level } from './level';

/** A record to decide on. */
export interface RecordData {
  readonly id: Id;
  readonly values: Values;
}

/** What is known beside the viewer: the record, and the records that it points to. */
export interface Context {
  readonly record?: RecordData;
  /** A record that another points to, or undefined where there is none. */
  readonly lookUp?: (entity: Id, id: Id) => Values | undefined;
}

/** What a viewer may be sent of a screen, and nothing else. */
export interface ShownScreen {
  readonly id: Id;
  readonly heading: string;
  readonly binds?: { readonly entity: Id; readonly record?: Id };
  readonly sections: readonly ShownSection[];
}

export interface ShownSection {
  readonly id: Id;
  readonly name: string;
  readonly parts: readonly ShownPart[];
}

export type ShownPart = ShownField | ShownButton | ShownList | ShownText;

export interface ShownField {
  readonly kind: 'field';
  readonly id: Id;
  readonly field: Id;
  readonly label: string;
  readonly value: Value | null;
  /** The value in words. */
  readonly text: string;
  readonly align: 'start' | 'end';
  /** How it is edited; absent where it is for reading. */
  readonly input?: { readonly type: ValueType; readonly required: boolean };
}

export interface ShownButton {
  readonly kind: 'button';
  readonly id: Id;
  readonly name: string;
  readonly usable: boolean;
  readonly effect: ShownEffect;
}

export type ShownEffect =
  | { readonly do: 'open'; readonly address: string }
  | { readonly do: 'save' | 'delete' | 'sign-out' }
  | { readonly do: 'action'; readonly action: Id };

export interface ShownList {
  readonly kind: 'list';
  readonly id: Id;
  readonly name: string;
  readonly entity: Id;
  readonly columns: readonly ShownColumn[];
}

export interface ShownColumn {
  readonly id: Id;
  readonly field: Id;
  readonly label: string;
  readonly align: 'start' | 'end';
}

export interface ShownText {
  readonly kind: 'text';
  readonly id: Id;
  readonly text: string;
}

/** One record in a list. A cell that this viewer may not see on this record is not here. */
export interface ShownRow {
  readonly id: Id;
  readonly cells: Readonly<Record<Id, string>>;
  /** Where the row leads. */
  readonly address?: string;
  readonly buttons: readonly ShownButton[];
}

export interface ShownMenuItem {
  readonly id: Id;
  readonly name: string;
  readonly address?: string;
  readonly items: readonly ShownMenuItem[];
}

/** A screen's address within its application, without a leading slash. */
export function addressOf(screen: Screen, record?: Id): string {
  return screen.binds?.record === 'existing' && record !== undefined
    ? `${screen.address}/${record}`
    : screen.address;
}

/**
 * The tree of a screen that may be sent to this viewer; undefined where the screen does not open for
 * them. The heading shows the record's label only where that field's door is open for this record.
 */
export function resolve(access: Access, screen: Screen, context: Context): ShownScreen | undefined {
  const values = context.record?.values;
  if (!access.opens(screen, values)) return undefined;
  const sections: ShownSection[] = [];
  for (const section of access.element(screen.id).contents) {
    if (access.level(section, values) === NONE) continue;
    const parts: ShownPart[] = [];
    for (const element of section.contents) {
      const shown = resolvePart(access, element, context);
      if (shown) parts.push(shown);
    }
    if (parts.length > 0) sections.push({ id: section.id, name: section.name, parts });
  }
  const { binds } = screen;
  const entity = binds && access.compiled.tree.need(binds.entity, 'rows').node;
  const label = entity && values ? labelOf(access, entity, values) : undefined;
  return {
    id: screen.id,
    heading: label || screen.name,
    ...(binds && {
      binds: { entity: binds.entity, ...(context.record && { record: context.record.id }) },
    }),
    sections,
  };
}

function resolvePart(access: Access, element: Element, context: Context): ShownPart | undefined {
  const level = access.level(element, element.kind === 'list' ? undefined : context.record?.values);
  if (level === NONE) return undefined;
  switch (element.kind) {
    case 'field':
      return resolveField(access, element, element.node.field, level, context);
    case 'button':
      return resolveButton(access, element.node, level, context.record?.id);
    case 'text':
      return { kind: 'text', id: element.id, text: element.node.text };
    case 'list':
      return {
        kind: 'list',
        id: element.id,
        name: element.name,
        entity: element.node.entity,
        columns: element.contents.flatMap((column) =>
          column.kind === 'column' && access.level(column, undefined) > NONE
            ? [resolveColumn(access, column, column.node.field)]
            : [],
        ),
      };
    default:
      return undefined;
  }
}

const alignOf = (type: ValueType): 'start' | 'end' =>
  type.kind === 'money' || type.kind === 'number' ? 'end' : 'start';

function resolveColumn(access: Access, element: Element, field: Id): ShownColumn {
  const { type } = access.compiled.tree.need(field, 'data-field').node;
  return { id: element.id, field, label: element.name, align: alignOf(type) };
}

function resolveField(access: Access, element: Element, id: Id, level: Level, context: Context): ShownField {
  const field = access.compiled.tree.need(id, 'data-field').node;
  const stored = context.record ? (context.record.values[id] ?? null) : (field.initial ?? null);
  const { value, text } = showField(access, field, stored, context);
  const align = alignOf(field.type);
  // Two literals rather than a spread: this is the innermost of every page.
  if (level < EDIT)
    return { kind: 'field', id: element.id, field: id, label: element.name, value, text, align };
  const input = { type: field.type, required: field.required ?? false };
  return { kind: 'field', id: element.id, field: id, label: element.name, value, text, align, input };
}

/**
 * A field's value as it may be shown to a viewer who may see the field: a record that it points to
 * only through that record's own doors, else neither its label nor its id.
 */
export function showField(
  access: Access,
  field: EntityField,
  value: Value | null,
  context: Context,
): { readonly value: Value | null; readonly text: string } {
  if (field.type.kind !== 'record')
    return { value, text: showValue(field.type, value, access.compiled.definition) };
  const label =
    typeof value === 'string' ? targetLabel(access, field.type.entity, value, context) : undefined;
  return label === undefined ? { value: null, text: '' } : { value, text: label };
}

function targetLabel(access: Access, target: Id, id: Id, context: Context): string | undefined {
  const values = context.lookUp?.(target, id);
  return values && labelOf(access, access.compiled.tree.need(target, 'rows').node, values);
}

/** A record's label, if its rows door and its label's door are open to the viewer. */
export function labelOf(access: Access, entity: Entity, values: Values): string | undefined {
  if (access.level(access.element(entity.id), values) === NONE) return undefined;
  if (access.level(access.element(entity.labelField), values) === NONE) return undefined;
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
  switch (effect.do) {
    case 'open': {
      const screen = access.compiled.tree.need(effect.screen, 'screen').node;
      return { do: 'open', address: addressOf(screen, record) };
    }
    case 'action':
      return { do: 'action', action: effect.action };
    default:
      return { do: effect.do };
  }
}

/** One record of a list, as it may be sent. The record is one that the rows door has let through. */
export function resolveRow(access: Access, list: List, record: RecordData, context: Context): ShownRow {
  const { tree } = access.compiled;
  const cells: Record<Id, string> = {};
  const buttons: ShownButton[] = [];
  for (const element of access.element(list.id).contents) {
    const level = access.level(element, record.values);
    if (level === NONE) continue;
    if (element.kind === 'column') {
      const field = tree.need(element.node.field, 'data-field').node;
      cells[element.id] = showField(access, field, record.values[field.id] ?? null, context).text;
    }
    if (element.kind === 'button') buttons.push(resolveButton(access, element.node, level, record.id));
  }
  const target = list.opens === undefined ? undefined : tree.need(list.opens, 'screen').node;
  return {
    id: record.id,
    cells,
    ...(target && access.opens(target, record.values) && { address: addressOf(target, record.id) }),
    buttons,
  };
}

/** The menu as the viewer has it: items without a screen stay where something is left in them. */
export function resolveMenu(access: Access): ShownMenuItem[] {
  const resolveItems = (items: readonly MenuItem[]): ShownMenuItem[] =>
    items.flatMap((item) => {
      if (access.level(access.element(item.id), undefined) === NONE) return [];
      const inside = resolveItems(item.items);
      if (!item.screen && inside.length === 0) return [];
      const screen = item.screen && access.compiled.tree.need(item.screen, 'screen').node;
      return [{ id: item.id, name: item.name, ...(screen && { address: addressOf(screen) }), items: inside }];
    });
  const { menu } = access.compiled.definition;
  return access.level(access.element(menu.id), undefined) === NONE ? [] : resolveItems(menu.items);
}

import {
  changesData,
  type Action,
  type Area,
  type BuiltIn,
  type Button,
  type Chart,
  type Column,
  type Definition,
  type Entity,
  type EntityField,
  type Face,
  type Frame,
  type FieldPart,
  type List,
  type Menu,
  type MenuItem,
  type PeoplePart,
  type Role,
  type Screen,
  type Section,
  type Text,
} from './definition';
import type { Id } from './id';

/** What an application is made of, without who gets what of it. */
export type Shape = Omit<Definition, 'gates' | 'closed'>;

/** What an element is, with its node in the document. */
type Node =
  | { readonly kind: 'application'; readonly node: Shape }
  | { readonly kind: 'area'; readonly node: Area }
  | { readonly kind: 'screen'; readonly node: Screen }
  | { readonly kind: 'face'; readonly node: Face }
  | { readonly kind: 'section'; readonly node: Section }
  | { readonly kind: 'field'; readonly node: FieldPart }
  | { readonly kind: 'button'; readonly node: Button }
  | { readonly kind: 'list'; readonly node: List }
  | { readonly kind: 'column'; readonly node: Column }
  | { readonly kind: 'text'; readonly node: Text }
  | { readonly kind: 'chart'; readonly node: Chart }
  | { readonly kind: 'people'; readonly node: PeoplePart }
  | { readonly kind: 'menu'; readonly node: Menu | Frame }
  | { readonly kind: 'menu-item'; readonly node: MenuItem }
  | { readonly kind: 'rows'; readonly node: Entity }
  | { readonly kind: 'action'; readonly node: Action }
  | { readonly kind: 'data-field'; readonly node: EntityField };

export type ElementKind = Node['kind'];

/** All sections of a screen, of each of its faces too. */
export const sectionsOf = ({ sections, faces = [] }: Screen): Section[] => [
  ...sections,
  ...faces.flatMap((face) => face.sections),
];

/** The application's menu, and those that areas have of their own. */
export const menusOf = ({ menu, areas }: Pick<Definition, 'menu' | 'areas'>): Menu[] => [
  menu,
  ...areas.flatMap(({ frame }) => frame ?? []),
];

/** The frame of the area in which the screen stands, where that has its own. */
export const frameOf = (
  { areas }: Pick<Definition, 'areas'>,
  screen: Screen | undefined,
): Frame | undefined => screen && areas.find(({ screens }) => screens.includes(screen))?.frame;

/** Anything that can have a gate. */
export type AppElement = Node & {
  readonly id: Id;
  readonly name: string;
  /** Its place in `Tree.elements`. For memory only: never stored. */
  readonly number: number;
  /** What limits it. Only the application has none. */
  readonly container: AppElement | undefined;
  /** The screen it stands on. */
  readonly screen: Screen | undefined;
  /** The list it stands in, as a column or a row's button. */
  readonly list: List | undefined;
  /** Elements that it contains, in order. */
  readonly contents: AppElement[];
};

/** A door of data: an entity's rows, an action or a field, rather than a part of a screen or the menu. */
export const isDataDoor = ({ kind }: { readonly kind: ElementKind }): boolean =>
  kind === 'rows' || kind === 'action' || kind === 'data-field';

type ElementOf<K extends ElementKind> = Extract<AppElement, { kind: K }>;

/** A definition as a tree of elements, with its names looked up. `treeOf` gives it, built once for each shape. */
export class Tree {
  /** Every element, containers before their contents. */
  readonly elements: AppElement[] = [];
  readonly root: AppElement;
  private readonly byId = new Map<Id, AppElement>();
  private readonly entityByPart = new Map<Id, Entity>();
  private allScreens: readonly Screen[] | undefined;

  constructor(readonly definition: Shape) {
    for (const entity of definition.entities)
      for (const part of [entity, ...entity.fields, ...entity.actions])
        this.entityByPart.set(part.id, entity);
    this.root = this.add({ kind: 'application', node: definition }, definition, definition.name);
    this.addMenu(definition.menu, 'Menu', this.root);
    for (const area of definition.areas) this.addArea(area);
    for (const entity of definition.entities) this.addEntity(entity);
  }

  get(id: Id): AppElement | undefined {
    return this.byId.get(id);
  }

  /** The element with that id and kind. Throws where there is none: for ids that a valid definition holds. */
  need<K extends ElementKind>(id: Id, kind: K): ElementOf<K> {
    const found = this.byId.get(id);
    if (found?.kind !== kind) throw new Error(`There is no ${kind} with the id ${id}`);
    return found as ElementOf<K>;
  }

  role(id: Id): Role | undefined {
    return rolesById(this.definition).get(id);
  }

  /** The entity that has this id, or that has the field or action with this id. */
  entityOf(id: Id): Entity | undefined {
    return this.entityByPart.get(id);
  }

  /** An entity's built-in action. A valid definition has each once. */
  action(entity: Entity, kind: 'create' | 'update' | 'delete'): Action {
    const found = this.optionalAction(entity, kind);
    if (!found) throw new Error(`${entity.name} has no ${kind} action`);
    return found;
  }

  optionalAction(entity: Entity, kind: BuiltIn): Action | undefined {
    return entity.actions.find((action) => action.kind === kind);
  }

  /**
   * The entity whose record is decided on at this element: the row's in a list, else the screen's; for a
   * door of data its own. Undefined where there is none, or none that is known from the definition alone.
   */
  recordOf(element: AppElement): Entity | undefined {
    if (isDataDoor(element)) return this.entityOf(element.id);
    const list = element.kind === 'list' ? element.node : element.list;
    return this.entityOf(list?.entity ?? element.screen?.binds?.entity ?? '');
  }

  screens(): readonly Screen[] {
    return (this.allScreens ??= this.definition.areas.flatMap((area) => area.screens));
  }

  /** All that has to do with the element's content, itself included. */
  within(element: AppElement): AppElement[] {
    return [element, ...element.contents.flatMap((content) => this.within(content))];
  }

  private add(
    node: Node,
    has: { readonly id: Id },
    name: string,
    place: { container?: AppElement; screen?: Screen; list?: List } = {},
  ): AppElement {
    const number = this.elements.length;
    // Written out: all elements have one shape, which reading them depends on to be fast.
    const element = {
      kind: node.kind,
      node: node.node,
      id: has.id,
      name,
      number,
      container: place.container,
      screen: place.screen,
      list: place.list,
      contents: [],
    } as AppElement;
    this.elements.push(element);
    this.byId.set(has.id, element);
    place.container?.contents.push(element);
    return element;
  }

  private addMenu(menu: Menu, name: string, inside: AppElement): void {
    const element = this.add({ kind: 'menu', node: menu }, menu, name, { container: inside });
    const addItems = (items: readonly MenuItem[], container: AppElement): void => {
      for (const item of items)
        addItems(item.items, this.add({ kind: 'menu-item', node: item }, item, item.name, { container }));
    };
    addItems(menu.items, element);
  }

  private addArea(area: Area): void {
    const inArea = this.add({ kind: 'area', node: area }, area, area.name, { container: this.root });
    if (area.frame) this.addMenu(area.frame, area.frame.name, inArea);
    for (const screen of area.screens) {
      const onScreen = this.add({ kind: 'screen', node: screen }, screen, screen.name, {
        container: inArea,
        screen,
      });
      this.addSections(screen.sections, onScreen, screen);
      for (const face of screen.faces ?? []) {
        const onFace = this.add({ kind: 'face', node: face }, face, face.name, {
          container: onScreen,
          screen,
        });
        this.addSections(face.sections, onFace, screen);
      }
    }
  }

  private addSections(sections: readonly Section[], inside: AppElement, screen: Screen): void {
    for (const section of sections) {
      const container = this.add({ kind: 'section', node: section }, section, section.name, {
        container: inside,
        screen,
      });
      for (const part of section.parts) this.addPart(part, { container, screen });
    }
  }

  private addPart(part: Section['parts'][number], place: { container: AppElement; screen: Screen }): void {
    switch (part.kind) {
      case 'field':
        this.add({ kind: 'field', node: part }, part, this.fieldName(part.field), place);
        return;
      case 'button':
        this.add({ kind: 'button', node: part }, part, part.name, place);
        return;
      case 'text':
        this.add({ kind: 'text', node: part }, part, part.text, place);
        return;
      case 'chart':
        this.add({ kind: 'chart', node: part }, part, part.name, place);
        return;
      case 'people':
        this.add({ kind: 'people', node: part }, part, part.name, place);
        return;
      case 'list': {
        const list = part;
        const inside = {
          ...place,
          container: this.add({ kind: 'list', node: list }, list, list.name, place),
          list,
        };
        for (const column of list.columns)
          this.add({ kind: 'column', node: column }, column, this.fieldName(column.field), inside);
        for (const button of list.buttons)
          this.add({ kind: 'button', node: button }, button, button.name, inside);
      }
    }
  }

  private addEntity(entity: Entity): void {
    const rows = this.add({ kind: 'rows', node: entity }, entity, entity.plural, { container: this.root });
    for (const field of entity.fields)
      this.add({ kind: 'data-field', node: field }, field, field.name, { container: rows });
    for (const action of entity.actions)
      this.add({ kind: 'action', node: action }, action, action.name, { container: rows });
  }

  private fieldName(field: Id): string {
    return this.entityByPart.get(field)?.fields.find((one) => one.id === field)?.name ?? field;
  }
}

const SHAPELESS: readonly string[] = ['gates', 'closed'] satisfies (keyof Definition)[];

const trees = new WeakMap<Shape['areas'], Tree>();

/** The definition's tree. Definitions that differ in their gates only share it. */
export function treeOf(definition: Definition): Tree {
  const known = trees.get(definition.areas);
  if (known && sameShape(known.definition, definition)) return known;
  const tree = new Tree(definition);
  trees.set(definition.areas, tree);
  return tree;
}

/** Are all parts of the two the same objects, but for gates? */
function sameShape(a: Shape, b: Shape): boolean {
  const parts = (of: Shape): [string, unknown][] =>
    Object.entries(of).filter(([key]) => !SHAPELESS.includes(key));
  const others = new Map(parts(b));
  return parts(a).length === others.size && parts(a).every(([key, part]) => others.get(key) === part);
}

const byIds = new WeakMap<readonly Role[], ReadonlyMap<Id, Role>>();

/** The roles by their ids. */
export function rolesById({ roles }: Pick<Definition, 'roles'>): ReadonlyMap<Id, Role> {
  let byId = byIds.get(roles);
  if (!byId) byIds.set(roles, (byId = new Map(roles.map((role) => [role.id, role]))));
  return byId;
}

/** The roles that `roles` give, with all that they include. Roles that are gone give nothing. */
export function withIncluded(definition: Pick<Definition, 'roles'>, roles: Iterable<Id>): Set<Id> {
  const byId = rolesById(definition);
  const held = new Set<Id>();
  const waiting = [...roles];
  for (let id = waiting.pop(); id !== undefined; id = waiting.pop()) {
    const role = byId.get(id);
    if (!role || held.has(id)) continue;
    held.add(id);
    waiting.push(...role.includes);
  }
  return held;
}

/** A loop of inclusion, as the names along it, or undefined where there is none. */
export function inclusionLoop(roles: readonly Role[]): string[] | undefined {
  const byId = new Map(roles.map((role) => [role.id, role]));
  const done = new Set<Id>();
  const visit = (role: Role, path: Role[]): string[] | undefined => {
    const start = path.indexOf(role);
    if (start >= 0) return [...path.slice(start), role].map((one) => one.name);
    if (done.has(role.id)) return undefined;
    for (const id of role.includes) {
      const included = byId.get(id);
      const loop = included && visit(included, [...path, role]);
      if (loop) return loop;
    }
    done.add(role.id);
    return undefined;
  };
  for (const role of roles) {
    const loop = visit(role, []);
    if (loop) return loop;
  }
  return undefined;
}

/**
 * Does it only lead somewhere or read: a menu item, a button that opens or exports, an action that sets nothing? For
 * it a level of see is enough all the way, and counts as edit (access.md 3).
 */
export function leadsOrReads(tree: Tree, element: AppElement): boolean {
  switch (element.kind) {
    case 'menu-item':
      return true;
    case 'action':
      return !changesData(element.node);
    case 'button': {
      const { effect } = element.node;
      if (effect.do === 'action') return !changesData(tree.need(effect.action, 'action').node);
      return effect.do !== 'save' && effect.do !== 'delete' && effect.do !== 'bulk';
    }
    case 'application':
    case 'area':
    case 'chart':
    case 'column':
    case 'data-field':
    case 'face':
    case 'field':
    case 'list':
    case 'menu':
    case 'people':
    case 'rows':
    case 'screen':
    case 'section':
    case 'text':
      return false;
  }
}

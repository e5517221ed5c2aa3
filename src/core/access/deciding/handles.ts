import type { Button, Column, FieldPart, List, MenuItem, Screen } from '../../model/definition';
import type { Id } from '../../model/id';
import type { AppElement, Tree } from '../../model/tree';

/** A handle, with where it stands. */
export interface Handle<T> {
  readonly node: T;
  readonly element: AppElement;
  readonly screen: Screen;
  /** The list whose rows carry it. */
  readonly list?: List;
}

/** The door that an element is a handle of. */
export interface DoorOf {
  readonly id: Id;
  readonly kind: 'screen' | 'rows' | 'action' | 'data-field';
}

/** Which handles each door has, looked up once for a definition. */
export class Handles {
  private readonly fieldParts = {
    existing: new Map<Id, Handle<FieldPart>[]>(),
    new: new Map<Id, Handle<FieldPart>[]>(),
  };
  private readonly columns = new Map<Id, Handle<Column>[]>();
  private readonly actionButtons = new Map<Id, Handle<Button>[]>();
  private readonly saves = new Map<Id, AppElement[]>();
  private readonly lists = new Map<Id, Handle<List>[]>();
  private readonly recordScreens = new Map<Id, Screen[]>();
  private readonly leading = new Map<Id, (Button | MenuItem)[]>();
  /** By the element's number. */
  private readonly doors: (DoorOf | undefined)[];

  constructor(private readonly tree: Tree) {
    const put = <T>(map: Map<Id, T[]>, key: Id, value: T): void => {
      const found = map.get(key);
      if (found) found.push(value);
      else map.set(key, [value]);
    };
    this.doors = tree.elements.map((element) => this.findDoor(element));
    for (const element of tree.elements) {
      if (element.kind === 'menu-item' && element.node.screen)
        put(this.leading, element.node.screen, element.node);
      const { screen, list } = element;
      if (!screen) continue;
      const at = list ? { screen, list, element } : { screen, element };
      if (element.kind === 'screen' && screen.binds?.record === 'existing')
        put(this.recordScreens, screen.binds.entity, screen);
      if (element.kind === 'field' && screen.binds)
        put(this.fieldParts[screen.binds.record], element.node.field, { node: element.node, ...at });
      if (element.kind === 'column') put(this.columns, element.node.field, { node: element.node, ...at });
      if (element.kind === 'list') put(this.lists, element.node.entity, { node: element.node, ...at });
      if (element.kind === 'button') {
        const door = this.doorOf(element);
        if (element.node.effect.do === 'save') put(this.saves, screen.id, element);
        if (door?.kind === 'screen') put(this.leading, door.id, element.node);
        else if (door) {
          const { effect } = element.node;
          // A button for a whole list is about that list's rows.
          const rows = 'list' in effect ? { list: tree.need(effect.list, 'list').node } : {};
          put(this.actionButtons, door.id, { node: element.node, ...at, ...rows });
        }
      }
    }
  }

  /** Fields on screens that show an existing record, or on those that make a new one. */
  fieldsOf(field: Id, record: 'existing' | 'new'): readonly Handle<FieldPart>[] {
    return this.fieldParts[record].get(field) ?? [];
  }

  columnsOf(field: Id): readonly Handle<Column>[] {
    return this.columns.get(field) ?? [];
  }

  buttonsOf(action: Id): readonly Handle<Button>[] {
    return this.actionButtons.get(action) ?? [];
  }

  listsOf(entity: Id): readonly Handle<List>[] {
    return this.lists.get(entity) ?? [];
  }

  /** Screens that show one existing record of the entity. */
  recordScreensOf(entity: Id): readonly Screen[] {
    return this.recordScreens.get(entity) ?? [];
  }

  /** The buttons on the same screen that save what its fields hold. */
  savesOn(screen: Screen): readonly AppElement[] {
    return this.saves.get(screen.id) ?? [];
  }

  /** Every handle that stands for the door with this id, as ids of elements. */
  handlesOf(door: AppElement): Id[] {
    switch (door.kind) {
      case 'data-field':
        return [
          ...this.fieldsOf(door.id, 'existing'),
          ...this.fieldsOf(door.id, 'new'),
          ...this.columnsOf(door.id),
        ].map((handle) => handle.node.id);
      case 'action':
        return this.buttonsOf(door.id).map((handle) => handle.node.id);
      case 'rows':
        return [
          ...this.recordScreensOf(door.id).map((screen) => screen.id),
          ...this.listsOf(door.id).map((handle) => handle.node.id),
        ];
      case 'screen':
        return (this.leading.get(door.id) ?? []).map((node) => node.id);
      case 'application':
      case 'area':
      case 'button':
      case 'chart':
      case 'column':
      case 'face':
      case 'field':
      case 'list':
      case 'menu-item':
      case 'menu':
      case 'people':
      case 'section':
      case 'text':
        return [];
    }
  }

  /** What really protects what this element shows or does. A door, a text or a container has none. */
  doorOf(element: AppElement): DoorOf | undefined {
    return this.doors[element.number];
  }

  private findDoor(element: AppElement): DoorOf | undefined {
    switch (element.kind) {
      case 'menu-item':
        return element.node.screen ? { id: element.node.screen, kind: 'screen' } : undefined;
      case 'field':
      case 'column':
        return { id: element.node.field, kind: 'data-field' };
      case 'list':
        return { id: element.node.entity, kind: 'rows' };
      case 'button':
        return this.doorOfButton(element.node, element.screen as Screen, element.list);
      case 'action':
      case 'application':
      case 'area':
      case 'chart':
      case 'data-field':
      case 'face':
      case 'menu':
      case 'people':
      case 'rows':
      case 'screen':
      case 'section':
      case 'text':
        return undefined;
    }
  }

  private doorOfButton(button: Button, screen: Screen, list: List | undefined): DoorOf | undefined {
    const { effect } = button;
    const entity = this.tree.entityOf(list?.entity ?? screen.binds?.entity ?? '');
    switch (effect.do) {
      case 'open':
        return { id: effect.screen, kind: 'screen' };
      case 'action':
        return { id: effect.action, kind: 'action' };
      case 'save':
      case 'delete': {
        if (!entity) return undefined;
        const kind = effect.do === 'delete' ? 'delete' : screen.binds?.record === 'new' ? 'create' : 'update';
        return { id: this.tree.action(entity, kind).id, kind: 'action' };
      }
      case 'export':
      case 'bulk': {
        const listed = this.tree.entityOf(this.tree.need(effect.list, 'list').node.entity);
        const action = listed && this.tree.optionalAction(listed, effect.do);
        return action && { id: action.id, kind: 'action' };
      }
      case 'set-session':
      case 'visit':
      case 'sign-out':
        return undefined;
    }
  }
}

import { allWithin } from '../../condition/condition';
import type { Button, Definition } from '../../model/definition';
import type { Id } from '../../model/id';
import { idsIn, placeOf, type ElementNode } from '../../model/slots';
import { treeOf, type AppElement } from '../../model/tree';
import { fullName } from '../comparing/words';
import { asksOf } from './in-doubt';

/** Something that goes, or is another way, since what it names goes. */
export interface DependentDeletion {
  /** The element that it is about; undefined for what is none, such as a named condition. */
  readonly element?: Id;
  readonly about: string;
  readonly says: string;
}

/** What goes with an element, until nothing that stays cannot be without what goes. */
export class DependentDeletions {
  readonly gone: Set<Id>;
  private readonly told: DependentDeletion[] = [];

  constructor(
    private readonly definition: Definition,
    asked: Id,
  ) {
    this.gone = new Set(idsIn(placeOf(definition, asked)?.node as ElementNode));
    for (let before = -1; before < this.gone.size;) {
      before = this.gone.size;
      for (const element of treeOf(definition).elements)
        if (!this.gone.has(element.id) && this.namesGone(element)) this.take(element);
      for (const { id, name, entity, condition } of definition.conditions)
        if (
          !this.gone.has(id) &&
          (this.isGone(entity) || allWithin(condition).some((one) => asksOf(one, this.gone)))
        ) {
          this.gone.add(id);
          this.told.push({
            about: `Condition ${name}`,
            says: 'will be deleted, because it uses a deleted item.',
          });
        }
    }
  }

  isGone(id: Id | undefined): boolean {
    return id !== undefined && this.gone.has(id);
  }

  private take(element: AppElement): void {
    for (const id of idsIn(element.node as unknown as ElementNode)) this.gone.add(id);
    this.told.push({ element: element.id, about: fullName(element), says: 'will be deleted too.' });
  }

  /** Can it not be without something that goes? */
  private namesGone(element: AppElement): boolean {
    switch (element.kind) {
      case 'screen':
        return this.isGone(element.node.binds?.entity);
      case 'field':
      case 'column':
        return this.isGone(element.node.field);
      case 'list':
        return this.isGone(element.node.entity) || this.isGone(element.node.of);
      case 'chart':
        return [element.node.list, element.node.by, element.node.of].some((id) => this.isGone(id));
      case 'button':
        return this.effectIsGone(element.node);
      case 'menu-item': {
        const { screen, items } = element.node;
        return this.isGone(screen) && items.every((one) => this.gone.has(one.id));
      }
      case 'data-field': {
        const { type } = element.node;
        return type.kind === 'record' && this.gone.has(type.entity);
      }
      case 'action':
      case 'application':
      case 'area':
      case 'face':
      case 'menu':
      case 'people':
      case 'rows':
      case 'section':
      case 'text':
        return false;
    }
  }

  private effectIsGone({ effect }: Button): boolean {
    switch (effect.do) {
      case 'open':
        return this.gone.has(effect.screen);
      case 'action':
        return this.gone.has(effect.action);
      case 'export':
      case 'bulk': {
        const list = treeOf(this.definition).get(effect.list);
        const entity = list?.kind === 'list' ? treeOf(this.definition).entityOf(list.node.entity) : undefined;
        const action = entity?.actions.find(({ kind }) => kind === effect.do);
        return this.gone.has(effect.list) || this.isGone(action?.id);
      }
      case 'delete':
      case 'save':
      case 'set-session':
      case 'sign-out':
      case 'visit':
        return false;
    }
  }

  /** What goes beside the element itself, each with all that stands in it. */
  get also(): readonly DependentDeletion[] {
    const tree = treeOf(this.definition);
    return this.told.filter(({ element }) => !element || !this.isGone(tree.get(element)?.container?.id));
  }
}

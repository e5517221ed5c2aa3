import type { Definition } from '../../model/definition';
import { placeOf } from '../../model/slots';
import { treeOf, type AppElement } from '../../model/tree';
import { type OfferGroup, Offers, type Seam } from './insert-options';

/** What can be put in an element, and behind it in what it stands in; the nearest first. */
export function offersAt(definition: Definition, element: AppElement): readonly OfferGroup[] {
  const place = placeOf(definition, element.id);
  const behind: Seam | undefined = place && { slot: place.slot, at: place.at + 1 };
  const maker = new Offers(definition);
  switch (element.kind) {
    case 'application':
      return maker.areas({ slot: { in: null, list: 'areas' }, at: definition.areas.length });
    case 'area':
      return [
        ...maker.screens(element.id),
        ...maker.frames([element.node]),
        ...(behind ? maker.areas(behind) : []),
      ];
    case 'screen':
      return maker.onScreen(element.node);
    case 'face':
      return maker.sections({ slot: { in: element.id, list: 'sections' }, at: element.node.sections.length });
    case 'section': {
      const inside = { slot: { in: element.id, list: 'parts' }, at: element.node.parts.length } as const;
      const { screen } = element;
      return [...(screen ? maker.parts(screen, inside) : []), ...(behind ? maker.sections(behind) : [])];
    }
    case 'field':
    case 'text':
    case 'chart':
    case 'people':
      return element.screen && behind ? maker.parts(element.screen, behind) : [];
    case 'list':
      return [
        ...maker.columns(element.node, element.node.columns.length),
        ...maker.rowButtons(element.node),
        ...(element.screen && behind ? maker.parts(element.screen, behind) : []),
      ];
    case 'button':
      if (element.list) return maker.rowButtons(element.list);
      return element.screen && behind ? maker.parts(element.screen, behind) : [];
    case 'column':
      return element.list && behind ? maker.columns(element.list, behind.at) : [];
    case 'menu': {
      const { container, node } = element;
      const inside = { slot: { in: element.id, list: 'items' }, at: node.items.length } as const;
      return container?.kind === 'area'
        ? maker.items(inside, `In the menu of ${container.name}`)
        : [...maker.items(inside, 'In the menu'), ...maker.frames(definition.areas)];
    }
    case 'menu-item':
      return [
        ...(behind ? maker.items(behind, `After ${element.name}`) : []),
        ...maker.items(
          { slot: { in: element.id, list: 'items' }, at: element.node.items.length },
          `Under ${element.name}`,
        ),
      ];
    case 'rows':
      return maker.data(element.node, element.node.fields.length);
    case 'data-field':
    case 'action': {
      const entity = treeOf(definition).entityOf(element.id);
      return entity
        ? maker.data(entity, element.kind === 'data-field' && behind ? behind.at : entity.fields.length)
        : [];
    }
  }
}

/** What can be put at a place in one list. */
export function offersInto(definition: Definition, { slot, at }: Seam): readonly OfferGroup[] {
  const tree = treeOf(definition);
  const holder = slot.in === null ? tree.root : tree.get(slot.in);
  const maker = new Offers(definition);
  switch (slot.list) {
    case 'parts':
      return holder?.screen ? maker.parts(holder.screen, { slot, at }) : [];
    case 'sections':
      return maker.sections({ slot, at });
    case 'columns':
      return holder?.kind === 'list' ? maker.columns(holder.node, at) : [];
    case 'actions':
    case 'areas':
    case 'buttons':
    case 'entities':
    case 'faces':
    case 'fields':
    case 'frame':
    case 'items':
    case 'screens':
      return [];
  }
}

import type { Compiled } from '@/core/access';
import { type AppElement, isDataDoor } from '@/core/model';

/** The forms of the shape bench: which one it has goes by what is selected. */
export const SHAPE_FORMS = [
  { key: 'screens', name: 'Screens', about: 'Areas and screens, shown on the canvas' },
  { key: 'data', name: 'Data', about: 'Entities with their fields and actions' },
  {
    key: 'menu',
    name: 'Menu',
    about: 'Menu items and the screens they open, next to the menu as each viewer sees it',
  },
] as const;
export type ShapeForm = (typeof SHAPE_FORMS)[number]['key'];

export const shapeFormOf = (element: AppElement): ShapeForm =>
  isDataDoor(element) ? 'data' : element.kind === 'menu' || element.kind === 'menu-item' ? 'menu' : 'screens';

/** Which of what stands in the application belongs to each form. */
export const IN_FORM: Readonly<Record<ShapeForm, (top: AppElement) => boolean>> = {
  screens: (top) => shapeFormOf(top) === 'screens',
  data: (top) => shapeFormOf(top) === 'data',
  menu: (top) => shapeFormOf(top) === 'menu',
};

/** What is selected when one comes to a form: its first screen, kind of record, or menu item. */
export function firstIn({ tree, definition }: Compiled, form: ShapeForm): string {
  switch (form) {
    case 'screens':
      return tree.screens()[0]?.id ?? definition.areas[0]?.id ?? definition.id;
    case 'data':
      return definition.entities[0]?.id ?? definition.id;
    case 'menu':
      return definition.menu.items[0]?.id ?? definition.menu.id;
  }
}

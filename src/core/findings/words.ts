import type { AppElement } from '../model/tree';

/** An element in a sentence, with the screen or the data that it belongs to: "the field Fee on Loan". */
export function called({ kind, name, container, screen }: AppElement): string {
  switch (kind) {
    case 'data-field':
      return `${name} of ${container?.name ?? 'the data'}`;
    case 'action':
      return `“${name}” of ${container?.name ?? 'the data'}`;
    case 'rows':
      return `the records of ${name}`;
    case 'application':
      return name;
    case 'menu-item':
      return `the menu item ${name}`;
    case 'people':
      return `the list of people on ${screen?.name ?? 'a screen'}`;
    case 'area':
    case 'button':
    case 'chart':
    case 'column':
    case 'face':
    case 'field':
    case 'list':
    case 'menu':
    case 'screen':
    case 'section':
    case 'text':
      return kind === 'screen' || !screen ? `the ${kind} ${name}` : `the ${kind} ${name} on ${screen.name}`;
  }
}

/** A text as a sentence: it begins with a capital letter. */
export const sentence = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

import type { ShownScreen } from '@/core/access';
import type { Definition } from '@/core/model';

/** What a page is called in the browser: its screen, and its record by the label that is on the page; nothing else. */
export function pageTitle({ entities }: Definition, { heading, binds, sections }: ShownScreen): string {
  const label = entities.find(({ id }) => id === binds?.entity)?.labelField;
  const record = sections
    .flatMap(({ parts }) => parts)
    .find((part) => part.kind === 'field' && part.field === label && part.text !== '');
  return record?.kind === 'field' ? `${record.text}, ${heading}` : heading;
}

import type { Definition } from '../../model/definition';
import type { Id } from '../../model/id';
import { changeInWords } from './change-words';
import { difference } from './difference';

/** What differs between two definitions, in a sentence or two. `names`: what people are called, by their ids. */
export function changesInShort(
  before: Definition,
  after: Definition,
  names: ReadonlyMap<Id, string>,
): string {
  const changes = difference(before, after);
  const [first] = changes.map((one) => changeInWords(one, before, after, (id) => names.get(id)));
  const what = first ? `${first.about}. ${first.done[0] ?? ''}` : 'No visible change.';
  const more = changes.length > 1 ? ` And ${changes.length - 1} more.` : '';
  return `${what}${more}`;
}

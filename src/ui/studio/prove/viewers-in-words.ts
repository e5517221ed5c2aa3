import { kindsOf } from '@/core/access';
import type { Definition } from '@/core/model';

/** Kinds of viewers by name: "Curator, Lender and 2 more". */
export function viewersInWords(definition: Definition, keys: readonly string[], most = 2): string {
  const names = kindsOf(definition)
    .filter(({ key }) => keys.includes(key))
    .map(({ name }) => name);
  const more = names.length - most;
  return more > 0 ? `${names.slice(0, most).join(', ')} and ${more} more` : names.join(', ');
}

import type { Compiled, ShownScreen } from '@/core/access';

/** What a page is called in the browser: its screen, and its record as far as its heading names that. */
export function pageTitle({ tree }: Compiled, { id, heading }: ShownScreen): string {
  const { name } = tree.need(id, 'screen');
  return heading === name ? name : `${heading}, ${name}`;
}

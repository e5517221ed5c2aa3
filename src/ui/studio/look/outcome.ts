import { readAddress } from '@/core';
import type { Compiled, LookPage } from '@/core/access';

/** What an address gives to a viewer, in a few words. */
export function outcomeInWords(compiled: Compiled, page: LookPage): string {
  const { outcome, sentFrom, address, levels } = page;
  if (sentFrom !== undefined) return `Redirected from /${sentFrom}`;
  switch (outcome.is) {
    case 'open': {
      const screen = readAddress(compiled.tree, address)?.screen;
      return screen && levels[screen.id]?.most === 1 ? 'Opens, read-only' : 'Opens';
    }
    case 'refused':
      return 'No access';
    case 'sign-in':
      return 'Redirected to sign-in';
    case 'not-there':
      return 'Not found';
    case 'nothing-open':
      return 'No screen available';
    case 'sent':
      return 'Redirected';
  }
}

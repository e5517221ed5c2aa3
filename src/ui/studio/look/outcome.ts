import { readAddress } from '@/core';
import type { Compiled, LookPage } from '@/core/access';

/** What an address gives to a viewer, in a few words. */
export function outcomeInWords(compiled: Compiled, page: LookPage): string {
  const { outcome, sentFrom, address, levels } = page;
  if (sentFrom !== undefined) return `Sent here from /${sentFrom}`;
  switch (outcome.is) {
    case 'open': {
      const screen = readAddress(compiled.tree, address)?.screen;
      return screen && levels[screen.id]?.most === 1 ? 'Opens, to read' : 'Opens';
    }
    case 'refused':
      return 'Refused';
    case 'sign-in':
      return 'Sent to sign in';
    case 'not-there':
      return 'Not found';
    case 'nothing-open':
      return 'Nothing is open';
    case 'sent':
      return 'Sent elsewhere';
  }
}

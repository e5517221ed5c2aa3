import type { Asked, Case } from './case';
import { pages } from './pages';
import { people } from './people';
import { pressing } from './pressing';
import { reading } from './reading';
import { unlocks } from './unlocks';
import { writing } from './writing';

export { type Case, type Deed, inFull } from './case';

/** All that is asked as one viewer: what they should be sent, what they must be refused, and what must be done. */
export function casesFor(asked: Asked): Case[] {
  return [pages, reading, writing, pressing, people, unlocks].flatMap((each) => [...each(asked)]);
}

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
  const cases = [pages, reading, writing, pressing, people, unlocks].flatMap((each) => [...each(asked)]);
  return [...cases, ...fromElsewhere(cases)];
}

/** Of each sort of what changes something once, as if a page of another site had sent it. */
function* fromElsewhere(cases: readonly Case[]): Generator<Case> {
  const sorts = new Set<string>();
  for (const one of cases) {
    const { asking, about } = one;
    const sort = `${asking.method} ${asking.path.replace(/Z\w+Z/g, '')}`;
    if (!('does' in one) || asking.method === undefined || sorts.has(sort)) continue;
    sorts.add(sort);
    const headers = { ...asking.headers, origin: 'https://elsewhere.example' };
    yield { asking: { ...asking, headers }, refused: true, about };
  }
}

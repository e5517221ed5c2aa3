import { cache } from 'react';
import type { Outcome } from '@/core/access';
import { pageAt } from './screen-page';
import { openedScreen } from './session-values';
import { thisVisit, visitNow } from './this-visit';
import { scopeOf } from './visit';
import type { Visit } from './who-visits';

/** What an address gives to who asks, with the visit that it was decided for. */
interface ThisPage {
  readonly visit: Visit;
  readonly outcome: Outcome;
}

/**
 * What an address gives, worked out once in its request: what stands around a screen and the screen itself are
 * decided alike, after what opening it sets for the session. Undefined where nothing is released there.
 */
export const thisPage = cache(
  async (slug: string, address: string, query: string): Promise<ThisPage | undefined> => {
    const visit = await thisVisit(slug);
    if (!visit) return undefined;
    const at = (one: Visit): Promise<Outcome> => pageAt(scopeOf(one), address, new URLSearchParams(query));
    const outcome = await at(visit);
    if (outcome.is !== 'open' || !(await openedScreen(visit, outcome.page.screen.id)))
      return { visit, outcome };
    const again = await visitNow(slug);
    return again ? { visit: again, outcome: await at(again) } : { visit, outcome };
  },
);

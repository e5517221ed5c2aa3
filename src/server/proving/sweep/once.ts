import type { Access } from '@/core/access';
import type { Already } from '@/core/sweep';
import type { SweepContext, Case } from './cases/case';
import type { SweptViewer } from './viewer';

/** Which topics one viewer is asked about, and which not, since nothing decides for them that was not asked about. */
export class Once {
  readonly access: Access;
  /** How many requests were left out. */
  skipped = 0;
  private readonly besides: Access | undefined;
  private readonly notes: (() => void)[] = [];

  constructor(
    private readonly viewer: SweptViewer,
    moment: number,
    private readonly already: Already,
    private readonly whole: boolean,
  ) {
    this.access = viewer.access(moment);
    this.besides = viewer.besides?.(moment);
  }

  readonly ask: SweepContext['once'] = (topic, main, elements, cases) => {
    const { already, access, besides, whole } = this;
    const deciding = already.decidingAt(access, main, elements);
    if (besides && !whole) {
      const otherwise = already.decidingAt(besides, main, elements);
      if (otherwise.join() === deciding.join()) return [];
    }
    const ofSort = `${this.viewer.sort ?? ''} ${topic}`;
    const took = already.took(ofSort, deciding);
    if (took !== undefined && !whole) {
      this.skipped += took;
      return [];
    }
    const all = [...cases()];
    this.notes.push(() => already.note(ofSort, deciding, requestsIn(all)));
    return all;
  };

  /** All was asked. */
  note(): void {
    for (const each of this.notes) each();
  }
}

/** How many requests these cases take. */
export const requestsIn = (cases: readonly Case[]): number =>
  cases.reduce((sum, one) => sum + 1 + ('does' in one ? (one.then ?? []).length : 0), 0);

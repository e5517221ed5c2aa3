import type { Access } from '@/core/access';
import type { Already } from '@/core/sweep';
import type { Asked, Case } from './cases/case';
import type { SweptViewer } from './viewer';

/** Which topics one viewer is asked about, and which not, since nothing decides for them that was not asked about. */
export class Once {
  readonly access: Access;
  /** How many requests were left out. */
  skipped = 0;
  private readonly before: Access | undefined;
  private readonly notes: (() => void)[] = [];

  constructor(
    private readonly viewer: SweptViewer,
    moment: number,
    private readonly already: Already,
    private readonly whole: boolean,
  ) {
    this.access = viewer.access(moment);
    this.before = viewer.ending?.before(moment);
  }

  readonly ask: Asked['once'] = (topic, elements, cases) => {
    const { already, access, before } = this;
    if (before && !this.whole) {
      // Of rights that end only what they gave is asked.
      const [now, then] = [access, before].map((one) => already.decidingAt(one, elements).join());
      if (now === then) return [];
    }
    const ofSort = `${this.viewer.sort ?? ''} ${topic}`;
    const took = already.took(ofSort, access, elements);
    if (took !== undefined && !this.whole) {
      this.skipped += took;
      return [];
    }
    const all = [...cases()];
    this.notes.push(() => already.note(ofSort, access, elements, requestsIn(all)));
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

import type { Access } from '@/core/access';
import type { Already } from '@/core/sweep';
import type { Asked, Case } from './cases/case';
import type { SweptViewer } from './viewer';

/** Which topics one viewer is asked about, and which not, since somebody like them was. */
export class Once {
  /** How many requests each topic takes. */
  readonly took = new Map<string, number>();
  /** How many requests were left out. */
  skipped = 0;
  readonly access: Access;
  private readonly before: Access | undefined;

  constructor(
    private readonly viewer: Pick<SweptViewer, 'sort' | 'access' | 'ending'>,
    moment: number,
    private readonly already: Already,
    private readonly whole: boolean,
  ) {
    this.access = viewer.access(moment);
    this.before = viewer.ending?.before(moment);
  }

  readonly ask: Asked['once'] = (topic, elements, cases) => {
    const { already, access, before, whole } = this;
    const [now, then] = [access, before ?? access].map((one) => already.keyOf(topic, one, elements));
    // Of rights that end only what they gave is asked.
    if (before && now === then && !whole) return [];
    const key = `${this.viewer.sort ?? ''} ${now} ${then}`;
    const took = already.took(key) ?? this.took.get(key);
    if (took !== undefined && !whole) {
      this.skipped += took;
      return [];
    }
    const all = [...cases()];
    this.took.set(key, requestsIn(all));
    return all;
  };
}

/** How many requests these cases take. */
export const requestsIn = (cases: readonly Case[]): number =>
  cases.reduce((sum, one) => sum + 1 + ('does' in one ? (one.then ?? []).length : 0), 0);

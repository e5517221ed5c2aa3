import { eq } from 'drizzle-orm';
import type { Surprise } from '@/core/sweep';
import { database } from '../../database/client';
import { sweeps } from '../../database/schema';
import { notifyChange } from '../../notifications/notices';

/** So many causes are kept, and so many of each sort of request, so that no leak hides another. */
const MOST_KEPT = 2000;
const MOST_OF_SORT = 20;
const TOLD_EVERY_MS = 700;

/** The first of those that come of one cause, and as whom they came. */
type FirstSurprise = { -readonly [K in keyof Surprise]: Surprise[K] } & { readonly as: Set<string> };

/** As many requests as the last ones took are expected of a viewer. */
const LAST = 5;

export type Sweep = typeof sweeps.$inferSelect;

/** Keeps what has been asked and found, and tells of it now and then. */
export class Progress {
  stopped = false;
  private viewers: number;
  private asked: number;
  private toAsk = 0;
  private count: number;
  private toldAt = 0;
  /** By their causes. */
  private readonly causes = new Map<string, FirstSurprise>();
  private readonly sorts = new Map<string, number>();
  private readonly begun = Date.now();
  private skipped = 0;
  /** How many requests each of the last viewers took. */
  private readonly took: number[] = [];
  private saving: Promise<void> = Promise.resolve();

  constructor(
    private readonly sweep: Sweep,
    private readonly of: number,
  ) {
    this.viewers = sweep.viewers;
    this.asked = sweep.asked;
    for (const one of sweep.surprises)
      this.causes.set(` ${causeOf(one)}`, { ...one, as: new Set([one.viewer]) });
    this.count = sweep.surpriseCount;
  }

  /** So many requests are to be made as the next viewer, and so many need not be; as those that come, about as many as the last ones took. */
  expect(requests: number, skipped: number): void {
    this.skipped += skipped;
    this.took.push(requests);
    const last = this.took.slice(-LAST);
    const each = last.reduce((sum, one) => sum + one, 0) / last.length;
    this.toAsk = this.asked + requests + Math.round(each * Math.max(0, this.of - this.viewers - 1));
  }

  /** How many requests were left out, since somebody like the viewer was asked the same. */
  get leftOut(): number {
    return this.skipped;
  }

  /** Notes what came as somebody in such circumstances. */
  add(surprises: readonly Surprise[], circumstances = ''): void {
    this.asked++;
    this.note(surprises, circumstances);
    if (Date.now() - this.toldAt < TOLD_EVERY_MS) return;
    this.toldAt = Date.now();
    this.saving = this.saving.then(() => this.save());
    this.saving.catch(() => undefined);
  }

  async viewerDone(): Promise<void> {
    this.viewers++;
    await this.saving;
    await this.save();
  }

  private note(surprises: readonly Surprise[], circumstances: string): void {
    this.count += surprises.length;
    for (const one of surprises) {
      const cause = `${circumstances} ${causeOf(one)}`;
      const kept = this.causes.get(cause);
      if (kept) {
        kept.times = (kept.times ?? 1) + 1;
        kept.viewers = Math.max(kept.viewers ?? 1, kept.as.add(one.viewer).size);
        continue;
      }
      const sort = `${circumstances} ${one.what} ${wayOf(one)} ${shapeOf(one)}`;
      const ofSort = this.sorts.get(sort) ?? 0;
      if (ofSort >= MOST_OF_SORT || this.causes.size >= MOST_KEPT) continue;
      this.sorts.set(sort, ofSort + 1);
      this.causes.set(cause, { ...one, as: new Set([one.viewer]) });
    }
  }

  private async save(): Promise<void> {
    const [row] = await database()
      .update(sweeps)
      .set({
        viewers: this.viewers,
        ofViewers: this.of,
        asked: this.asked,
        toAsk: Math.max(this.toAsk, this.asked),
        surprises: [...this.causes.values()].map(({ as: _, ...one }) => one),
        surpriseCount: this.count,
        worked: this.sweep.worked + Date.now() - this.begun,
      })
      .where(eq(sweeps.id, this.sweep.id))
      .returning({ state: sweeps.state });
    // Taken back, or deleted with its application.
    if (row?.state !== 'running') this.stopped = true;
    await notifyChange(database(), this.sweep.applicationId, 'swept');
  }
}

/** How it was asked: for a page, or by which route. */
function wayOf({ request }: Surprise): string {
  const [, route = 'page', more = ''] =
    /^(\w+ \/api\/[\w-]+)(?:.*?\/(export|bulk|actions|link|waits)\b)?/.exec(request) ?? [];
  return `${route} ${more} ${/[?&](sort|filter|q)=/.exec(request)?.[1] ?? ''}`;
}

/** What is said of it, without what it is said of: a name, or a value. */
const shapeOf = ({ said }: Surprise): string =>
  said.replace(/\d+/g, '#').replace(/^(The name or id)?.* (?=is (sent|not there))/, '$1 ');

/** What surprises have in common that come of the same: what it is, about what, and how it was asked. */
const causeOf = (one: Surprise): string =>
  `${one.what} ${wayOf(one)} ${one.element ?? one.request} ${shapeOf(one)}`;

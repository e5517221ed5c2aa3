import { eq } from 'drizzle-orm';
import type { Surprise } from '@/core/sweep';
import { database } from '../../database/client';
import { sweeps } from '../../database/schema';
import { tellNews } from '../../news/news';
import type { SweptViewer } from './viewers';

/** So many surprises are kept one by one; of each sort, and of those about the same, only the first. */
const MOST_KEPT = 400;
const MOST_OF_SORT = 15;
const MOST_ALIKE = 3;
const TOLD_EVERY_MS = 700;

export type Sweep = typeof sweeps.$inferSelect;

/** Keeps what has been asked and found, and tells of it now and then. */
export class Progress {
  stopped = false;
  private viewers: number;
  private asked: number;
  private toAsk = 0;
  private readonly kept: Surprise[];
  private count: number;
  private toldAt = 0;
  /** How many of a sort, and about the same, are kept. */
  private readonly kinds = new Map<string, number>();
  private readonly begun = Date.now();
  /** How many requests the last viewer took who was asked as at another time, and who was not. */
  private readonly last = { now: 0, then: 0 };
  private saving: Promise<void> = Promise.resolve();

  constructor(
    private readonly sweep: Sweep,
    private readonly of: readonly Pick<SweptViewer, 'besides'>[],
  ) {
    this.viewers = sweep.viewers;
    this.asked = sweep.asked;
    this.kept = [...sweep.surprises];
    this.count = sweep.surpriseCount;
  }

  /** So many requests are to be made as the next viewer: about as many as for those like them that come. */
  expect(requests: number): void {
    const [one, ...later] = this.of.slice(this.viewers);
    this.last[one?.besides ? 'then' : 'now'] = requests;
    this.toAsk = this.asked + requests;
    for (const { besides } of later) this.toAsk += this.last[besides ? 'then' : 'now'];
  }

  add(surprises: readonly Surprise[]): void {
    this.asked++;
    this.note(surprises);
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

  private note(surprises: readonly Surprise[]): void {
    this.count += surprises.length;
    for (const one of surprises) {
      const sort = `${one.what} ${/^\w+ \/api\/[\w-]+/.exec(one.request)?.[0] ?? 'page'}`;
      const alike = `${sort} ${one.element ?? one.request}`;
      const [ofSort, about] = [this.kinds.get(sort) ?? 0, this.kinds.get(alike) ?? 0];
      if (ofSort >= MOST_OF_SORT || about >= MOST_ALIKE || this.kept.length >= MOST_KEPT) continue;
      this.kinds.set(sort, ofSort + 1).set(alike, about + 1);
      this.kept.push(one);
    }
  }

  private async save(): Promise<void> {
    const [row] = await database()
      .update(sweeps)
      .set({
        viewers: this.viewers,
        ofViewers: this.of.length,
        asked: this.asked,
        toAsk: Math.max(this.toAsk, this.asked),
        surprises: this.kept,
        surpriseCount: this.count,
        worked: this.sweep.worked + Date.now() - this.begun,
      })
      .where(eq(sweeps.id, this.sweep.id))
      .returning({ state: sweeps.state });
    // Taken back, or deleted with its application.
    if (row?.state !== 'running') this.stopped = true;
    await tellNews(database(), this.sweep.applicationId, 'swept');
  }
}

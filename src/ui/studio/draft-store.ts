import { applyEdit } from '@/core/edit/apply';
import { sameJson } from '@/core/model/same-json';
import type { Edit } from '@/core/edit/edit';
import type { Standing } from '@/core/edit/history';
import type { Definition } from '@/core/model/definition';
import { ok } from '@/core/model/problem';

/** One revision as the server tells it. */
interface Revision {
  readonly revision: number;
  readonly edit: Edit;
  readonly author: string;
}

interface Told {
  readonly since: readonly Revision[];
  readonly standing: Standing;
}

type Ask =
  | {
      readonly ask: 'edit';
      readonly edit: Edit;
      /** The definition that it was made in, and what it made of it. */
      readonly from: Definition;
      readonly made: Definition;
    }
  | { readonly ask: 'undo' | 'redo' };

/** `unreachable`, `signed-out`: what is not saved yet is kept here and tried again. */
export type Saved = 'saved' | 'saving' | 'unreachable' | 'signed-out';

export interface DraftState {
  /** With one's own edits in it that are still being saved. */
  readonly definition: Definition;
  /** The newest revision that the server has confirmed. */
  readonly revision: number;
  readonly standing: Standing;
  readonly saved: Saved;
}

const RETRY_MS = 2000;

/**
 * The draft as the studio works on it. An edit shows at once and is saved in the background, one after the
 * other. What other builders did meanwhile comes with each answer; an edit that no longer applies is taken
 * out again, and its builder is told what came between.
 */
export class DraftStore {
  private confirmed: { definition: Definition; revision: number };
  private readonly waiting: Ask[] = [];
  private sending = false;
  private state: DraftState;
  private readonly listeners = new Set<() => void>();

  constructor(
    private readonly url: string,
    definition: Definition,
    revision: number,
    standing: Standing,
    private readonly tell: (message: string) => void,
  ) {
    this.confirmed = { definition, revision };
    this.state = { definition, revision, standing, saved: 'saved' };
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly read = (): DraftState => this.state;

  /** Makes an edit. One that is not sound is refused at once, in words. */
  apply(edit: Edit): void {
    const from = this.state.definition;
    const made = applyEdit(from, edit);
    if (!made.ok)
      return this.tell(
        made.problems.map(({ place, message, mend }) => `${place}: ${message} ${mend}`).join(' '),
      );
    this.waiting.push({ ask: 'edit', edit, from, made: made.value });
    this.show({ definition: made.value, saved: 'saving' });
    void this.send();
  }

  /** Takes back one's own last standing edit, or does it again, after what is still being saved. */
  turn(ask: 'undo' | 'redo'): void {
    this.waiting.push({ ask });
    this.show({ saved: 'saving' });
    void this.send();
  }

  /** Fetches what others have done. */
  async catchUp(): Promise<void> {
    if (this.sending) return;
    const response = await fetch(`${this.url}?since=${this.confirmed.revision}`).catch(() => undefined);
    if (response?.ok && !this.sending) this.take((await response.json()) as Told);
  }

  private async send(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    for (let ask = this.waiting[0]; ask; ask = this.waiting[0]) {
      const response = await fetch(this.url, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({
          base: this.confirmed.revision,
          ask: ask.ask,
          ...(ask.ask === 'edit' && { edit: ask.edit }),
        }),
      }).catch(() => undefined);
      if (!response || response.status >= 500 || response.status === 401) {
        this.show({ saved: response?.status === 401 ? 'signed-out' : 'unreachable' });
        await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
        continue;
      }
      const answer = (await response.json()) as Told & { readonly detail?: string };
      this.waiting.shift();
      if (response.ok) this.take(answer, ask);
      else this.refused(ask, answer.since ?? [], answer.detail ?? 'The server refused the change.');
    }
    this.sending = false;
    this.show({ saved: 'saved' });
  }

  private take({ since, standing }: Told, own?: Ask): void {
    this.advance(since, own);
    this.show({ standing });
  }

  /** The server has an edit already if its first answer was lost on the way; that is no refusal. */
  private refused(ask: Ask, since: readonly Revision[], detail: string): void {
    const there = ask.ask === 'edit' && since.some(({ edit }) => sameJson(edit, ask.edit));
    this.advance(since);
    if (there) return;
    const authors = [...new Set(since.map(({ author }) => author))].join(', ');
    this.tell(`${detail}${authors && ` Meanwhile ${authors} changed the draft; it is shown as it is now.`}`);
  }

  private advance(since: readonly Revision[], own?: Ask): void {
    for (const { revision, edit } of since) {
      if (revision <= this.confirmed.revision) continue;
      // What is shown already is kept, where nothing came between: it need not be made and drawn again.
      const there = own?.ask === 'edit' && own.from === this.confirmed.definition && sameJson(edit, own.edit);
      const made = there ? ok(own.made) : applyEdit(this.confirmed.definition, edit);
      // The log has been applied by the server; if it cannot be here, only loading anew can help.
      if (!made.ok) return window.location.reload();
      this.confirmed = { definition: made.value, revision };
    }
    let { definition } = this.confirmed;
    for (const ask of this.waiting) {
      if (ask.ask !== 'edit') continue;
      const made = ask.from === definition ? ok(ask.made) : applyEdit(definition, ask.edit);
      if (made.ok) definition = made.value;
    }
    this.show({ definition, revision: this.confirmed.revision });
  }

  private show(change: Partial<DraftState>): void {
    this.state = { ...this.state, ...change };
    for (const listener of this.listeners) listener();
  }
}

import { applyEdit } from '@/core';
import type { Edit, UndoState } from '@/core/edit';
import { type Definition, newUuid, ok, sameJson } from '@/core/model';
import { changeDraft, type DraftNews, draftSince, type Revision } from '@/contract/studio/draft';
import { requestOf, send } from '@/ui/client/send';

/** One revision as the server tells it. */
/** What is asked, under a name of its own: sent again after a lost answer, it is not done again. */
type Ask = { readonly request: string; confirmed?: string } & (
  | {
      readonly ask: 'edit';
      readonly edit: Edit;
      /** The definition that it was made in, and what it made of it. */
      readonly from: Definition;
      readonly made: Definition;
    }
  | { readonly ask: 'undo' | 'redo' }
);

/** What is kept of it, in case the page is loaded anew before it is saved. */
type PendingRequest = Pick<Ask, 'request' | 'ask'> & { readonly edit?: Edit };

/** What the store needs of the page around it. */
export interface DraftStoreOptions {
  /** With `undo`, taking it back is offered. */
  tell(message: string, undo?: () => void): void;
  /** Asks whether to go on; for what deletes something that kept people out. */
  confirm(message: string): Promise<boolean>;
  /** Where what waits is kept while the page is loaded anew. */
  readonly keeps: Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>;
}

type DraftReply = DraftNews & {
  readonly said?: string;
  readonly type?: string;
  readonly detail?: string;
  readonly code?: string;
};

/** What was kept; nothing, where it cannot be read. */
function readKept(text: string): readonly PendingRequest[] {
  try {
    const kept: unknown = JSON.parse(text);
    return Array.isArray(kept) ? (kept as PendingRequest[]) : [];
  } catch {
    return [];
  }
}

/** What an edit takes away; undefined, where it does nothing of the kind. */
function takenAwayInWords(edit: Edit): string | undefined {
  switch (edit.do) {
    case 'removeLine':
      return 'Line removed.';
    case 'follow':
      return 'Lines removed. The element now follows its container.';
    case 'removeItem':
      return `${edit.item.name} deleted.`;
    case 'removeElement':
      return `${typeof edit.node['name'] === 'string' ? edit.node['name'] : 'Element'} was deleted.`;
    case 'together': {
      // Lines go with what is deleted, and where others take their place: that is not what it is about.
      const about = edit.edits.filter((one) => one.do !== 'removeLine').map(takenAwayInWords);
      return about.findLast((said) => said !== undefined);
    }
    case 'addElement':
    case 'addItem':
    case 'addLine':
    case 'changeClosed':
    case 'changeElement':
    case 'changeItem':
    case 'changeLine':
    case 'changeSettings':
    case 'moveElement':
    case 'moveItem':
    case 'replace':
    case 'startLines':
      return undefined;
  }
}

/** `unreachable`, `signed-out`: what is not saved yet is kept here and tried again. */
type Saved = 'saved' | 'saving' | 'unreachable' | 'signed-out';

export interface DraftState {
  /** With one's own edits in it that are still being saved. */
  readonly definition: Definition;
  /** The newest revision that the server has confirmed. */
  readonly revision: number;
  readonly standing: UndoState;
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
  /** The newest revision that was told of. */
  private heard = 0;
  /** What was asked last, whether or not it is saved yet. */
  private last: Ask | undefined;
  private state: DraftState;
  private readonly listeners = new Set<() => void>();

  constructor(
    private readonly app: string,
    definition: Definition,
    revision: number,
    standing: UndoState,
    private readonly around: DraftStoreOptions,
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
      return this.around.tell(
        made.problems.map(({ place, message, mend }) => `${place}: ${message} ${mend}`).join(' '),
      );
    const definition = made.value;
    this.wait({ request: newUuid(), ask: 'edit', edit, from, made: definition }, { definition });
  }

  /** Takes back one's own last standing edit, or does it again, after what is still being saved. */
  turn(ask: 'undo' | 'redo'): void {
    this.wait({ request: newUuid(), ask });
  }

  /** Goes on with what was not saved yet when the page was loaded anew. */
  resume(): void {
    const kept = this.around.keeps.getItem(this.place);
    if (kept === null || this.waiting.length > 0) return;
    let { definition } = this.state;
    for (const { request, ask, edit } of readKept(kept)) {
      const made = edit && applyEdit(definition, edit);
      if (ask !== 'edit') this.waiting.push({ request, ask });
      else if (edit) {
        // Whether it still applies is the server's to say: it may have it already.
        const next = made?.ok ? made.value : definition;
        this.waiting.push({ request, ask, edit, from: definition, made: next });
        definition = next;
      }
    }
    if (this.waiting.length === 0) return this.keep();
    this.show({ definition, saved: 'saving' });
    void this.send();
  }

  private wait(ask: Ask, change: Partial<DraftState> = {}): void {
    this.waiting.push(ask);
    this.last = ask;
    this.keep();
    this.show({ ...change, saved: 'saving' });
    void this.send();
  }

  private get place(): string {
    return `zinc-waiting ${this.app}`;
  }

  private keep(): void {
    const { keeps } = this.around;
    if (this.waiting.length === 0) return keeps.removeItem(this.place);
    const kept = this.waiting.map((one): PendingRequest => ({
      request: one.request,
      ask: one.ask,
      ...(one.ask === 'edit' && { edit: one.edit }),
    }));
    keeps.setItem(this.place, JSON.stringify(kept));
  }

  /** Hears that the draft is at a revision: fetches what others have done, unless it is here already. */
  hear(revision: number): void {
    this.heard = Math.max(this.heard, revision);
    if (this.heard > this.confirmed.revision) void this.catchUp();
  }

  /** Fetches what others have done. */
  async catchUp(): Promise<void> {
    if (this.sending) return;
    const since = this.confirmed.revision;
    const answer = await send(draftSince, { app: this.app, query: { since } });
    if (answer.ok && !this.sending) this.take(answer.value);
  }

  private async send(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    for (let ask = this.waiting[0]; ask; ask = this.waiting[0]) {
      const body = {
        base: this.confirmed.revision,
        ask: ask.ask,
        request: ask.request,
        confirmed: ask.confirmed,
        edit: ask.ask === 'edit' ? ask.edit : undefined,
      };
      const asking = { app: this.app, body };
      const response = await fetch(...requestOf(changeDraft, asking)).catch(() => undefined);
      // An answer that is cut off says nothing of what was done: it is asked for again.
      const answer = response && (await (response.json() as Promise<DraftReply>).catch(() => undefined));
      if (!response || !answer || response.status >= 500 || response.status === 401) {
        this.show({ saved: response?.status === 401 ? 'signed-out' : 'unreachable' });
        await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
        continue;
      }
      if (
        answer.type?.endsWith(':would-widen') &&
        (await this.around.confirm(`${answer.detail} Delete it anyway?`))
      ) {
        ask.confirmed = answer.code ?? '';
        continue;
      }
      this.waiting.shift();
      this.keep();
      if (response.ok) {
        this.take(answer, ask);
        if (answer.said !== undefined) this.around.tell(answer.said);
        this.offerUndo(ask);
      } else if (answer.type?.endsWith(':would-widen')) this.advance([]);
      else this.refused(answer.since ?? [], answer.detail ?? 'The server rejected the change.');
    }
    this.sending = false;
    this.show({ saved: 'saved' });
    this.hear(0);
  }

  /** What takes something away does not ask: it can be taken back, also by who does not know the keys. */
  private offerUndo(ask: Ask): void {
    const said = ask.ask === 'edit' ? takenAwayInWords(ask.edit) : undefined;
    if (said === undefined || ask !== this.last) return;
    this.around.tell(said, () => {
      if (ask === this.last) this.turn('undo');
      else this.around.tell('You have made later changes. Use Undo to reverse them one at a time.');
    });
  }

  private take({ since, standing }: DraftNews, own?: Ask): void {
    this.advance(since, own);
    this.show({ standing });
  }

  private refused(since: readonly Revision[], detail: string): void {
    this.advance(since);
    const authors = [...new Set(since.map(({ author }) => author))].join(', ');
    this.around.tell(
      `${detail}${authors && ` ${authors} changed the draft in the meantime. The current version is now shown.`}`,
    );
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

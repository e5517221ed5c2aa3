/** One revision in a draft's log, as far as undoing is concerned. */
export interface LogEntry {
  readonly revision: number;
  /** The revision that this one takes back, or does again. */
  readonly undoes?: number | null;
  readonly redoes?: number | null;
  /** Revisions that were to be taken back, or done again, before it, and no longer could be. */
  readonly skips?: readonly number[] | null;
}

export interface UndoState {
  /** The last own edit that stands: what undo takes back. */
  readonly undo?: number;
  /** The last own edit taken back, with nothing of one's own done since: what redo does again. */
  readonly redo?: number;
}

/** One's own edits that stand, and those taken back with nothing done since: each list in order, the last first to go. */
export function stacksOf(own: readonly LogEntry[]): {
  readonly undo: readonly number[];
  readonly redo: readonly number[];
} {
  let done: number[] = [];
  let undone: number[] = [];
  for (const { revision, undoes, redoes, skips } of own) {
    const gone = (one: number): boolean => one !== undoes && one !== redoes && !skips?.includes(one);
    done = done.filter(gone);
    undone = undone.filter(gone);
    if (typeof undoes === 'number') undone.push(undoes);
    else if (typeof redoes === 'number') done.push(redoes);
    else {
      done.push(revision);
      undone = [];
    }
  }
  return { undo: done, redo: undone };
}

/** What undo and redo would act on first, from one builder's own entries in order of revision. */
export function undoStateOf(own: readonly LogEntry[]): UndoState {
  const { undo, redo } = stacksOf(own);
  const [last, taken] = [undo.at(-1), redo.at(-1)];
  return { ...(last !== undefined && { undo: last }), ...(taken !== undefined && { redo: taken }) };
}

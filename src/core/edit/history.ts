/** One revision in a draft's log, as far as undoing is concerned. */
export interface LogEntry {
  readonly revision: number;
  /** The revision that this one takes back, or does again. */
  readonly undoes?: number | null;
  readonly redoes?: number | null;
}

export interface Standing {
  /** The last own edit that stands: what undo takes back. */
  readonly undo?: number;
  /** The last own edit taken back, with nothing of one's own done since: what redo does again. */
  readonly redo?: number;
}

/** What undo and redo would act on, from one builder's own entries in order of revision. */
export function standingOf(own: readonly LogEntry[]): Standing {
  const done: number[] = [];
  let undone: number[] = [];
  for (const entry of own) {
    if (typeof entry.undoes === 'number') {
      const { undoes } = entry;
      if (done.at(-1) === undoes) done.pop();
      undone.push(undoes);
    } else if (typeof entry.redoes === 'number') {
      undone.pop();
      done.push(entry.redoes);
    } else {
      done.push(entry.revision);
      undone = [];
    }
  }
  const undo = done.at(-1);
  const redo = undone.at(-1);
  return { ...(undo !== undefined && { undo }), ...(redo !== undefined && { redo }) };
}

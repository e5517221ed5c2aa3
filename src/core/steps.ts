/** Work that can be left, or broken off, between its steps: each says how far it is, and at last comes what it made. */
export type Steps<T> = Generator<{ readonly done: number; readonly of: number }, T, void>;

/** All the steps at once: what they made. */
export function allSteps<T>(steps: Steps<T>): T {
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
}

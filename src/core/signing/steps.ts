/** Work that can be left, or broken off, between its steps: each says how far it is, and at last comes what it made. */
export type Steps<T> = Generator<{ readonly done: number; readonly of: number }, T, void>;

/** Takes all the steps at once. */
export function allSteps<T>(steps: Steps<T>): T {
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
}

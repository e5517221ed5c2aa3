/** Something wrong that a user can put right: what, where, and how to mend it. */
export interface Problem {
  /** Stable, for programs. */
  readonly code: string;
  /** Where it is, in words a user knows: an element's name, a field's name, a path in a file. */
  readonly place: string;
  readonly message: string;
  readonly mend: string;
}

/** Either a value or the problems that kept it from being made. */
export type Result<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problems: readonly Problem[] };

export const ok = <T>(value: T): Result<T> => ({ ok: true, value });
export const failed = (...problems: Problem[]): Result<never> => ({ ok: false, problems });

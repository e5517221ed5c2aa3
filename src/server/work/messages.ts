import type { Refusal } from '../http/problem';

/** What the server sends to a process that works. */
export type ToWorker =
  | { readonly id: number; readonly job: string; readonly input: unknown }
  | { readonly stop: number }
  /** The reader of a file has room for its next part. */
  | { readonly more: number };

/** What comes back: how far it is, a part of a file, and at last what it made, as JSON, or why it was refused. */
export type FromWorker =
  | { readonly id: number; readonly done: number; readonly of: number }
  | { readonly id: number; readonly part: string }
  | { readonly id: number; readonly value: string; readonly mb: number }
  | { readonly id: number; readonly refused: Refusal; readonly mb: number };

/** Expectations: who should get what, kept with a name and a reason, and checked from then on. */
import { accessOf } from '../access/deciding/access';
import { compile } from '../access/deciding/compile';
import { sameAnswer, type Answer } from '../access/deciding/level';
import type { Viewer } from '../access/deciding/viewer';
import type { KnownRecord } from '../access/sent/resolve';
import type { Definition } from '../model/definition';
import type { Id } from '../model/id';

export { levelName, levelsText, readLevels } from './levels';

/** Who should get what, where and when. */
export interface Expectation {
  /** What it protects, in words; several may have one name. */
  readonly name: string;
  readonly reason: string;
  /** The key of a viewer. */
  readonly viewer: string;
  readonly element: Id;
  /** A sample record; without one it is about any. */
  readonly record?: { readonly entity: Id; readonly id: Id } | undefined;
  /** Milliseconds since 1970; without it it is about any time, and whatever a session holds. */
  readonly moment?: number | undefined;
  /** What it should be at least and at most. */
  readonly expect: Answer;
}

/** The people and records there are, for asking. */
export interface ExpectationWorld {
  readonly viewer: (key: string) => Viewer | undefined;
  readonly record: (entity: Id, id: Id) => KnownRecord | undefined;
  /** At which periods of assignments are counted, where it is about any time. */
  readonly now: number;
}

/** What there is now of what an expectation is about; undefined where its viewer, element or record is gone. */
export function answerTo(
  definition: Definition,
  { viewer: key, element: id, record, moment }: Omit<Expectation, 'expect' | 'name' | 'reason'>,
  asked: ExpectationWorld,
): Answer | undefined {
  const compiled = compile(definition);
  const [viewer, element] = [asked.viewer(key), compiled.tree.get(id)];
  const on = record && asked.record(record.entity, record.id);
  if (!viewer || !element || (record && !on)) return undefined;
  const at = moment === undefined ? { moment: asked.now, whenever: true } : { moment };
  const access = accessOf(compiled, viewer, at);
  return on ? access.answerOn(element, on, on) : access.answer(element);
}

/**
 * Those that do not hold, each with what there is instead.
 *
 * @example
 * const one = { id: 'e1', name: 'Lenders', reason: '', viewer: 'role:lender', element: 's_loans', expect: { least: 2, most: 2 } };
 * const asked = { viewer: () => viewerOfRole('lender'), record: () => undefined, now: 0 };
 * brokenOf(LARKFIELD, [one], asked) // → [{ id: 'e1', is: { least: 0, most: 0 } }]
 */
export function brokenOf(
  definition: Definition,
  expectations: readonly (Expectation & { readonly id: string })[],
  asked: ExpectationWorld,
): { readonly id: string; readonly is: Answer | undefined }[] {
  return expectations.flatMap((one) => {
    const is = answerTo(definition, one, asked);
    return is && sameAnswer(is, one.expect) ? [] : [{ id: one.id, is }];
  });
}

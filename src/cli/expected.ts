import { sameAnswer } from '@/core/access';
import { answerTo, levelsText, readLevels } from '@/core/expectations';
import type { Id } from '@/core/model';
import { type Case, faultsOf, type NamedCase } from './decide';
import { wrong } from './failure';
import type { ReportedCase } from './junit';
import type { World } from './world';

/**
 * Checks what is expected: each case as it is at its moment, or where it names none at any time and whatever a session
 * holds. `now` is when periods of assignments are counted then.
 */
export function checkExpected(
  world: World,
  cases: readonly NamedCase[],
  file: string,
  now: number,
): ReportedCase[] {
  const asked = {
    viewer: (key: string) => world.viewer(key),
    record: (entity: Id, id: Id) => world.record(`${entity}:${id}`),
    now,
  };
  return cases.map(({ line, name, ...one }) => {
    const reported = { name: `${one.viewer} ${one.element}${inWords(one)} (line ${line})`, of: name || file };
    const [fault] = [
      ...faultsOf(world, one, `${file}, line ${line}`),
      ...(one.expect === undefined
        ? [wrong(`${file}, line ${line}`, 'The expected level is missing.', 'Fill in the column expect.')]
        : []),
    ];
    if (fault) return { ...reported, error: `${fault.message} ${fault.mend}` };
    const [entity = '', id = ''] = (one.record ?? '').split(/:(.*)/s);
    const is = answerTo(
      world.definition,
      {
        viewer: one.viewer,
        element: one.element,
        record: one.record === undefined ? undefined : { entity, id },
        moment: one.at === undefined ? undefined : Date.parse(one.at),
      },
      asked,
    );
    const should = readLevels(one.expect ?? '');
    if (is && should && sameAnswer(is, should)) return reported;
    return {
      ...reported,
      failure: `Expected ${one.expect ?? ''}, but found ${is ? levelsText(is) : 'no such element'}.`,
    };
  });
}

const inWords = ({ record, at }: Case): string =>
  `${record === undefined ? '' : ` on ${record}`}${at === undefined ? '' : ` at ${at}`}`;

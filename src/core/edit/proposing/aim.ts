import type { Access } from '../../access/deciding/access';
import type { Level } from '../../access/deciding/level';
import type { RecordFacts } from '../../condition/atom';
import type { AppElement } from '../../model/tree';

/**
 * Of whom the level is wanted. One viewer has one level, but a kind of viewer can have two: where some of its people
 * have less than is wanted, all of them should have that much; where some have more, nobody should.
 */
export type LevelReader = (access: Access, element: AppElement, record?: RecordFacts) => Level;

const least: LevelReader = (access, element, record) => access.level(element, record);
const most: LevelReader = (access, element, record) => access.most.level(element, record);

/** What to measure so that this level is reached from here. Where no record is known, it is what some record gives. */
export const levelReaderFor = (
  access: Access,
  element: AppElement,
  level: Level,
  record?: RecordFacts,
): LevelReader => (least(access, element, record) < level ? least : most);

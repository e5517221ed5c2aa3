export { Access, unsharedAccessOf } from './deciding/access';
export { Compiled } from './deciding/compile';
export { Grants } from './deciding/grants';
export { type Answer, EDIT, type Level, NONE, sameAnswer } from './deciding/level';
export { dependsOnTime } from './deciding/reads';
export {
  assignmentsSchema,
  madeViewerSchema,
  readMade,
  viewerOfKey,
  viewerOfMade,
} from './deciding/made-viewer';
export { answerOf, levelOn } from './deciding/rule';
export { ActingAccess } from './deciding/stand-in-access';
export {
  type Assignment,
  type Circumstances,
  counts,
  isKind,
  type KeptViewer,
  type MadeViewer,
  type Person,
  rightNow,
  SIGNED_IN,
  SIGNED_OUT,
  type Unlocked,
  type Viewer,
  viewerOfGroup,
} from './deciding/viewer';
export {
  everybody,
  idInKey,
  keyedGroups,
  keyedPerson,
  keyedRoles,
  type KeyedViewer,
  kindsOf,
  LOGIN_STATES,
  SIGNED_IN_KEY,
  SIGNED_IN_STATE,
  SIGNED_OUT_KEY,
  SIGNED_OUT_STATE,
} from './deciding/viewer-key';
export { type PeopleGroup, type UsedPersonData, askedOfPeople, type PeopleKnown } from './questions/alike';
export { type Cell, cellOf, unpacked } from './questions/cells';
export { type Difference, differences, differing, screensOfSome } from './questions/differences';
export type { Decided, Explanation, InactiveLine } from './questions/explain';
export { comparedAttributes, HandingOut } from './questions/handing-out';
export { allAlike, type Among } from './questions/numbers';
export { holdsStandIn, standsInFull } from './questions/standing-in';
export type { Reached, ReachedPlace, WhoGetsNamed } from './questions/reach';
export type { Destination } from './sent/address';
export { screenListing, screenShowing, sentTo } from './sent/landing';
export { listed } from './sent/listed';
export { frameAround } from './sent/frame';
export type { LookOutcome, LookPage, Note } from './sent/look';
export { addressOf, bulkChanges, type KnownRecord, labelOf, resolveRow, showField } from './sent/resolve';
export type {
  ShownButton,
  ShownClosed,
  ShownColumn,
  ShownField,
  ShownList,
  ShownFrame,
  ShownMenuItem,
  ShownPart,
  ShownPeople,
  ShownScreen,
  ShownSection,
} from './sent/shown';
export type { ChartPoint, FilterField, Outcome, ShownPage, ShownRows, ShownUnlock } from './sent/shown-page';
export { tryCondition } from './questions/try-condition';

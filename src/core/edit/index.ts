export { counted, countedOr, plural } from './comparing/counted';
export { causesOf } from './comparing/causes';
export { changeInWords } from './comparing/change-words';
export type { Change } from './comparing/difference';
export { changesInShort } from './comparing/in-short';
export { assignmentInWords, personChangeInWords } from './comparing/person-words';
export { opensOf } from './comparing/opening';
export { type Power, powerOf } from './comparing/power';
export {
  type DataChange,
  type Direction,
  directionOf,
  type EditEffect,
  type Effect,
  type Following,
  type OtherRecords,
  type Review,
} from './comparing/review';
export {
  compareReach,
  viewersAffected,
  reachSteps,
  type AccessDifference,
} from './comparing/access-differences';
export { deletesSomething } from './comparing/widening';
export {
  amongInShort,
  amongInWords,
  answerInWords,
  fullName,
  handleName,
  kindInWords,
  levelInWords,
  lineInWords,
  type PersonName,
  placeInWords,
  whatInWords,
  whoInWords,
  wideningInWords,
} from './comparing/words';
export { editBetween } from './edits/between';
export { copyGate, copyRole } from './edits/copy';
export { type Edit, EDIT_FORMAT } from './edits/edit';
export { type LogEntry, stacksOf, type UndoState, undoStateOf } from './edits/history';
export { newLine, removeNamed, removePrivilege, withScreensGated } from './edits/make';
export { editSchema } from './edits/schema';
export { startLines } from './proposing/start';
export type { TargetLevel } from './proposing/smallest-change';
export { askedBy } from './shaping/asked-by';
export { effectKey, effectsOn } from './shaping/effects';
export { mayStandIn, moveTo } from './shaping/places';
export { countedBy, typeInWords } from './shaping/fields';
export { addressOnNaming, type Seam } from './shaping/insert-options';
export { offersAt, offersInto } from './shaping/insert-points';
export { addKind } from './shaping/new-kind';
export { removalOf } from './shaping/removal';

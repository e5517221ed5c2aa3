import { alwaysTrue } from './always-true';
import { blockHitsAbove } from './block-hits-above';
import { blocksInDoubt } from './blocks-in-doubt';
import { blockWithoutUse } from './block-without-use';
import { bulkChangesNothing } from './bulk-changes-nothing';
import { changedWithoutSigningIn } from './changed-without-signing-in';
import type { Check } from './finding';
import { closesItself } from './closes-itself';
import { comparedWithRoleName } from './compared-with-role-name';
import { containerCloses } from './container-closes';
import { coveredLine } from './covered-line';
import { emailInCapitals } from './email-in-capitals';
import { faceNeverFirst } from './face-never-first';
import { formNobodySends } from './form-nobody-sends';
import { groupOfNobody } from './group-of-nobody';
import { handingOutAddsUp } from './handing-out-adds-up';
import { handsOutMore } from './hands-out-more';
import { heldInAUnitOnly } from './held-in-a-unit-only';
import { hiddenButOpen } from './hidden-but-open';
import { hiddenHereShownThere } from './hidden-here-shown-there';
import { leadsNowhere } from './leads-nowhere';
import { letsOneselfIn } from './lets-oneself-in';
import { lineNeverHelps } from './line-never-helps';
import { listWithoutFilter } from './list-without-filter';
import { namesWhatIsGone } from './names-what-is-gone';
import { neededButClosed } from './needed-but-closed';
import { neverTrue } from './never-true';
import { newScreensOpen } from './new-screens-open';
import { nobodyGetsIt } from './nobody-gets-it';
import { nobodyIsLeft } from './nobody-is-left';
import { noWayThere } from './no-way-there';
import { openBySigningUp } from './open-by-signing-up';
import { personalDataPublic } from './personal-data-public';
import { picksFromNothing } from './picks-from-nothing';
import { pointedToClosed } from './pointed-to-closed';
import { roleAddsNothing } from './role-adds-nothing';
import { savesNothing } from './saves-nothing';
import { sessionNeverSet } from './session-never-set';
import { standingInReachesFurther } from './standing-in-reaches-further';
import { startScreenClosed } from './start-screen-closed';
import { unlocksWhatTheyLack } from './unlocks-what-they-lack';
import { usedByNothing } from './used-by-nothing';
import { widerThanScreens } from './wider-than-screens';
import { writtenButNotSaved } from './written-but-not-saved';
import { writtenByHand } from './written-by-hand';

/** All checks, in the order in which their findings are told: what lets somebody in comes first. */
export const CHECKS: readonly Check[] = [
  personalDataPublic,
  hiddenButOpen,
  hiddenHereShownThere,
  widerThanScreens,
  listWithoutFilter,
  changedWithoutSigningIn,
  openBySigningUp,
  newScreensOpen,
  letsOneselfIn,
  handsOutMore,
  handingOutAddsUp,
  standingInReachesFurther,
  leadsNowhere,
  noWayThere,
  formNobodySends,
  savesNothing,
  writtenButNotSaved,
  bulkChangesNothing,
  neededButClosed,
  picksFromNothing,
  pointedToClosed,
  startScreenClosed,
  nobodyIsLeft,
  nobodyGetsIt,
  containerCloses,
  lineNeverHelps,
  coveredLine,
  blockWithoutUse,
  blockHitsAbove,
  blocksInDoubt,
  neverTrue,
  alwaysTrue,
  comparedWithRoleName,
  emailInCapitals,
  sessionNeverSet,
  closesItself,
  faceNeverFirst,
  writtenByHand,
  unlocksWhatTheyLack,
  roleAddsNothing,
  heldInAUnitOnly,
  groupOfNobody,
  namesWhatIsGone,
  usedByNothing,
];

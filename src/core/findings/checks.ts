import { alwaysTrue } from './always-true';
import { blockWithoutUse } from './block-without-use';
import { changedWithoutSigningIn } from './changed-without-signing-in';
import { closesItself } from './closes-itself';
import { coveredLine } from './covered-line';
import { faceNeverFirst } from './face-never-first';
import type { Check } from './finding';
import { formNobodySends } from './form-nobody-sends';
import { handingOutAddsUp } from './handing-out-adds-up';
import { hiddenButOpen } from './hidden-but-open';
import { hiddenHereShownThere } from './hidden-here-shown-there';
import { leadsNowhere } from './leads-nowhere';
import { letsOneselfIn } from './lets-oneself-in';
import { lineNeverHelps } from './line-never-helps';
import { namesWhatIsGone } from './names-what-is-gone';
import { neededButClosed } from './needed-but-closed';
import { neverTrue } from './never-true';
import { noWayThere } from './no-way-there';
import { nobodyGetsIt } from './nobody-gets-it';
import { nobodyIsLeft } from './nobody-is-left';
import { openBySigningUp } from './open-by-signing-up';
import { picksFromNothing } from './picks-from-nothing';
import { pointedToClosed } from './pointed-to-closed';
import { roleAddsNothing } from './role-adds-nothing';
import { standingInReachesFurther } from './standing-in-reaches-further';
import { startScreenClosed } from './start-screen-closed';
import { unlocksWhatTheyLack } from './unlocks-what-they-lack';
import { usedByNothing } from './used-by-nothing';
import { widerThanScreens } from './wider-than-screens';
import { writtenByHand } from './written-by-hand';

/** All checks, in the order in which their findings are told: what lets somebody in comes first. */
export const CHECKS: readonly Check[] = [
  hiddenButOpen,
  hiddenHereShownThere,
  widerThanScreens,
  changedWithoutSigningIn,
  openBySigningUp,
  letsOneselfIn,
  handingOutAddsUp,
  standingInReachesFurther,
  leadsNowhere,
  noWayThere,
  formNobodySends,
  neededButClosed,
  picksFromNothing,
  pointedToClosed,
  startScreenClosed,
  nobodyIsLeft,
  nobodyGetsIt,
  lineNeverHelps,
  coveredLine,
  blockWithoutUse,
  neverTrue,
  alwaysTrue,
  closesItself,
  faceNeverFirst,
  writtenByHand,
  unlocksWhatTheyLack,
  roleAddsNothing,
  namesWhatIsGone,
  usedByNothing,
];

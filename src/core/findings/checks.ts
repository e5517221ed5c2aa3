import { changedWithoutSigningIn } from './changed-without-signing-in';
import type { Check } from './finding';
import { formNobodySends } from './form-nobody-sends';
import { hiddenButOpen } from './hidden-but-open';
import { leadsNowhere } from './leads-nowhere';
import { namesWhatIsGone } from './names-what-is-gone';
import { neededButClosed } from './needed-but-closed';
import { noWayThere } from './no-way-there';
import { nobodyGetsIt } from './nobody-gets-it';
import { openBySigningUp } from './open-by-signing-up';
import { startScreenClosed } from './start-screen-closed';
import { usedByNothing } from './used-by-nothing';

/** All checks, in the order in which their findings are told. */
export const CHECKS: readonly Check[] = [
  hiddenButOpen,
  changedWithoutSigningIn,
  openBySigningUp,
  leadsNowhere,
  noWayThere,
  formNobodySends,
  neededButClosed,
  startScreenClosed,
  nobodyGetsIt,
  namesWhatIsGone,
  usedByNothing,
];

import { changedWithoutSigningIn } from './changed-without-signing-in';
import type { Check } from './finding';
import { hiddenButOpen } from './hidden-but-open';
import { leadsNowhere } from './leads-nowhere';
import { namesWhatIsGone } from './names-what-is-gone';
import { noWayThere } from './no-way-there';
import { nobodyGetsIt } from './nobody-gets-it';
import { openBySigningUp } from './open-by-signing-up';
import { usedByNothing } from './used-by-nothing';

/** All checks, in the order in which their findings are told. */
export const CHECKS: readonly Check[] = [
  hiddenButOpen,
  changedWithoutSigningIn,
  openBySigningUp,
  leadsNowhere,
  noWayThere,
  nobodyGetsIt,
  namesWhatIsGone,
  usedByNothing,
];

import * as live from './live';
import type { AnyRoute } from './route';
import * as account from './studio/account';
import * as builders from './studio/builders';
import * as data from './studio/data';
import * as draft from './studio/draft';
import * as look from './studio/look';
import * as making from './studio/making';
import * as people from './studio/people';
import * as proving from './studio/proving';
import * as releasing from './studio/releasing';

const isRoute = (value: unknown): value is AnyRoute =>
  typeof value === 'object' && value !== null && 'method' in value && 'path' in value && 'right' in value;

const { lookRecords } = look;
const { liveRecords } = live;

/** All routes that there are: who may ask what can be read here. */
export const ROUTES: readonly AnyRoute[] = [
  ...[account, builders, data, draft, look, making, people, proving, releasing, live],
  ...[lookRecords, liveRecords],
].flatMap((area) => Object.values<unknown>(area).filter(isRoute));

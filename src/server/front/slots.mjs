import { LIMITS } from './limits.mjs';
import { Shares } from './shares.mjs';

/** Each turn of the loop takes in one connection: so many turns pass before the next request is begun. */
const TURNS = 16;

/**
 * @typedef {object} Taken a request that was taken: it waits in the line, or is worked on
 * @property {readonly string[]} keys whose it is: its address, and its session if it has one
 * @property {(done: () => void) => void} begin works on it; `done` gives up its slot
 */

/**
 * The slots for requests that are worked on, and the line before them. No address and no session has more than its
 * share of either: the next of another is begun before it.
 */
export class Slots {
  /** @param {number} mostTaken how many are taken, in the line and at work */
  constructor(mostTaken) {
    this.taken = new Shares(mostTaken);
    this.atWork = new Shares(LIMITS.atWork);
    /** @type {Taken[]} */
    this.line = [];
    this.waiting = false;
  }

  /** Takes a request, or does not where there is no room for it. @param {Taken} one @returns {boolean} */
  take(one) {
    if (!this.taken.hasRoom(one.keys)) return false;
    this.taken.use(one.keys);
    this.line.push(one);
    this.workOn();
    return true;
  }

  /** The request has ended; it may not have begun yet. @param {Taken} one */
  leave(one) {
    this.taken.use(one.keys, -1);
    const place = this.line.indexOf(one);
    if (place >= 0) this.line.splice(place, 1);
  }

  /** Begins the next in the line, once what has come in in the meantime is heard: some of it may have to be refused. */
  workOn(turns = TURNS) {
    if (this.waiting && turns === TURNS) return;
    this.waiting = true;
    setImmediate(() => {
      if (turns > 0) return this.workOn(turns - 1);
      this.waiting = false;
      this.beginNext();
    });
  }

  beginNext() {
    const place = this.line.findIndex(({ keys }) => this.atWork.hasRoom(keys));
    const [one] = place < 0 ? [] : this.line.splice(place, 1);
    if (!one) return;
    if (this.line.length > 0) this.workOn();
    const { keys } = one;
    this.atWork.use(keys);
    let works = true;
    one.begin(() => {
      if (!works) return;
      works = false;
      this.atWork.use(keys, -1);
      this.workOn();
    });
  }
}

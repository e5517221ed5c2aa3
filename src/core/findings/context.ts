import { type Access, accessOf } from '../access/deciding/access';
import { compile, type Compiled } from '../access/deciding/compile';
import { EDIT, NONE, type Answer, type Level } from '../access/deciding/level';
import { answerOf } from '../access/deciding/rule';
import { subjectOf, type Circumstances } from '../access/deciding/viewer';
import {
  idInKey,
  kindsOf,
  type KeyedViewer,
  SIGNED_IN_KEY,
  SIGNED_OUT_KEY,
  viewerKey,
} from '../access/deciding/viewer-key';
import { matrixOf, unpacked, unpackedMost } from '../access/questions/cells';
import { readClock } from '../condition/clock';
import type { Definition } from '../model/definition';
import type { Line, Who } from '../model/gate';
import type { Id } from '../model/id';
import { withIncluded, type AppElement, type Tree } from '../model/tree';

const MOST_NAMED = 3;

/** A viewer whom checks ask about: a kind of viewer, or one person who stands for all who are alike. */
export interface AskedViewer extends KeyedViewer {
  readonly row: number;
  /** Those for whom it stands, itself among them. */
  readonly alike: readonly KeyedViewer[];
}

/** Of whom a line speaks. */
interface Speaking {
  /** By row. */
  readonly how: readonly Spoken[];
  /** Surely or perhaps. */
  readonly all: readonly AskedViewer[];
}

/** Whether a line speaks of a viewer: surely, or only on some records or for some of those whom it stands for. */
type Spoken = 'surely' | 'perhaps' | 'not';

/**
 * What checks ask of a definition: what everybody gets at most, at any time and whatever their session holds. Made once
 * for a definition; all answers come from one matrix, with a row for all people who are alike.
 */
export class Context {
  readonly compiled: Compiled;
  readonly tree: Tree;
  /** Login states, roles and groups, then the people. */
  readonly viewers: readonly AskedViewer[];
  /** So many of them are no people: they come first. */
  private readonly kindCount: number;
  /** The day that it is there, `YYYY-MM-DD`. */
  readonly today: string;
  private readonly at: Circumstances;
  private readonly matrix: Uint8Array;
  private readonly width: number;
  private readonly accesses = new Map<number, Access>();
  private readonly speaking = new Map<string, Speaking>();
  private parts: Map<Id, AppElement[]> | undefined;
  private readonly both = new Map<string, boolean>();
  /** By an element's number, whether anybody gets it. */
  private readonly got: Uint8Array;

  constructor(
    readonly definition: Definition,
    /** All who may sign in; none where people are not known. */
    readonly people: readonly KeyedViewer[],
    readonly moment: number,
  ) {
    this.compiled = compile(definition);
    this.tree = this.compiled.tree;
    this.at = { moment, whenever: true };
    ({ today: this.today } = readClock(moment, definition.timeZone));
    const alike = new Map<string, KeyedViewer[]>();
    for (const one of people) {
      const key = this.compiled.keyOf(one.viewer, this.at);
      const some = alike.get(key);
      if (some) some.push(one);
      else alike.set(key, [one]);
    }
    const kinds = kindsOf(definition);
    this.kindCount = kinds.length;
    this.viewers = [
      ...kinds.map((one) => ({ ...one, alike: [one] })),
      ...[...alike.values()].map((some) => ({ ...(some[0] as KeyedViewer), alike: some })),
    ].map((one, row) => ({ ...one, row }));
    const asked = this.viewers.map(({ viewer }) => viewer);
    this.matrix = matrixOf(this.compiled, asked, this.at);
    this.width = this.tree.elements.length;
    this.got = new Uint8Array(this.width);
    for (let row = 0; row < asked.length; row++)
      for (let n = 0; n < this.width; n++) if (this.matrix[row * this.width + n] !== 0) this.got[n] = 1;
  }

  /** What a viewer gets of an element on every record, and at most on some. */
  answer({ row }: AskedViewer, element: AppElement): Answer {
    return unpacked(this.matrix[row * this.width + element.number] ?? 0);
  }

  /** The most that a viewer gets of an element, on any record. */
  most({ row }: AskedViewer, { number }: AppElement): Level {
    return unpackedMost(this.matrix[row * this.width + number] ?? 0);
  }

  /** Do the two get the same of everything? */
  sameRow(one: AskedViewer, other: AskedViewer): boolean {
    const [from, to] = [one.row * this.width, other.row * this.width];
    for (let n = 0; n < this.width; n++) if (this.matrix[from + n] !== this.matrix[to + n]) return false;
    return true;
  }

  /** Who gets something of an element, or what is asked of it. */
  whoGets(element: AppElement, from: Level = 1): AskedViewer[] {
    return this.viewers.filter((viewer) => this.most(viewer, element) >= from);
  }

  /** Does nobody get anything of an element? */
  nobodyGets({ number }: AppElement): boolean {
    return this.got[number] === 0;
  }

  /** Whoever is signed out. */
  get signedOut(): AskedViewer {
    return this.viewers[0] as AskedViewer;
  }

  /** Login states, roles and groups. */
  get kinds(): readonly AskedViewer[] {
    return this.viewers.slice(0, this.kindCount);
  }

  /** The people, where they are known: one for all who are alike. */
  get persons(): readonly AskedViewer[] {
    return this.viewers.slice(this.kindCount);
  }

  /** Are these more than half of those: of the people, where these are known, else of the kinds of viewers? */
  isMostOf(some: readonly AskedViewer[], of: readonly AskedViewer[]): boolean {
    const count = (viewers: readonly AskedViewer[]): number => {
      const persons = viewers.filter(({ row }) => row >= this.kindCount);
      return persons.reduce((sum, { alike }) => sum + alike.length, 0);
    };
    const people = count(of);
    return people > 0 ? count(some) > people / 2 : some.length > of.length / 2;
  }

  /** The viewer with this key, where it is a kind of viewer. */
  kind(key: string): AskedViewer | undefined {
    return this.viewers.find((one) => one.key === key);
  }

  /** Those of these keys that are kinds of viewers. */
  kindsOf(keys: readonly string[]): AskedViewer[] {
    return keys.flatMap((key) => this.kind(key) ?? []);
  }

  /** Whoever holds these roles. */
  roleKinds(roles: readonly { readonly id: Id }[]): AskedViewer[] {
    return this.kindsOf(roles.map(({ id }) => viewerKey('role', id)));
  }

  /** The most that the element's own gate and its containers give, whatever its door leaves of it. */
  mostByGate(viewer: AskedViewer, element: AppElement): Level {
    return this.accessOf(viewer).withMost((access) => answerOf(access.gateRule(element))).most;
  }

  /** The least that the element's own lines give, whatever it stands in; all, where it follows that. */
  leastByOwn(viewer: AskedViewer, element: AppElement): Level {
    const lines = this.compiled.lines(element.id);
    if (!lines) return EDIT;
    const access = this.accessOf(viewer);
    return answerOf(access.held.given(lines, this.compiled.scope(element))).least;
  }

  /** What these lines would give the viewer as the element's own, whatever it stands in. */
  givenBy(viewer: AskedViewer, element: AppElement, lines: readonly Line[]): Answer {
    const scope = this.compiled.scope(element);
    return this.accessOf(viewer).withMost((access) => answerOf(access.held.given(lines, scope)));
  }

  /** Does the viewer get more by the element's own lines with this one than without it? */
  gainsByLine(viewer: AskedViewer, element: AppElement, line: Line): boolean {
    const lines = this.compiled.lines(element.id) ?? [];
    const [now, without] = [lines, lines.filter((other) => other !== line)].map((some) =>
      this.givenBy(viewer, element, some),
    ) as [Answer, Answer];
    return now.most > without.most || now.least > without.least;
  }

  /** Does its own gate, rather than what it stands in, hide it from the viewer? */
  isHiddenByOwnLines(viewer: AskedViewer, element: AppElement): boolean {
    const { container } = element;
    return (
      this.compiled.lines(element.id) !== undefined &&
      this.mostByGate(viewer, element) === NONE &&
      (container === undefined || this.mostByGate(viewer, container) > NONE)
    );
  }

  accessOf({ row, viewer }: AskedViewer): Access {
    let access = this.accesses.get(row);
    if (!access) this.accesses.set(row, (access = accessOf(this.compiled, viewer, this.at)));
    return access;
  }

  /** Of whom a line with this *who* speaks: surely, or at least on some records or for some of whom one stands for. */
  spokenOf(who: Who, how: Exclude<Spoken, 'not'> = 'perhaps'): readonly AskedViewer[] {
    const spoken = this.spoken(who);
    return how === 'perhaps' ? spoken.all : spoken.all.filter(({ row }) => spoken.how[row] === how);
  }

  /** Is it so of all of whom a line with this *who* may speak? */
  allOf(who: Who, isSo: (viewer: AskedViewer) => boolean): boolean {
    return this.spoken(who).all.every(isSo);
  }

  /** Is there somebody among these of whom a line with this *who* may speak? */
  isSomebody(who: Who, among: readonly AskedViewer[]): boolean {
    const { how } = this.spoken(who);
    return among.some(({ row }) => how[row] !== 'not');
  }

  /** Is there somebody of whom lines with both of these may speak? */
  isSomebodyBoth(one: Who, other: Who): boolean {
    const key = `${subjectOf(one)} ${subjectOf(other)}`;
    let found = this.both.get(key);
    if (found === undefined) this.both.set(key, (found = this.isSomebody(one, this.spokenOf(other))));
    return found;
  }

  private spoken(who: Who): Speaking {
    const subject = subjectOf(who);
    let found = this.speaking.get(subject);
    if (!found) {
      const how = this.viewers.map((viewer): Spoken => {
        const access = this.accessOf(viewer);
        if (access.held.isSpokenOf(who)('be true') === true) return 'surely';
        return access.most.held.isSpokenOf(who)('be true') === false ? 'not' : 'perhaps';
      });
      found = { how, all: this.viewers.filter(({ row }) => how[row] !== 'not') };
      this.speaking.set(subject, found);
    }
    return found;
  }

  /** All that stands on a screen. */
  partsOf({ id }: { readonly id: Id }): readonly AppElement[] {
    if (!this.parts) {
      this.parts = new Map();
      for (const one of this.tree.elements) {
        if (!one.screen || one.kind === 'screen') continue;
        const there = this.parts.get(one.screen.id);
        if (there) there.push(one);
        else this.parts.set(one.screen.id, [one]);
      }
    }
    return this.parts.get(id) ?? [];
  }

  element(id: Id): AppElement | undefined {
    return this.tree.get(id);
  }

  /**
   * "People who are signed out, Registrar and above, and 4 more": kinds of viewers, or people where there is no kind among
   * them. Roles that are meant by others that are named are not named again.
   */
  names(viewers: readonly AskedViewer[]): string {
    const kinds = viewers.filter(({ row }) => row < this.kindCount);
    if (kinds.length === 0) return namesOf(viewers.flatMap(({ alike }) => alike.map(({ name }) => name)));
    const keys = new Set(kinds.map(({ key }) => key));
    if (keys.has(SIGNED_IN_KEY)) return keys.has(SIGNED_OUT_KEY) ? 'everyone' : 'everyone who is signed in';
    return namesOf(this.leading(kinds).map(({ viewer, andAbove }) => calledKind(viewer, andAbove)));
  }

  /** These kinds of viewers without those that are meant by others of them: a role and all roles above it are one. */
  leading(kinds: readonly AskedViewer[]): { readonly viewer: AskedViewer; readonly andAbove: boolean }[] {
    const keys = new Set(kinds.map(({ key }) => key));
    const { definition } = this;
    const above = (role: Id): Id[] =>
      definition.roles.flatMap(({ id }) =>
        id !== role && withIncluded(definition, [id]).has(role) ? [id] : [],
      );
    const isWhole = (role: Id): boolean => above(role).every((id) => keys.has(viewerKey('role', id)));
    const whole = definition.roles.filter(({ id }) => keys.has(viewerKey('role', id)) && isWhole(id));
    return kinds.flatMap((viewer) => {
      const role = idInKey('role', viewer.key);
      if (role === undefined) return [{ viewer, andAbove: false }];
      if (whole.some(({ id }) => above(id).includes(role))) return [];
      return [{ viewer, andAbove: above(role).length > 0 && isWhole(role) }];
    });
  }
}

function calledKind({ key, name }: AskedViewer, andAbove: boolean): string {
  if (key === SIGNED_OUT_KEY) return 'people who are signed out';
  if (idInKey('role', key) === undefined) return `the group ${name}`;
  return andAbove ? `${name} and above` : name;
}

/** "One, another and a third"; "One, another, a third and 4 more". */
export function namesOf(names: readonly string[]): string {
  const named = names.slice(0, MOST_NAMED);
  const more = names.length - named.length;
  if (more > 0) return `${named.join(', ')} and ${more} more`;
  return named.length < 2 ? named.join('') : `${named.slice(0, -1).join(', ')} and ${named.at(-1) ?? ''}`;
}

import type { Answer } from '@/core/access';
import type { Expectation } from '@/core/expectations';
import type { Finding } from '@/core/findings';
import type { ElementKind } from '@/core/model';
import type { Coverage, Surprise } from '@/core/sweep';
import { csv, json, jsonBeside, LARGE } from '../body';
import { ofApplication } from '../route';

const schemas = () => import('../schemas/proving');

/** The edit with which something came. */
export interface Since {
  readonly revision: number;
  readonly author: string;
  /** RFC 3339. */
  readonly at: string;
}

/** A finding as it is shown. */
export interface ShownFinding extends Omit<Finding, 'whom'> {
  readonly key: string;
  readonly title: string;
  /** Undefined where the edit is not known any more. */
  readonly since?: Since | undefined;
  readonly whom: {
    /** Keys of kinds of viewers. */
    readonly kinds: readonly string[];
    readonly people: number;
    /** The first few of the people. */
    readonly some: readonly { readonly key: string; readonly name: string }[];
  };
  /** Who does not mind it, and why. */
  readonly aside?: { readonly reason: string; readonly by: string; readonly at: string } | undefined;
}

/** An expectation that does not hold. */
interface ShownBroken {
  readonly id: string;
  /** What there is instead; undefined where its viewer, element or record is gone. */
  readonly is?: Answer | undefined;
  readonly since?: Since | undefined;
}

/** What is known of the newest revision that was looked through. */
export interface ProofState {
  readonly revision: number;
  readonly findings: readonly ShownFinding[];
  readonly broken: readonly ShownBroken[];
  readonly expected: number;
}

/** The counts that the bar shows. */
export interface ProofCounts {
  readonly revision: number;
  readonly lookAt: number;
  readonly letsIn: number;
  readonly broken: number;
  /** The expectations that were broken last, and whether by who asks. */
  readonly lately: readonly { readonly name: string; readonly revision: number; readonly mine: boolean }[];
}

/** With how much a release went out. */
export interface ReleaseCounts {
  readonly release: number;
  readonly findings: number;
  readonly letIn: number;
  readonly broken: number;
}

/** What owners set for proving. */
export interface ProofSettings {
  /** May a release break an expectation, with a reason? */
  readonly mayBreak: boolean;
  /** After how many days one is reminded of an old sign-off. */
  readonly remindDays: number | null;
}

/** An expectation as it is listed. */
export interface ListedExpectation extends Expectation {
  readonly id: string;
  /** Undefined where the viewer is gone. */
  readonly viewerName?: string | undefined;
  readonly by: string | null;
  /** RFC 3339. */
  readonly at: string;
}

/** A sweep as it is shown. */
export interface ShownSweep {
  readonly id: string;
  /** Null: of the draft at the revision. */
  readonly release: number | null;
  readonly revision: number;
  readonly whole: boolean;
  readonly state: 'waiting' | 'running' | 'stopping' | 'stopped' | 'done' | 'failed';
  readonly viewers: number;
  readonly ofViewers: number;
  readonly asked: number;
  readonly toAsk: number;
  readonly surprises: readonly Surprise[];
  /** Also those that are not kept one by one. */
  readonly surpriseCount: number;
  readonly covered: Coverage | null;
  /** Why it failed, in words. */
  readonly failure: string | null;
  readonly by: string | null;
  /** RFC 3339. */
  readonly at: string;
  readonly endedAt: string | null;
  /** How long it has worked, in milliseconds. */
  readonly worked: number;
}

/** What was signed off, as it is listed. */
export interface ListedSignOff {
  readonly id: string;
  readonly title: string;
  readonly revision: number;
  readonly release: number | null;
  /** The draft had been changed further when it was signed: the people are those of then, not those of its day. */
  readonly wasOld: boolean;
  readonly sha256: string;
  readonly by: string;
  /** RFC 3339. */
  readonly at: string;
}

/** Who made a change, and when. */
export interface ChangeInfo {
  /** All of them, the last one first; undefined where they are gone. */
  readonly author?: string | undefined;
  /** The last time, RFC 3339. */
  readonly at: string;
}

/** A cell that is another since something was signed off. */
export interface ComparedCell {
  readonly viewer: string;
  readonly viewerName: string;
  readonly element: string;
  /** In a sentence of its own. */
  readonly elementName: string;
  readonly kind: ElementKind;
  readonly before: Answer;
  readonly after: Answer;
  readonly gains: boolean;
  /** The edit that made it so, and what it changed in a sentence or two. */
  readonly edit?: (ChangeInfo & { readonly revision: number; readonly says: string }) | undefined;
  /** What is otherwise with the person, as what follows their name; by whom, where that was written down. */
  readonly person?: (Partial<ChangeInfo> & { readonly says: string }) | undefined;
}

/** The first of a list, and how many there are. */
export interface Listed<T> {
  readonly first: readonly T[];
  readonly count: number;
}

/** Whose level stays, and who gets other records of an element than before, or gets it at other times. */
interface ComparedOtherwise {
  readonly element: string;
  readonly elementName: string;
  readonly what: 'records' | 'times';
  /** The first of them by name. */
  readonly who: readonly string[];
  readonly count: number;
}

/** What differs from what was signed off. */
export interface Compared {
  readonly cells: readonly ComparedCell[];
  /** Of all, also those that are not among `cells`. */
  readonly gained: number;
  readonly lost: number;
  readonly otherwise: Listed<ComparedOtherwise>;
  /** All in which the two definitions differ. */
  readonly definition: Listed<{ readonly about: string; readonly done: readonly string[] }>;
  /** What is otherwise with people and their assignments. */
  readonly people: Listed<{ readonly name: string; readonly says: string }>;
}

/** What was found out about the newest revision; null while nothing was yet. */
export const proof = ofApplication('GET', '/proof', 'read').answers<ProofState | null>();

/** How much there is to look at, for the bar; null while nothing was looked through. */
export const proofCounts = ofApplication('GET', '/proof/counts', 'read').answers<ProofCounts | null>();

/** With how many findings and broken expectations each release went out. */
export const proofOverReleases = ofApplication('GET', '/proof/releases', 'read').answers<{
  readonly releases: readonly ReleaseCounts[];
}>();

/** Sets a finding aside; with null as its reason, it is there again. */
export const setFindingAside = ofApplication('PUT', '/proof/aside', 'change', {
  body: json(schemas, 'setFindingAsideSchema'),
});

/** What holds for releases and for what was signed off. */
export const proofSettings = ofApplication('GET', '/proof/settings', 'read').answers<ProofSettings>();

/** Sets that; it is in the audit trail. */
export const setProofSettings = ofApplication(
  'PATCH',
  '/proof/settings',
  { owner: 'can change what a release may break' },
  {
    body: json(schemas, 'setProofSettingsSchema'),
  },
);

/** All expectations. */
export const expectations = ofApplication('GET', '/expectations', 'read').answers<{
  readonly expectations: readonly ListedExpectation[];
}>();

/** Keeps some under a name; where no level is given, as it is in the draft now. */
export const addExpectations = ofApplication('POST', '/expectations', 'change', {
  body: jsonBeside(schemas, 'wantedSchema'),
  status: 201,
}).answers<{ readonly added: number }>();

/** From now on what there is now is expected. */
export const expectWhatIs = ofApplication('PATCH', '/expectations', 'change', {
  body: jsonBeside(schemas, 'againSchema'),
});

export const removeExpectations = ofApplication('DELETE', '/expectations', 'change', {
  body: json(schemas, 'removeExpectationsSchema', LARGE),
});

/** All expectations as CSV, in the columns of `zinc decide`. */
export const expectationsFile = ofApplication('GET', '/expectations/csv', 'read').answersWhole();

/** Adds the expectations of a CSV file: all or none. */
export const importExpectations = ofApplication('POST', '/expectations/csv', 'change', {
  body: csv(1_000_000),
  status: 201,
}).answers<{ readonly added: number }>();

/** The newest sweeps, with what they found. */
export const sweeps = ofApplication('GET', '/sweeps', 'read').answers<{
  readonly sweeps: readonly ShownSweep[];
}>();

/** Asks for a sweep of the release in force, or of the draft; `whole`: nothing is left out. */
export const startSweep = ofApplication('POST', '/sweeps', 'change', {
  body: json(schemas, 'startSweepSchema'),
  status: 201,
}).answers<{ readonly id: string }>();

/** Stops the sweep that is under way. */
export const stopSweep = ofApplication('DELETE', '/sweeps', 'change');

/** What was signed off, the last first. */
export const signOffs = ofApplication('GET', '/sign-offs', 'read').answers<{
  readonly signOffs: readonly ListedSignOff[];
}>();

/** Whoever may look may confirm what they saw; it changes nothing else. */
export const signOff = ofApplication('POST', '/sign-offs', 'read', {
  body: json(schemas, 'signOffSchema'),
  status: 201,
}).answers<{ readonly id: string }>();

/** What was signed off, as a file whose SHA-256 is the one that was kept. */
export const signOffFile = ofApplication('GET', '/sign-offs/:id', 'read').answersWhole();

/** What differs from it now, or in another one. */
export const compareSignOff = ofApplication(
  'POST',
  '/sign-offs/:id/compared?with',
  'read',
).answersByLine<Compared>();

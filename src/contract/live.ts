import type { Assignment } from '@/core/access';
import { json, LARGE } from './body';
import type { SignedIn } from './credentials';
import {
  type BeforeSaving,
  type Choice,
  type RecordDone,
  type RecordSent,
  type RecordsPage,
  type SentRecord,
} from './records';
import { ofLive } from './route';

const credentialsSchemas = () => import('./schemas/credentials');
const schemas = () => import('./schemas/live');
const recordsSchemas = () => import('./schemas/records');
const peopleSchemas = () => import('./schemas/people');

/** A person whom somebody looks after, as that one sees them. */
export interface ManagedPerson {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly active: boolean;
  readonly homeUnit: string | null;
  readonly assignments: readonly (Assignment & {
    readonly name: string;
    /** May the viewer take it away? */
    readonly mine: boolean;
  })[];
  /** May they be sent a link to choose a password, and may their email address be changed? */
  readonly link: boolean;
  readonly emailToo: boolean;
}

/** A role that may be handed out, and where: everywhere, or in these units. */
export interface RoleOffer {
  readonly id: string;
  readonly name: string;
  readonly everywhere: boolean;
  readonly units: readonly { readonly id: string; readonly name: string }[];
}

/** A page of the people whom somebody looks after, with what they may hand out. */
export interface CaredForPage {
  readonly people: readonly ManagedPerson[];
  readonly total: number;
  readonly offers: { readonly roles: readonly RoleOffer[]; readonly homeUnit: boolean };
}

/** Somebody as whom one may look. */
export interface StandInChoice {
  readonly id: string;
  readonly name: string;
  readonly roles: readonly string[];
}

/** Signs in. */
export const liveSignIn = ofLive('POST', '/session', {
  body: json(credentialsSchemas, 'credentialsSchema'),
}).answers<SignedIn>();

/** Signs out. */
export const liveSignOut = ofLive('DELETE', '/session');

/** Asks for an account. */
export const signUp = ofLive('POST', '/account', {
  body: json(schemas, 'signUpSchema'),
});

/** Chooses a password, by the link that was sent to somebody's address. */
export const choosePassword = ofLive('POST', '/account/password', {
  body: json(schemas, 'choosePasswordSchema'),
});

/** Joins a role that people may join by themselves. */
export const joinRole = ofLive('PUT', '/account/roles/:role');
/** Leaves it. */
export const leaveRole = ofLive('DELETE', '/account/roles/:role');

/** How a screen would be with the values as they are written. */
export const liveBeforeSaving = ofLive('POST', '/before-saving', {
  body: json(recordsSchemas, 'beforeSavingSchema'),
}).answers<BeforeSaving>();

/** The records of a list that can be chosen for a bulk change, with the search and filter of its page. */
export const liveChoices = ofLive('GET', '/lists/:list/bulk').answers<readonly Choice[]>();

/** Changes the same fields of the chosen records of a list: all of them, or none. */
export const liveBulk = ofLive('POST', '/lists/:list/bulk', {
  body: json(recordsSchemas, 'bulkSchema', LARGE),
}).answers<{
  readonly changed: number;
}>();

/** A list as CSV, whole, with the search, filter and sort of its page. */
export const liveListFile = ofLive('GET', '/lists/:list/export').answersWhole();

/** "I should be able to see this": a note to the builders. */
export const sendNote = ofLive('POST', '/notes', {
  body: json(schemas, 'sendNoteSchema'),
});

/** The people whom this one looks after, with what may be handed out. */
export const livePeople = ofLive('GET', '/people?q&role&units&state&sort&page&size').answers<CaredForPage>();
export const liveAddPerson = ofLive('POST', '/people', {
  body: json(peopleSchemas, 'personSchema'),
  status: 201,
}).answers<{
  readonly id: string;
}>();
export const liveChangePerson = ofLive('PATCH', '/people/:id', {
  body: json(peopleSchemas, 'personChangeSchema'),
});
/** Sends a person a link to choose a password. */
export const liveSendPersonLink = ofLive('POST', '/people/:id/link');
/** Lifts what makes a person wait to sign in, after wrong tries. */
export const liveLiftPersonWaits = ofLive('DELETE', '/people/:id/waits');

/** Records as the visitor has them. Every write names the version that its writer has seen (`If-Match`). */
export const liveRecords = {
  list: ofLive('GET', '/records/:entity?q&filter&sort&page&size').answers<RecordsPage>(),
  create: ofLive('POST', '/records/:entity', {
    body: json(recordsSchemas, 'valuesSchema'),
    status: 201,
  }).answers<SentRecord | RecordSent>(),
  read: ofLive('GET', '/records/:entity/:id').answers<SentRecord>(),
  update: ofLive('PATCH', '/records/:entity/:id', {
    body: json(recordsSchemas, 'valuesSchema'),
  }).answers<SentRecord>(),
  delete: ofLive('DELETE', '/records/:entity/:id'),
  act: ofLive('POST', '/records/:entity/:id/actions/:action').answers<SentRecord | RecordDone>(),
};

/** Presses a button that sets a session value. */
export const livePress = ofLive('POST', '/session-values', {
  body: json(recordsSchemas, 'pressSchema'),
});

/** As whom one may look. */
export const standInChoices = ofLive('GET', '/stand-in?q').answers<{
  readonly people: readonly StandInChoice[];
}>();
/** Begins to look as another person, or as the next. */
export const startStandIn = ofLive('POST', '/stand-in', {
  body: json(schemas, 'startStandInSchema'),
});
/** Back to oneself. */
export const stopStandIn = ofLive('DELETE', '/stand-in');

/** Opens one closed element of one record on this session's screen, by somebody who may, for a while. */
export const unlock = ofLive('POST', '/unlock', {
  body: json(schemas, 'unlockSchema'),
}).answers<{ readonly minutes: number }>();
/** Locks it again. */
export const lockAgain = ofLive('DELETE', '/unlock', {
  body: json(schemas, 'lockAgainSchema'),
});

import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  check,
  foreignKey,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  unique,
  uuid,
} from 'drizzle-orm/pg-core';
import type { Answer, MadeViewer, Person, Unlocked } from '@/core/access';
import type { Edit } from '@/core/edit';
import type { Expectation } from '@/core/expectations';
import type { Finding } from '@/core/findings';
import type { Coverage, Surprise } from '@/core/sweep';
import type { Definition, Value, Values } from '@/core/model';

/** A session value, until it ends (milliseconds since 1970). */
export interface HeldValue {
  readonly value: Value;
  readonly until: number;
}

/** One element that is unlocked for a session, by whom, and until when (milliseconds since 1970). */
export interface HeldUnlock extends Unlocked {
  readonly by: string;
  readonly until: number;
}

/** A finding as it is kept: whom it touches is shortened, and it is known since when it is there. */
export interface KeptFinding extends Omit<Finding, 'whom'> {
  readonly key: string;
  /** SHA-256 of what it rests on, in hexadecimal. */
  readonly basis: string;
  /** The revision in which it came. */
  readonly since: number;
  readonly whom: {
    /** Keys of kinds of viewers. */
    readonly kinds: readonly string[];
    readonly people: number;
    /** The first few of the people, by key and name. */
    readonly some: readonly { readonly key: string; readonly name: string }[];
  };
}

/** An expectation that does not hold. */
export interface BrokenExpectation {
  readonly id: string;
  /** What there is instead; undefined where its viewer, element or record is gone. */
  readonly is?: Answer | undefined;
  /** The revision that broke it. */
  readonly since: number;
}

const at = (name: string) => timestamp(name, { withTimezone: true }).notNull().defaultNow();

/** What this installation knows of itself: its short name, and whether it was seeded with the demo. */
export const installation = pgTable('installation', {
  /** Always 1: there is one row. */
  id: integer('id').primaryKey(),
  /** Part of the cookies' names, so that two installations on one host do not take each other's. */
  name: text('name').notNull(),
  /** The one password of all demo people. Null wherever the demo was not seeded. */
  demoPassword: text('demo_password'),
});

export const applications = pgTable(
  'applications',
  {
    id: text('id').primaryKey(),
    /** Its part of the address: `/live/<slug>`. */
    slug: text('slug').notNull().unique(),
    name: text('name').notNull(),
    /** The newest revision of the draft. */
    headRevision: integer('head_revision').notNull().default(0),
    /** The release in force. Null: never released. */
    release: integer('release'),
    /** The application of which this is the copy that a sweep asks: nobody works in it, and it goes with the sweep. */
    sweepOf: text('sweep_of'),
    /** By how many milliseconds its clock is ahead: that of a copy, while a sweep asks at another time. */
    clockAhead: bigint('clock_ahead', { mode: 'number' }).notNull().default(0),
    /** May a release break an expectation, with a reason? Else it is refused. */
    mayBreak: boolean('may_break').notNull().default(true),
    /** After so many days one is reminded that what was signed off is old. Null: never. */
    remindDays: integer('remind_days'),
    createdAt: at('created_at'),
  },
  (table) => [check('applications_clock', sql`${table.clockAhead} = 0 or ${table.sweepOf} is not null`)],
);

const applicationId = () =>
  text('application_id')
    .notNull()
    .references(() => applications.id, { onDelete: 'cascade' });

/** Addresses that an application had before: they lead on to the one that it has. */
export const formerAddresses = pgTable('former_addresses', {
  slug: text('slug').primaryKey(),
  applicationId: applicationId(),
});

export const builders = pgTable('builders', {
  id: uuid('id').primaryKey().defaultRandom(),
  email: text('email').notNull().unique(),
  name: text('name').notNull(),
  passwordHash: text('password_hash').notNull(),
  createdAt: at('created_at'),
});

/** Somebody who was let in to build an application, until they open their link. */
export const invitations = pgTable(
  'invitations',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    applicationId: applicationId(),
    email: text('email').notNull(),
    name: text('name').notNull(),
    role: text('role', { enum: ['owner', 'editor', 'reviewer'] }).notNull(),
    /** Who answers for it. When they lose the right to let builders in, it ends. */
    invitedBy: uuid('invited_by').notNull(),
    /** SHA-256 of the token in the link, in hexadecimal. */
    tokenHash: text('token_hash').notNull().unique(),
    expiresAt: timestamp('expires_at', { withTimezone: true }).notNull(),
  },
  (table) => [
    unique('invitations_email').on(table.applicationId, table.email),
    foreignKey({
      name: 'invitations_inviter',
      columns: [table.applicationId, table.invitedBy],
      foreignColumns: [memberships.applicationId, memberships.builderId],
    }).onDelete('cascade'),
  ],
);

/** What a builder may do with the live records in the look bench. The owner gives it. */
export const LIVE_RIGHTS = ['none', 'read', 'change'] as const;
export type LiveRight = (typeof LIVE_RIGHTS)[number];

/** What a builder may do with an application, and whom they keep in their rail. */
export const memberships = pgTable(
  'memberships',
  {
    applicationId: applicationId(),
    builderId: uuid('builder_id')
      .notNull()
      .references(() => builders.id, { onDelete: 'cascade' }),
    role: text('role', { enum: ['owner', 'editor', 'reviewer'] }).notNull(),
    pins: uuid('pins')
      .array()
      .notNull()
      .default(sql`'{}'`),
    /** May they look at the live records in the look bench, and may what they do there be kept? */
    live: text('live', { enum: LIVE_RIGHTS }).notNull().default('none'),
    /** May they manage the people of the application, and read the messages that go to them? */
    people: boolean('people').notNull().default(false),
    /** May they release? An owner may without it. */
    releases: boolean('releases').notNull().default(false),
    /** When they last had a bench of it open. Null: never since this is kept. */
    seenAt: timestamp('seen_at', { withTimezone: true }),
  },
  (table) => [primaryKey({ columns: [table.applicationId, table.builderId] })],
);

/** A draft's log. A revision is never changed once it is here. */
export const edits = pgTable(
  'edits',
  {
    applicationId: applicationId(),
    revision: integer('revision').notNull(),
    edit: jsonb('edit').$type<Edit>().notNull(),
    inverse: jsonb('inverse').$type<Edit>().notNull(),
    format: integer('format').notNull(),
    author: uuid('author')
      .notNull()
      .references(() => builders.id),
    undoes: integer('undoes'),
    redoes: integer('redoes'),
    /** Revisions that were to be taken back, or done again, before it, and no longer could be. */
    skips: integer('skips').array(),
    /** What its author's browser calls it: sent again, it is not done again. */
    request: uuid('request'),
    at: at('at'),
  },
  (table) => [
    primaryKey({ columns: [table.applicationId, table.revision] }),
    unique('edits_request').on(table.applicationId, table.author, table.request),
    index('edits_author').on(table.applicationId, table.author, table.revision),
  ],
);

export const snapshots = pgTable(
  'snapshots',
  {
    applicationId: applicationId(),
    revision: integer('revision').notNull(),
    definition: jsonb('definition').$type<Definition>().notNull(),
  },
  (table) => [primaryKey({ columns: [table.applicationId, table.revision] })],
);

export const releases = pgTable(
  'releases',
  {
    applicationId: applicationId(),
    number: integer('number').notNull(),
    /** The draft revision that was reviewed and released. */
    revision: integer('revision').notNull(),
    definition: jsonb('definition').$type<Definition>().notNull(),
    author: uuid('author').references(() => builders.id),
    /** What its maker said of it. */
    note: text('note').notNull().default(''),
    at: at('at'),
  },
  (table) => [primaryKey({ columns: [table.applicationId, table.number] })],
);

export const people = pgTable(
  'people',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    applicationId: applicationId(),
    email: text('email').notNull(),
    name: text('name').notNull(),
    /** Null until they have chosen one, by a link that was sent to their address. */
    passwordHash: text('password_hash'),
    active: boolean('active').notNull().default(true),
    /** Has a link that was sent to their address been opened? Until then the person is nobody. */
    confirmed: boolean('confirmed').notNull().default(true),
    homeUnit: text('home_unit'),
    /** Values of the builder's own attributes, by their id. */
    attributes: jsonb('attributes').$type<Values>().notNull().default({}),
    /** A screen's id: where this person lands, before what their roles say. */
    startScreen: text('start_screen'),
    createdAt: at('created_at'),
  },
  (table) => [
    unique('people_email').on(table.applicationId, table.email),
    index('people_name').on(table.applicationId, table.name, table.id),
  ],
);

/** A role given to a person, perhaps in one unit only, perhaps for a time: `[from, until)`. */
export const assignments = pgTable(
  'assignments',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    personId: uuid('person_id')
      .notNull()
      .references(() => people.id, { onDelete: 'cascade' }),
    roleId: text('role_id').notNull(),
    unitId: text('unit_id'),
    from: timestamp('from', { withTimezone: true }),
    until: timestamp('until', { withTimezone: true }),
  },
  (table) => [index('assignments_person').on(table.personId), index('assignments_role').on(table.roleId)],
);

/** A message that would be sent. Nothing leaves this machine: it is read here. */
export const outbox = pgTable(
  'outbox',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    applicationId: applicationId(),
    to: text('to').notNull(),
    subject: text('subject').notNull(),
    body: text('body').notNull(),
    /** The link in it, which is a key: shown only when asked for. */
    link: text('link'),
    /** Is it for a builder? Then no builder reads it but whose address it is: its link makes an account of that address. */
    forBuilder: boolean('for_builder').notNull().default(false),
    at: at('at'),
  },
  (table) => [index('outbox_at').on(table.applicationId, table.at)],
);

/** A link to choose a password, sent to a person's address. Whoever opens it has that address. */
export const confirmations = pgTable('confirmations', {
  /** SHA-256 of the token in the message, in hexadecimal. */
  tokenHash: text('token_hash').primaryKey(),
  personId: uuid('person_id')
    .notNull()
    .references(() => people.id, { onDelete: 'cascade' }),
  /** What they called themselves when they asked for it; it becomes their name once the link is opened. */
  name: text('name'),
  /** The builders who had it shown to them. When one of them loses the right to manage people, it opens nothing any more. */
  shownTo: uuid('shown_to')
    .array()
    .notNull()
    .default(sql`'{}'`),
  expiresAt: timestamp('expires_at', { withTimezone: true }).notNull(),
});

export const RECORD_KINDS = ['sample', 'live'] as const;
export type RecordKind = (typeof RECORD_KINDS)[number];

export const records = pgTable(
  'records',
  {
    applicationId: applicationId(),
    kind: text('kind', { enum: RECORD_KINDS }).notNull(),
    entity: text('entity').notNull(),
    id: text('id').notNull(),
    /** Counts the writes; the entity tag of the record. */
    version: integer('version').notNull().default(1),
    /** Values by the field's id; decimals as strings. */
    data: jsonb('data').$type<Values>().notNull(),
    createdAt: at('created_at'),
    updatedAt: at('updated_at'),
  },
  (table) => [
    primaryKey({ columns: [table.applicationId, table.kind, table.entity, table.id] }),
    // Finds what points to a record, before that record is deleted.
    index('records_data').using('gin', sql`${table.data} jsonb_path_ops`),
  ],
);

/**
 * Values as they were before their field came to hold another type: given back where it holds the first one again,
 * unless somebody has written another value since.
 */
export const keptValues = pgTable(
  'kept_values',
  {
    applicationId: applicationId(),
    kind: text('kind', { enum: RECORD_KINDS }).notNull(),
    entity: text('entity').notNull(),
    id: text('id').notNull(),
    field: text('field').notNull(),
    /** The type under which it was stored, by its key. */
    type: text('type').notNull(),
    value: jsonb('value').$type<Value>().notNull(),
    /** What it became; null: it did not fit. */
    became: jsonb('became').$type<Value>(),
  },
  (table) => [
    primaryKey({
      columns: [table.applicationId, table.kind, table.entity, table.id, table.field, table.type],
    }),
    foreignKey({
      name: 'kept_values_record',
      columns: [table.applicationId, table.kind, table.entity, table.id],
      foreignColumns: [records.applicationId, records.kind, records.entity, records.id],
    }).onDelete('cascade'),
  ],
);

/**
 * What was changed in one pane of the look bench: records as that pane has them, over the stored ones. Thrown
 * away with the pane.
 */
export const panes = pgTable(
  'panes',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    applicationId: applicationId(),
    builderId: uuid('builder_id')
      .notNull()
      .references(() => builders.id, { onDelete: 'cascade' }),
    kind: text('kind', { enum: RECORD_KINDS }).notNull(),
    usedAt: at('used_at'),
  },
  (table) => [index('panes_used').on(table.usedAt)],
);

export const paneRecords = pgTable(
  'pane_records',
  {
    paneId: uuid('pane_id')
      .notNull()
      .references(() => panes.id, { onDelete: 'cascade' }),
    entity: text('entity').notNull(),
    id: text('id').notNull(),
    version: integer('version').notNull(),
    /** Null: deleted in this pane. */
    data: jsonb('data').$type<Values>(),
    /** The version of the stored record that this stands over; null: it was made in this pane. */
    over: integer('over'),
    createdAt: at('created_at'),
  },
  (table) => [primaryKey({ columns: [table.paneId, table.entity, table.id] })],
);

/** A made-up viewer that builders have named and kept. */
export const madeViewers = pgTable('made_viewers', {
  id: uuid('id').primaryKey().defaultRandom(),
  applicationId: applicationId(),
  name: text('name').notNull(),
  viewer: jsonb('viewer').$type<MadeViewer>().notNull(),
});

/** "I should be able to see this": a note of somebody who was refused, with all that it was decided on. */
export const notes = pgTable(
  'notes',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    applicationId: applicationId(),
    personId: uuid('person_id').references(() => people.id, { onDelete: 'cascade' }),
    address: text('address').notNull(),
    /** The locked element, where it is about one. */
    element: text('element'),
    text: text('text').notNull(),
    release: integer('release').notNull(),
    session: jsonb('session').$type<Values>().notNull().default({}),
    at: at('at'),
    doneAt: timestamp('done_at', { withTimezone: true }),
  },
  (table) => [index('notes_open').on(table.applicationId, table.doneAt, table.at)],
);

/** What was found out about one revision of a draft: kept for the newest ones, and for those that were released. */
export const proofs = pgTable(
  'proofs',
  {
    applicationId: applicationId(),
    revision: integer('revision').notNull(),
    findings: jsonb('findings').$type<readonly KeptFinding[]>().notNull(),
    /** The expectations that did not hold, by id, with what there was instead. */
    broken: jsonb('broken').$type<readonly BrokenExpectation[]>().notNull().default([]),
    /** How many expectations there were. */
    expected: integer('expected').notNull().default(0),
    at: at('at'),
  },
  (table) => [primaryKey({ columns: [table.applicationId, table.revision] })],
);

/** A finding that a builder does not mind, until what it rests on changes. */
export const setAside = pgTable(
  'set_aside',
  {
    applicationId: applicationId(),
    /** What tells it from other findings (`keyOfFinding`). */
    key: text('key').notNull(),
    /** SHA-256 of what it rested on, in hexadecimal. */
    basis: text('basis').notNull(),
    reason: text('reason').notNull(),
    author: uuid('author')
      .notNull()
      .references(() => builders.id),
    at: at('at'),
  },
  (table) => [primaryKey({ columns: [table.applicationId, table.key] })],
);

/** Who should get what. */
export const expectations = pgTable(
  'expectations',
  {
    applicationId: applicationId(),
    id: uuid('id').primaryKey().defaultRandom(),
    expectation: jsonb('expectation').$type<Expectation>().notNull(),
    author: uuid('author').references(() => builders.id),
    at: at('at'),
  },
  (table) => [index('expectations_application').on(table.applicationId)],
);

export const SWEEP_STATES = ['waiting', 'running', 'stopping', 'stopped', 'done', 'failed'] as const;

/** A sweep: what was asked of the running server, and what came otherwise than the core says. */
export const sweeps = pgTable(
  'sweeps',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    applicationId: applicationId(),
    /** Null: the draft at the revision. */
    release: integer('release'),
    revision: integer('revision').notNull(),
    /** Was nothing left out for being like what somebody else was asked? */
    whole: boolean('whole').notNull().default(false),
    state: text('state', { enum: SWEEP_STATES }).notNull().default('waiting'),
    /** The id of the copy that is asked, while there is one. */
    copy: text('copy'),
    /** How many viewers are done, and of how many; how many requests were made, and about how many there will be. */
    viewers: integer('viewers').notNull().default(0),
    ofViewers: integer('of_viewers').notNull().default(0),
    asked: integer('asked').notNull().default(0),
    toAsk: integer('to_ask').notNull().default(0),
    surprises: jsonb('surprises').$type<readonly Surprise[]>().notNull().default([]),
    /** Also those that are not kept one by one. */
    surpriseCount: integer('surprise_count').notNull().default(0),
    covered: jsonb('covered').$type<Coverage>(),
    /** Why it failed, in words. */
    failure: text('failure'),
    builderId: uuid('builder_id').references(() => builders.id),
    at: at('at'),
    /** While it works, how long it has worked, in milliseconds; and when it ended. */
    worked: integer('worked').notNull().default(0),
    endedAt: timestamp('ended_at', { withTimezone: true }),
  },
  (table) => [index('sweeps_application').on(table.applicationId, table.at)],
);

/** The access of one revision as somebody confirmed it: only ever added to. */
export const signOffs = pgTable(
  'sign_offs',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    applicationId: applicationId(),
    title: text('title').notNull(),
    revision: integer('revision').notNull(),
    /** The release of that revision, where there is one. */
    release: integer('release'),
    definition: jsonb('definition').$type<Definition>().notNull(),
    /** Everybody there was, with their roles. */
    people: jsonb('people').$type<readonly Person[]>().notNull(),
    /** SHA-256 of all the above as canonical JSON (RFC 8785), in hexadecimal. */
    sha256: text('sha256').notNull(),
    author: uuid('author')
      .notNull()
      .references(() => builders.id),
    at: at('at'),
  },
  (table) => [index('sign_offs_application').on(table.applicationId, table.at)],
);

export const sessions = pgTable(
  'sessions',
  {
    /** SHA-256 of the token, in hexadecimal. The token itself is only in the cookie. */
    tokenHash: text('token_hash').primaryKey(),
    audience: text('audience', { enum: ['studio', 'live'] }).notNull(),
    builderId: uuid('builder_id').references(() => builders.id, { onDelete: 'cascade' }),
    applicationId: text('application_id'),
    personId: uuid('person_id').references(() => people.id, { onDelete: 'cascade' }),
    createdAt: at('created_at'),
    expiresAt: timestamp('expires_at', { withTimezone: true }).notNull(),
    /** Session values by id, each with the moment (milliseconds since 1970) at which it ends. */
    values: jsonb('values').$type<Record<string, HeldValue>>().notNull().default({}),
    /** What others have unlocked for this session. */
    unlocked: jsonb('unlocked').$type<HeldUnlock[]>().notNull().default([]),
    /** As whom this person looks, standing in for them, and until when. */
    standingFor: uuid('standing_for').references(() => people.id, { onDelete: 'set null' }),
    standingUntil: timestamp('standing_until', { withTimezone: true }),
  },
  (table) => [
    foreignKey({ columns: [table.applicationId], foreignColumns: [applications.id] }).onDelete('cascade'),
    index('sessions_person').on(table.personId),
    index('sessions_expires').on(table.expiresAt),
    check(
      'sessions_audience',
      sql`(${table.audience} = 'studio' and ${table.builderId} is not null and ${table.personId} is null)
       or (${table.audience} = 'live' and ${table.builderId} is null and ${table.personId} is not null and ${table.applicationId} is not null)`,
    ),
  ],
);

/** Failed signings-in, and those being tried: into whose account, and from where. */
export const signInAttempts = pgTable(
  'sign_in_attempts',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    account: text('account').notNull(),
    /** An address of the network, or a device that signed in to this account before. */
    source: text('source').notNull().default(''),
    /** Has whose account it is been told? */
    told: boolean('told').notNull().default(false),
    at: at('at'),
  },
  (table) => [
    index('sign_in_attempts_account').on(table.account, table.at),
    index('sign_in_attempts_source').on(table.source, table.at),
  ],
);

/** When somebody last let an account do without the waits after wrong tries. Tries before that count for it no more. */
export const liftedWaits = pgTable('lifted_waits', {
  account: text('account').primaryKey(),
  at: at('at'),
});

/** Devices that have signed in to an account: others' wrong tries do not slow them down. */
export const devices = pgTable(
  'devices',
  {
    /** SHA-256 of the token in the device's cookie, in hexadecimal. */
    tokenHash: text('token_hash').notNull(),
    account: text('account').notNull(),
    usedAt: at('used_at'),
  },
  (table) => [primaryKey({ columns: [table.tokenHash, table.account] })],
);

/** Who did what. Values of records are never in it. */
export const auditEvents = pgTable(
  'audit_events',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    applicationId: text('application_id'),
    at: at('at'),
    builderId: uuid('builder_id'),
    personId: uuid('person_id'),
    /** Who did it, standing in for that person. */
    standingIn: uuid('standing_in'),
    what: text('what').notNull(),
    detail: jsonb('detail').$type<Record<string, string | number>>().notNull().default({}),
  },
  (table) => [index('audit_events_at').on(table.applicationId, table.at)],
);

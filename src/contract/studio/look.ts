import type { Explanation, KeptViewer, LookPage } from '@/core/access';
import type { Edit, EditEffect } from '@/core/edit';
import type { Definition, Id, Value } from '@/core/model';
import { json, LARGE } from '../body';
import {
  type BeforeSaving,
  type Choice,
  type RecordDone,
  type RecordSent,
  type RecordsPage,
  type SentRecord,
} from '../records';
import { ofApplication } from '../route';

const recordsSchemas = () => import('../schemas/records');
const schemas = () => import('../schemas/look');

/** A change of the draft that gives a viewer a level, and who else would gain or lose by it. */
export interface SuggestedChange {
  readonly edit: Edit;
  readonly gates: readonly string[];
  readonly effect: EditEffect;
}

/** A record to look at. */
export interface Sample {
  readonly id: string;
  readonly label: string;
  /** What tells it from others of the same name. */
  readonly more: string;
}

// How one looks (viewer, on, moment, session, records, pane, taken) is in the query of all of these.

/** The page that a viewer has at an address. */
export const lookPage = ofApplication('GET', '/look', 'read').answers<LookPage>();

/** Why the viewer has that level there: `element`, `address`, `row`. */
export const lookWhy = ofApplication('GET', '/look/why', 'read').answers<Explanation>();

/** The smallest changes that give the viewer that level there: `element`, `address`, `row`, `level`. */
export const lookTurns = ofApplication('GET', '/look/turn', 'read').answers<{
  readonly turns: readonly SuggestedChange[];
}>();

/** An older draft or a release, to draw what is left out of its screens. */
export const lookDefinition = ofApplication('GET', '/look/definition?on', 'read').answers<{
  readonly definition: Definition;
  readonly revision?: number;
}>();

/** How a screen would be with the values as they are written: decided as in a release, for the viewer of a pane. */
export const lookBeforeSaving = ofApplication('POST', '/look/before-saving', 'read', {
  body: json(recordsSchemas, 'beforeSavingSchema'),
}).answers<BeforeSaving>();

/** Presses a button that sets a session value: decided as in a release. The pane holds what it sets. */
export const lookPress = ofApplication('POST', '/look/press', 'read', {
  body: json(recordsSchemas, 'pressSchema'),
}).answers<{
  readonly id: Id;
  readonly to: Value | null;
  readonly minutes: number;
}>();

/** The records of a list that can be chosen for a bulk change. */
export const lookChoices = ofApplication('GET', '/look/lists/:list/bulk', 'read').answers<
  readonly Choice[]
>();

/** Changes the same fields of the chosen records of a list: all of them, or none. */
export const lookBulk = ofApplication('POST', '/look/lists/:list/bulk', 'read', {
  body: json(recordsSchemas, 'bulkSchema', LARGE),
}).answers<{ readonly changed: number }>();

/** A list as CSV, with the search, filter and sort of its page. */
export const lookListFile = ofApplication('GET', '/look/lists/:list/export', 'read').answersWhole();

/** Records as the viewer has them. What is written stays in the pane, or is forgotten without one. */
export const lookRecords = {
  list: ofApplication('GET', '/look/records/:entity', 'read').answers<RecordsPage>(),
  create: ofApplication('POST', '/look/records/:entity', 'read', {
    body: json(recordsSchemas, 'valuesSchema'),
    status: 201,
  }).answers<SentRecord | RecordSent>(),
  read: ofApplication('GET', '/look/records/:entity/:id', 'read').answers<SentRecord>(),
  update: ofApplication('PATCH', '/look/records/:entity/:id', 'read', {
    body: json(recordsSchemas, 'valuesSchema'),
  }).answers<SentRecord>(),
  delete: ofApplication('DELETE', '/look/records/:entity/:id', 'read'),
  act: ofApplication('POST', '/look/records/:entity/:id/actions/:action', 'read').answers<
    SentRecord | RecordDone
  >(),
};

/** Records of an entity by name, to look at. */
export const samples = ofApplication('GET', '/samples?entity&records&q', 'read').answers<{
  readonly samples: readonly Sample[];
}>();

/** Keeps what was changed in a pane, for everybody. */
export const keepPane = ofApplication('POST', '/panes/:id', 'change').answers<{ readonly kept: number }>();

/** Throws a pane's changes away. */
export const throwPaneAway = ofApplication('DELETE', '/panes/:id', 'read');

/** The made-up viewers that were named and kept. */
export const keptViewers = ofApplication('GET', '/viewers', 'read').answers<{
  readonly viewers: readonly KeptViewer[];
}>();

/** Keeps a made-up viewer under a name, for all builders of the application. */
export const keepViewer = ofApplication('POST', '/viewers', 'change', {
  body: json(schemas, 'keepViewerSchema'),
  status: 201,
}).answers<{ readonly id: string }>();

/** Forgets a made-up viewer. */
export const forgetViewer = ofApplication('DELETE', '/viewers/:id', 'change');

/** How many notes of people who should see something wait. */
export const notesWaiting = ofApplication('GET', '/notes', 'read').answers<{ readonly waiting: number }>();

/** Marks a note as dealt with. */
export const closeNote = ofApplication('DELETE', '/notes/:id', 'change');

import type { WhoGetsNamed } from '@/core/access';
import type { Edit, EditEffect, UndoState } from '@/core/edit';
import { json, jsonBeside } from '../body';
import { ofApplication } from '../route';

const schemas = () => import('../schemas/draft');

/** An edit of the draft as it was stored. */
export interface Revision {
  readonly revision: number;
  readonly edit: Edit;
  readonly author: string;
  /** RFC 3339. */
  readonly at: string;
}

/** What has come to the draft since a revision, and what one's own undo and redo would act on. */
export interface DraftNews {
  readonly since: readonly Revision[];
  readonly standing: UndoState;
}

/** How many of how many a condition is true for, and some of them by name. */
export interface Count {
  readonly hits: number;
  readonly of: number;
  readonly examples: readonly string[];
}

/** What trying a condition tells. */
export interface ConditionPreview {
  readonly people: Count;
  /** Absent where no record is asked of. */
  readonly records?: Count;
}

/** What is found by words. */
export interface FoundByName {
  readonly elements: readonly { readonly id: string; readonly name: string; readonly place: string }[];
  readonly viewers: readonly { readonly key: string; readonly name: string }[];
  readonly people: readonly { readonly id: string; readonly name: string }[];
}

/** What has come since a revision. */
export const draftSince = ofApplication('GET', '/draft?since', 'read').answers<DraftNews>();

/**
 * Makes an edit, undoes one or redoes one. Answers when it is stored, with all that came since `base`. Sent again under
 * the same `request` it is not done again.
 */
export const changeDraft = ofApplication('POST', '/draft', 'change', {
  body: jsonBeside(schemas, 'changeSchema'),
}).answers<DraftNews & { readonly said?: string | undefined }>();

/** What an edit of the draft would change, before it is made: who gains and who loses what. */
export const effectOfEdit = ofApplication('POST', '/effect', 'read', {
  body: jsonBeside(schemas, 'editToTrySchema'),
}).answers<EditEffect>();

/** For how many people and sample records a condition is true now, with examples. */
export const tryCondition = ofApplication('POST', '/try', 'read', {
  body: jsonBeside(schemas, 'conditionToTrySchema'),
}).answers<ConditionPreview>();

/** Who gets this element of the draft, by way in, with names. */
export const whoGets = ofApplication('GET', '/who-gets/:element', 'read').answers<WhoGetsNamed>();

/** Elements, viewers and people that have these words in their names. */
export const findByName = ofApplication('GET', '/find?q', 'read').answers<FoundByName>();

/** The draft as a definition file. */
export const definitionFile = ofApplication('GET', '/definition', 'read').answersWhole();

/** The grid as CSV (RFC 4180): an element a row, a viewer a column, each level in words. */
export const gridFile = ofApplication('GET', '/grid/csv', 'read').answersWhole();

/** What happens to the application, as server-sent events. It says that, and nothing more. */
export const news = ofApplication('GET', '/news', 'read').answersWhole();

/** Moves the application to another address. The old one leads on. */
export const changeApplicationAddress = ofApplication(
  'PATCH',
  '',
  { owner: 'can change its address' },
  {
    body: json(schemas, 'moveApplicationSchema'),
  },
);

/** Deletes the application with all that is in it. Its name is typed, so that it is that one. */
export const deleteApplication = ofApplication(
  'DELETE',
  '',
  { owner: 'can delete it' },
  {
    body: json(schemas, 'deleteApplicationSchema'),
  },
);

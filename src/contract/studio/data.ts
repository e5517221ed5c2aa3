import type { DataChange } from '@/core/edit';
import type { DataPage, Imported } from '@/core/making';
import { form, json, jsonBeside } from '../body';
import { ofRecords } from '../route';

const recordsSchemas = () => import('../schemas/records');
const schemas = () => import('../schemas/data');

/** Of how many records, how many have a value in each field. */
export interface Filled {
  readonly all: number;
  readonly filled: Readonly<Record<string, number>>;
}

// Each is about sample records, or with `records=live` about live ones: those take a right that the owner gives.

/** Records as CSV. */
export const recordsFile = ofRecords('GET', '?records', 'read').answersWhole();

/** Records as a table. */
export const dataRows = ofRecords('GET', '/rows?records&q&filter&sort&page', 'read').answers<DataPage>();

/** In how many records each field has a value. */
export const dataFilled = ofRecords('GET', '/filled?records', 'read').answers<Filled>();

/** The different values in a field, where they are few; else null. */
export const dataDistinct = ofRecords('GET', '/distinct/:field?records', 'read').answers<{
  readonly values: readonly string[] | null;
}>();

/** Adds a record. */
export const addRow = ofRecords('POST', '/rows?records', 'change', {
  body: json(recordsSchemas, 'valuesSchema'),
  status: 201,
}).answers<{ readonly id: string }>();

/** Gives records the same values in some fields, all of them or none. */
export const changeRows = ofRecords('PATCH', '/rows?records', 'change', {
  body: json(schemas, 'changeRowsSchema'),
});

/** Deletes records, all of them or none. */
export const deleteRows = ofRecords('DELETE', '/rows?records', 'change', {
  body: json(schemas, 'deleteRowsSchema'),
});

/**
 * Takes the rows of a CSV file over as records (`files`, one). With `dry` it only says what would come of it; with
 * `leave-out`, cells that do not fit are left empty.
 */
export const importRecords = ofRecords('POST', '/csv?records', 'change', {
  body: form,
}).answersByLine<Imported>();

/** Fills in made-up records. */
export const makeUpRecords = ofRecords('POST', '/made-up?records', 'change', {
  body: json(schemas, 'makeUpRecordsSchema'),
});

/** Takes all sample records over as live ones, where nothing is live yet. */
export const takeOverSamples = ofRecords('POST', '/take-over?records', 'change').answers<{
  readonly count: number;
}>();

/** What would become of the records if a field held another type. Nothing is changed. */
export const turnedRecords = ofRecords('POST', '/turned?records', 'read', {
  body: jsonBeside(schemas, 'turnedSchema'),
}).answers<{ readonly changes: readonly DataChange[] }>();

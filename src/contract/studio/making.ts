import type { CellKind } from '@/core/making';
import { form, json, jsonBeside } from '../body';
import { ofStudio } from '../route';

const schemas = () => import('../schemas/making');

/** What a column of a sheet holds, by all its rows. */
export interface LookedColumn {
  readonly name: string;
  /** A heading made from its name. */
  readonly title: string;
  readonly as: CellKind;
  readonly needed: boolean;
  readonly empty: number;
  readonly key: boolean;
  readonly examples: readonly string[];
  readonly misfits: readonly { readonly line: number; readonly cell: string }[];
  readonly misfitCount: number;
}

/** A sheet, with its columns. */
export interface LookedSheet {
  readonly name: string;
  readonly plural: string;
  readonly rows: number;
  readonly columns: readonly LookedColumn[];
}

/** What was found in sheets. */
export interface Looked {
  readonly sheets: readonly LookedSheet[];
  /** The currency whose sign stands beside money. */
  readonly currency?: string | undefined;
}

/** A table of another database. */
export interface Table {
  readonly schema: string;
  readonly name: string;
  /** About how many rows it has, as its database believes; undefined where it does not know. */
  readonly rows?: number;
  readonly columns: number;
}

/** Makes an application from nothing, as a copy of one, or from a definition file. */
export const makeApplication = ofStudio('POST', '/making', 'builder', {
  body: jsonBeside(schemas, 'makingSchema', 1_400_000),
  status: 201,
}).answers<{ readonly slug: string }>();

/** Files that come with Zinc Gate, for who has none at hand. */
export const sampleSheets = ofStudio('GET', '/making/samples', 'builder').answers<{
  readonly files: readonly { readonly name: string; readonly text: string }[];
}>();

/** What the columns of CSV files hold, by all their rows; with `kinds`, how they would be as those. Nothing is stored. */
export const lookAtSheets = ofStudio('POST', '/making/look', 'builder', { body: form }).answers<Looked>();

/** Makes an application from CSV files or tables: all of it, or nothing. */
export const makeFromSheets = ofStudio('POST', '/making/sheets', 'builder', { body: form }).answersByLine<{
  readonly viewer?: string | undefined;
}>();

/** The tables of another database, by a connection that is used for this and not kept. */
export const tablesOf = ofStudio('POST', '/making/tables', 'builder', {
  body: json(schemas, 'tablesOfSchema'),
}).answers<{ readonly tables: readonly Table[] }>();

import * as yup from 'yup';
import { SETTINGS } from '../model/schema';
import { exactly, listOf, oneOf, type Shape } from '../model/shape';
import type { SheetChoice } from './application';
import { DAY_ORDERS, type CellKind } from './cell';

const place = yup.number().integer().min(0).max(1000).required('is missing');

/** What a column is read as. */
const cellKind: Shape<CellKind> = oneOf('kind', {
  text: {},
  long: {},
  choice: {},
  boolean: {},
  money: {},
  number: { decimals: yup.number().integer().min(0).max(6).required('is missing') },
  date: { order: yup.string().oneOf(DAY_ORDERS).required('is missing') },
  points: { sheet: place, column: place },
  left: {},
});

const MOST_SHEETS = 20;
const MOST_COLUMNS = 200;

/** What each column of each sheet is to be looked at as. */
export const kindsSchema = listOf(listOf(cellKind, MOST_COLUMNS), MOST_SHEETS);

const { name, language, currency, timeZone } = SETTINGS;
const column = exactly({ name, as: cellKind, needed: yup.boolean().required('is missing') });
const sheet: Shape<SheetChoice> = exactly({ name, plural: name, columns: listOf(column, MOST_COLUMNS) });

/** How a new application is called, and what it tells values in. */
export const mannersSchema = exactly({ name, language, currency, timeZone });
/** The same, with what its sheets become. */
export const sheetsSchema = exactly({
  name,
  language,
  currency,
  timeZone,
  sheets: listOf(sheet, MOST_SHEETS),
});

/** Making applications: from nothing, and from rows of data. */
export {
  applicationFrom,
  emptyApplication,
  type ApplicationFromSheets,
  type SheetChoice,
} from './application';
export { type CellKind } from './cell';
export { currencyIn, guessSheets, lookAt } from './guess';
export { addressFrom, namesOf, titled } from './names';
export { madeUp, type PointedTo } from './made-up';
export { Random } from './random';
export { recordsFrom, type MadeRecord } from './records';
export { kindsSchema, mannersSchema, sheetsSchema } from './schema';
export { type Sheet, type SheetRow } from './sheet';
export type { DataPage, DataRow, Imported } from './import-types';

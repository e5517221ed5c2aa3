import type { Definition } from '../model/definition';
import { newId, type Id } from '../model/id';
import type { Value, Values } from '../model/value-type';
import type { ApplicationFromSheets, SheetChoice } from './application';
import { valueIn } from './cell';
import { cellsOf, type Sheet } from './sheet';

export interface MadeRecord {
  readonly entity: Id;
  readonly id: Id;
  readonly values: Values;
}

/**
 * The rows of sheets as records of what was made from them, in their order. What does not fit its field is left
 * empty: the builder has seen it before.
 */
export function* recordsFrom(
  { definition, sheets: made }: ApplicationFromSheets,
  sheets: readonly Sheet[],
  choices: readonly SheetChoice[],
  today: string,
  id: () => Id = newId,
): Generator<MadeRecord> {
  const ids = sheets.map((sheet) => sheet.rows.map(() => id()));
  /** For each column that is pointed to: which record has which text there. */
  const keys = new Map<string, ReadonlyMap<string, Id>>();
  const keysOf = (sheet: number, column: number): ReadonlyMap<string, Id> => {
    const at = `${sheet} ${column}`;
    let found = keys.get(at);
    if (!found) {
      const cells = cellsOf(sheets[sheet] as Sheet, column);
      keys.set(at, (found = new Map(cells.map((cell, n) => [cell, ids[sheet]?.[n] as Id]))));
    }
    return found;
  };
  for (const [s, sheet] of sheets.entries()) {
    const { entity, fields } = made[s] as ApplicationFromSheets['sheets'][number];
    const options = optionsOf(definition, entity);
    for (const [n, { cells }] of sheet.rows.entries()) {
      const values: Record<Id, Value> = {};
      for (const [c, field] of fields.entries()) {
        const as = choices[s]?.columns[c]?.as;
        const cell = cells[c]?.trim() ?? '';
        if (!as || field === undefined || cell === '') continue;
        const value =
          as.kind === 'points'
            ? keysOf(as.sheet, as.column).get(cell)
            : as.kind === 'choice'
              ? options.get(field)?.get(cell)
              : valueIn(cell, as, today);
        if (value !== undefined) values[field] = value;
      }
      yield { entity, id: ids[s]?.[n] as Id, values };
    }
  }
}

function optionsOf({ entities }: Definition, id: Id): ReadonlyMap<Id, ReadonlyMap<string, Id>> {
  const entity = entities.find((one) => one.id === id);
  return new Map(
    entity?.fields.flatMap(({ id: field, type }) =>
      type.kind === 'choice'
        ? [[field, new Map(type.options.map((one) => [one.name, one.id]))] as const]
        : [],
    ),
  );
}

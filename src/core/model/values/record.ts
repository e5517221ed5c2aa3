import * as yup from 'yup';
import type { ValueType } from '../value-type';
import type { Names, ValueKind } from './kind';

type RecordType = Extract<ValueType, { kind: 'record' }>;

const called = ({ entity }: RecordType, { entities }: Pick<Names, 'entities'>): string =>
  entities.find((one) => one.id === entity)?.name ?? 'an entity';

/** Points to a record, by its id. What that is called has doors of its own, so it is not shown from here. */
export const RECORD: ValueKind<RecordType> = {
  form: 'text',
  literal: 'id',
  family: 'record',
  asks: 'equality',
  oneOf: true,
  comparable: (a, b) => a.entity === b.entity,
  sentence: (type, names) => `a record of ${called(type, names)}`,
  constant: (value) => (/^[A-Za-z0-9_-]{1,64}$/.test(value) ? value : undefined),
  example: '#id',
  start: () => '',
  choices: ({ entities }) =>
    entities.map((entity) => [`Reference to ${entity.name}`, { kind: 'record', entity: entity.id }]),
  label: (type, names) => `reference to ${called(type, names)}`,
  schema: () => yup.string().max(40, 'Choose one of the records.'),
  key: ({ entity }) => entity,
  show: String,
  reader:
    ({ entity }, { pointing }) =>
    (text) =>
      pointing.labelOf(entity, text) === undefined ? pointing.called(entity, text) : text,
};

import { type Access, type KnownRecord, showField } from '@/core/access';
import type { AppElement, Entity, EntityField } from '@/core/model';
import { behindTopic, NOT_THERE } from '@/core/sweep';
import type { Asking } from '../asker';
import {
  type SweepContext,
  base,
  type Case,
  doorsOf,
  levelsOn,
  MISSING_ID,
  ofEachSort,
  recordsOf,
} from './case';

/** What the API lists of a kind of data, records of each sort, and what can be asked of the list. */
export function* reading(asked: SweepContext, entity: Entity): Generator<Case> {
  const { access } = asked;
  const topic = behindTopic(access.compiled, entity.id);
  yield* asked.once(`${entity.id} read`, [access.element(entity.id)], topic, () =>
    listAndRecords(asked, entity),
  );
  for (const field of entity.fields) {
    const doors = [entity, field].map(({ id }) => access.element(id));
    yield* asked.once(`${field.id} asked`, doors, doors, () => byField(asked, entity, field));
  }
}

function* listAndRecords(asked: SweepContext, entity: Entity): Generator<Case> {
  const { copy, predictor } = asked;
  yield { asking: listOf(asked, entity), reads: 'api', predicted: predictor.all(entity), about: entity.id };
  const records = ofEachSort(asked, recordsOf(asked, entity.id), (one) =>
    levelsOn(asked, doorsOf(asked, entity), one),
  );
  for (const { id, predicted } of [
    { id: MISSING_ID, predicted: NOT_THERE },
    ...records.map((one) => ({ id: one.id, predicted: predictor.one(one) })),
  ])
    yield {
      asking: { path: `${base(copy)}/api/records/${entity.id}/${id}` },
      reads: 'api',
      predicted,
      about: entity.id,
      ...(predicted.is === 'not-there' && { alike: { to: `read ${entity.id}`, but: id } }),
    };
}

const listOf = ({ copy }: SweepContext, { id }: Entity, query = ''): Asking => ({
  path: `${base(copy)}/api/records/${id}?size=100${query}`,
});

/** Sorted, filtered and searched by one field: who may not see it must not learn of it like that. */
function* byField(asked: SweepContext, entity: Entity, field: EntityField): Generator<Case> {
  const { access, predictor } = asked;
  const element = access.element(field.id);
  const own = recordsOf(asked, entity.id);
  const about = field.id;
  const sorted = listOf(asked, entity, `&sort=-${field.id}`);
  const filtered = listOf(asked, entity, `&filter=${encodeURIComponent(`record.#${field.id} is empty`)}`);
  const all = predictor.all(entity);
  if (all.is === 'open' && access.answer(element).most === 0) {
    // As a field that does not exist.
    yield { asking: sorted, refused: true, about };
    yield { asking: filtered, refused: true, about };
  } else if (access.level(element, undefined) > 0) {
    yield { asking: sorted, reads: 'api', predicted: all, about };
    // Who asks for a field that is hidden on a record does not learn of that record.
    const empty = predictor.all(
      entity,
      (record) => access.level(element, record) > 0 && (record.values[field.id] ?? null) === null,
    );
    if (field.type.kind !== 'record') yield { asking: filtered, reads: 'api', predicted: empty, about };
  }
  const mark = own[0]?.values[field.id];
  if (field.type.kind === 'text' && typeof mark === 'string')
    yield {
      asking: listOf(asked, entity, `&q=${encodeURIComponent(mark)}`),
      reads: 'api',
      predicted: predictor.all(entity, (record) => findsIn(access, record, mark)),
      about,
    };
}

/** Is the word anywhere in what the viewer sees of the record's words, and of the names of what it points to? */
const findsIn = (access: Access, record: KnownRecord, word: string): boolean =>
  record.entity.fields.some(
    (field) =>
      ['text', 'choice', 'record', 'unit'].includes(field.type.kind) &&
      access.level(access.element(field.id), record) > 0 &&
      showField(access, field, record.values[field.id] ?? null, record.lookUp)
        .text.toLowerCase()
        .includes(word.toLowerCase()),
  );

/** A list: as a file, and what can be chosen of it. */
export function* listsOf(asked: SweepContext, element: AppElement): Generator<Case> {
  if (element.kind !== 'list') return;
  const { copy, predictor } = asked;
  const binds = element.screen?.binds;
  const [record] = binds?.record === 'existing' ? recordsOf(asked, binds.entity) : [];
  const query = record ? `?record=${record.id}` : '';
  const at = `${base(copy)}/api/lists/${element.id}`;
  const [exported, choices] = [
    predictor.export(element.node, record),
    predictor.choices(element.node, record),
  ];
  yield { asking: { path: `${at}/export${query}` }, reads: 'api', predicted: exported, about: element.id };
  yield { asking: { path: `${at}/bulk${query}` }, reads: 'api', predicted: choices, about: element.id };
}

import { EDIT, type Access, type KnownRecord, addressOf } from '@/core/access';
import { compile } from '@/core';
import { type Entity, type EntityField, type Id, type TextForm, unitsOf, type Value } from '@/core/model';
import type { Predicted, Predictor } from '@/core/sweep';
import { tagOf } from '../../records/tag';
import type { Asking } from './asker';
import type { Copy } from './copy';

/** One request, and what should come of it. */
export type Case =
  | {
      readonly asking: Asking;
      readonly reads: 'page' | 'api';
      readonly predicted: Predicted;
      readonly about?: Id;
    }
  /** Nobody may do this: it must be refused. */
  | { readonly asking: Asking; readonly refused: true; readonly about?: Id };

interface Asked {
  readonly copy: Copy;
  readonly access: Access;
  readonly predictor: Predictor;
  readonly records: readonly KnownRecord[];
  readonly signedOut: boolean;
}

/** On so many records of a kind everything is tried that may not be done. */
const TRIED = 4;

/** All that is asked as one viewer: what they should be sent, and what they must be refused. */
export function casesFor(asked: Asked): Case[] {
  return [...pages(asked), ...reading(asked), ...exporting(asked), ...writing(asked), ...pressing(asked)];
}

const base = ({ slug }: Copy): string => `/live/${slug}`;

function* pages({ copy, predictor, records }: Asked): Generator<Case> {
  const { tree } = compile(copy.definition);
  for (const { node: screen, id } of tree.elements.filter((one) => one.kind === 'screen')) {
    const on =
      screen.binds?.record === 'existing'
        ? records.filter(({ entity }) => entity.id === screen.binds?.entity).map((record) => record.id)
        : [undefined];
    for (const record of on) {
      const address = addressOf(screen, record);
      const predicted = predictor.page(address);
      yield { asking: { path: `${base(copy)}/${address}` }, reads: 'page', predicted, about: id };
    }
    // As a browser asks that is at the application already.
    const address = addressOf(screen, on[0]);
    yield {
      asking: { path: `${base(copy)}/${address}?_rsc`, headers: { rsc: '1' } },
      reads: 'page',
      predicted: predictor.page(address),
      about: id,
    };
  }
  const nowhere = 'zinc-no-such-address';
  yield { asking: { path: `${base(copy)}/${nowhere}` }, reads: 'page', predicted: predictor.page(nowhere) };
}

/** The kinds of fields whose words are searched. */
const SEARCHED: readonly EntityField['type']['kind'][] = ['text'];

function* reading({ copy, access, predictor, records }: Asked): Generator<Case> {
  const api = `${base(copy)}/api/records`;
  for (const entity of copy.definition.entities) {
    const at = (query: string): Asking => ({ path: `${api}/${entity.id}?size=100${query}` });
    yield { asking: at(''), reads: 'api', predicted: predictor.all(entity), about: entity.id };
    const own = records.filter((record) => record.entity.id === entity.id);
    for (const record of own)
      yield {
        asking: { path: `${api}/${entity.id}/${record.id}` },
        reads: 'api',
        predicted: predictor.one(record),
        about: entity.id,
      };
    const whole = predictor.all(entity);
    for (const field of entity.fields) {
      const element = access.element(field.id);
      const seen = own.filter((record) => access.level(element, record) > 0);
      const asks = access.level(element, undefined) > 0;
      if (asks) yield { asking: at(`&sort=-${field.id}`), reads: 'api', predicted: whole, about: field.id };
      // Who asks for a field that is hidden on a record does not learn of that record.
      const empty = predictor.all(
        entity,
        (record) => seen.includes(record) && (record.values[field.id] ?? null) === null,
      );
      const filter = encodeURIComponent(`record.#${field.id} is empty`);
      if (asks && field.type.kind !== 'record')
        yield { asking: at(`&filter=${filter}`), reads: 'api', predicted: empty, about: field.id };
      const [first] = own;
      const mark = first?.values[field.id];
      if (SEARCHED.includes(field.type.kind) && typeof mark === 'string')
        yield {
          asking: at(`&q=${encodeURIComponent(mark)}`),
          reads: 'api',
          predicted: predictor.all(entity, (record) => findsIn(access, record, mark)),
          about: field.id,
        };
    }
  }
}

/** Is the word anywhere in what the viewer sees of the record's texts? */
const findsIn = (access: Access, record: KnownRecord, word: string): boolean =>
  record.entity.fields.some(({ id, type }) => {
    if (access.level(access.element(id), record) === 0) return false;
    const value = record.values[id];
    return (
      type.kind === 'text' && typeof value === 'string' && value.toLowerCase().includes(word.toLowerCase())
    );
  });

function* exporting({ copy, predictor, records }: Asked): Generator<Case> {
  const { tree } = compile(copy.definition);
  for (const { node: list, id, screen } of tree.elements.filter((one) => one.kind === 'list')) {
    const record =
      screen?.binds?.record === 'existing'
        ? records.find(({ entity }) => entity.id === screen.binds?.entity)
        : undefined;
    yield {
      asking: {
        path: `${base(copy)}/api/lists/${list.id}/export${record ? `?record=${record.id}` : ''}`,
      },
      reads: 'api',
      predicted: predictor.export(list, record),
      about: id,
    };
  }
}

/** Every change that this viewer may not make. */
function* writing({ copy, access, records }: Asked): Generator<Case> {
  const api = `${base(copy)}/api/records`;
  const may = (id: Id, record?: KnownRecord): boolean => access.level(access.element(id), record) === EDIT;
  for (const entity of copy.definition.entities) {
    const refused = (asking: Asking, about: Id): Case => ({ asking, refused: true, about });
    for (const record of records.filter((one) => one.entity.id === entity.id).slice(0, TRIED)) {
      const path = `${api}/${entity.id}/${record.id}`;
      const headers = { 'if-match': `"${tagOf(access, record)}"` };
      for (const field of entity.fields) {
        const to = other(copy, field, record);
        if (to === undefined || may(field.id, record)) continue;
        const body = { values: { [field.id]: to } };
        yield refused({ method: 'PATCH', path, headers, body }, field.id);
      }
      for (const action of entity.actions) {
        if (action.kind === 'create' || action.kind === 'export' || may(action.id, record)) continue;
        if (action.kind === 'delete') yield refused({ method: 'DELETE', path, headers }, action.id);
        if (action.kind === 'named' && Object.keys(action.sets).length > 0)
          yield refused(
            { method: 'POST', path: `${path}/actions/${action.id}`, headers, body: {} },
            action.id,
          );
      }
    }
    const create = entity.actions.find(({ kind }) => kind === 'create');
    if (create && access.answer(access.element(create.id)).most < EDIT)
      yield refused(
        { method: 'POST', path: `${api}/${entity.id}`, body: { values: filled(copy, entity) } },
        create.id,
      );
  }
}

/** Buttons that are closed: those for whole lists, those that set a session value, and people to look after. */
function* pressing({ copy, access, records }: Asked): Generator<Case> {
  const { tree } = compile(copy.definition);
  const api = `${base(copy)}/api`;
  for (const element of tree.elements) {
    if (element.kind !== 'button') continue;
    const { effect } = element.node;
    if (access.answer(element).most === EDIT) continue;
    if (effect.do === 'set-session')
      yield {
        asking: { method: 'POST', path: `${api}/session-values`, body: { button: element.id } },
        refused: true,
        about: element.id,
      };
    if (effect.do !== 'bulk') continue;
    const list = tree.need(effect.list, 'list').node;
    const record = records.find(({ entity }) => entity.id === list.entity);
    const field = record?.entity.fields.find((one) => other(copy, one, record) !== undefined);
    if (!record || !field) continue;
    const chosen = [{ id: record.id, version: tagOf(access, record) }];
    const body = { records: chosen, values: { [field.id]: other(copy, field, record) } };
    yield {
      asking: { method: 'POST', path: `${api}/lists/${effect.list}/bulk`, body },
      refused: true,
      about: element.id,
    };
  }
  const looksAfter = tree.elements.some((one) => one.kind === 'people' && access.answer(one).most > 0);
  if (!looksAfter) yield { asking: { path: `${api}/people` }, refused: true };
}

const WRITTEN: Readonly<Record<TextForm, string>> = {
  email: 'sweep@sweep.example',
  web: 'https://sweep.example',
  telephone: '+441234567',
  digits: '12',
};

/** Another value than the record's, such as may be written; undefined where there is none. */
function other({ definition }: Copy, field: EntityField, { values }: KnownRecord): Value | undefined {
  const now = values[field.id] ?? null;
  const { type, check } = field;
  switch (type.kind) {
    case 'text':
      return check?.form ? WRITTEN[check.form] : 'Swept';
    case 'number':
    case 'money':
      return '1';
    case 'date':
      return '2001-02-03';
    case 'boolean':
      return now !== true;
    case 'choice':
      return type.options.find(({ id }) => id !== now)?.id;
    case 'unit':
      return unitsOf(definition).find(({ id }) => id !== now)?.id;
    default:
      return undefined;
  }
}

/** A new record with everything filled in that can be. */
function filled(copy: Copy, entity: Entity): Record<Id, Value> {
  const bare = { entity, id: '', values: {} };
  return Object.fromEntries(
    entity.fields.flatMap((field) => {
      const to = other(copy, field, bare);
      return to === undefined ? [] : [[field.id, to] as const];
    }),
  );
}

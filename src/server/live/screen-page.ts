import { readAddress, resolve } from '@/core';
import {
  type Access,
  addressOf,
  bulkChanges,
  type ChartPoint,
  type KnownRecord,
  listed,
  NONE,
  type Outcome,
  resolveRow,
  screenListing,
  sentTo,
  type ShownList,
  type ShownPart,
  type ShownRows,
  type ShownScreen,
} from '@/core/access';
import type { Id, Screen } from '@/core/model';
import { Refused } from '../http/problem';
import { filterFields } from '../records/filter';
import { tagOf } from '../records/tag';
import { chartPoints } from './chart-points';
import {
  countRecords,
  listRecords,
  knownRecord,
  knownRecords,
  openRecord,
  PAGE_SIZES,
  type Query,
  type RecordScope,
  type StoredRecord,
} from '../records/read';

/** What an address of the application gives to a viewer. The released pages and the studio's canvas both come from here. */
export async function pageAt(scope: RecordScope, address: string, query: URLSearchParams): Promise<Outcome> {
  const { access } = scope;
  const { tree } = access.compiled;
  const destination = readAddress(tree, address);
  if (!destination) return NOT_THERE;
  const { screen } = destination;
  const secret = access.compiled.closed(screen.id)?.show === 'secret';
  if (access.level(access.element(screen.id), undefined) === NONE)
    return secret ? NOT_THERE : closed(access, screen);
  const entity = screen.binds && tree.need(screen.binds.entity, 'rows').node;
  let record: (StoredRecord & KnownRecord) | undefined;
  if (entity && destination.record !== undefined) {
    const stored = await openRecord(scope, entity, destination.record);
    if (!stored) return NOT_THERE;
    record = await knownRecord(scope, entity, stored);
  }
  const shown = resolve(access, screen, record, query.get('face') ?? undefined);
  if (!shown) return NOT_THERE;
  const parts = shown.sections.flatMap((section) => section.parts);
  const lists: Record<Id, ShownRows> = Object.fromEntries(
    await Promise.all(
      parts
        .filter((part) => part.kind === 'list')
        .map(
          async (part) =>
            [part.id, await rowsOf(scope, part, query, record, bulkOf(shown, part.id))] as const,
        ),
    ),
  );
  const charts = await chartsOf(scope, parts, query, record);
  const listing = entity && screenListing(access, entity);
  return {
    is: 'open',
    page: {
      address,
      screen: shown,
      lists,
      ...(charts && { charts }),
      ...(record && { version: tagOf(access, record) }),
      ...(listing && { leaveTo: addressOf(listing) }),
    },
  };
}

const NOT_THERE: Outcome = { is: 'not-there' };

/** What a closed screen answers: it sends to another that is open, or refuses with the builder's text. */
function closed(access: Access, screen: Screen): Outcome {
  const elsewhere = sentTo(access, screen);
  if (elsewhere) return { is: 'sent', address: addressOf(elsewhere) };
  const shown = access.compiled.closed(screen.id);
  return { is: 'refused', ...(shown?.show === 'refused' && { text: shown.text }) };
}

/** The fields that a usable button on the screen offers for changing many of a list's records; undefined without one. */
function bulkOf({ sections }: ShownScreen, list: Id): readonly Id[] | undefined {
  for (const part of sections.flatMap((section) => section.parts))
    if (part.kind === 'button' && part.usable && part.effect.do === 'bulk' && part.effect.list === list)
      return part.effect.fields.map(({ field }) => field);
  return undefined;
}

/** What the charts of a screen show: the records of their lists, as these are searched and filtered. */
async function chartsOf(
  scope: RecordScope,
  parts: readonly ShownPart[],
  params: URLSearchParams,
  screenRecord: KnownRecord | undefined,
): Promise<Readonly<Record<Id, readonly ChartPoint[]>> | undefined> {
  const { access } = scope;
  const { tree, definition } = access.compiled;
  const shown = parts.filter((part) => part.kind === 'chart');
  if (shown.length === 0) return undefined;
  const drawn = shown.map(async ({ id }) => {
    const chart = tree.need(id, 'chart').node;
    const list = tree.need(chart.list, 'list').node;
    const entity = tree.need(list.entity, 'rows').node;
    const beside = parts.find((part) => part.kind === 'list' && part.id === list.id);
    const columns = beside?.kind === 'list' ? beside.columns : [];
    const searched = entity.fields.filter((field) => columns.some((column) => column.field === field.id));
    const { q = '', filter = '' } = readQuery(params, { id: list.id, columns });
    const by = tree.need(chart.by, 'data-field').node;
    const of = chart.of === undefined ? undefined : tree.need(chart.of, 'data-field').node;
    const records = listed(access, list, screenRecord?.id);
    const counted = await countRecords(scope, entity, records, searched, { q, filter }, by, of).catch(
      (error: unknown) => {
        // The list says what is wrong with its filter.
        if (error instanceof Refused && error.code === 'filter') return [];
        throw error;
      },
    );
    return [id, chartPoints(definition, counted, by, chart.shows, of)] as const;
  });
  return Object.fromEntries(await Promise.all(drawn));
}

async function rowsOf(
  scope: RecordScope,
  shown: ShownList,
  params: URLSearchParams,
  screenRecord: KnownRecord | undefined,
  bulk: readonly Id[] | undefined,
): Promise<ShownRows> {
  const { tree } = scope.access.compiled;
  const list = tree.need(shown.id, 'list').node;
  const entity = tree.need(list.entity, 'rows').node;
  const fields = entity.fields.filter((field) => shown.columns.some((column) => column.field === field.id));
  const query = readQuery(params, shown);
  const { page, problem } = await listRecords(
    scope,
    entity,
    listed(scope.access, list, screenRecord?.id),
    fields,
    query,
  ).then(
    (found) => ({ page: found, problem: undefined }),
    (error: unknown) => {
      if (!(error instanceof Refused) || error.code !== 'filter') throw error;
      return { page: { records: [], total: 0, page: 1, size: query.size }, problem: error.detail };
    },
  );
  const known = await knownRecords(scope, entity, page.records);
  return {
    ...(problem !== undefined && { problem }),
    filter: query.filter ?? '',
    filters: filterFields(scope.access, entity),
    rows: known.map((record) => ({
      ...resolveRow(scope.access, list, record, screenRecord),
      ...(bulk && { changes: bulkChanges(scope.access, list, record, bulk) }),
      version: tagOf(scope.access, record),
    })),
    total: page.total,
    page: page.page,
    size: page.size,
    q: query.q ?? '',
    sort: query.sort ? (query.sort.descending ? '-' : '') + query.sort.field : '',
  };
}

/** A list's part of the address: `LIST.q`, `LIST.filter`, `LIST.sort`, `LIST.page`. What makes no sense is as if it were not there. */
export function readQuery(params: URLSearchParams, list: Pick<ShownList, 'id' | 'columns'>): Query {
  const q = params.get(`${list.id}.q`)?.slice(0, 200) ?? '';
  const sort = params.get(`${list.id}.sort`) ?? '';
  const field = sort.replace(/^-/, '');
  const page = Number(params.get(`${list.id}.page`) ?? 1);
  return {
    q,
    filter: params.get(`${list.id}.filter`)?.slice(0, 2000) ?? '',
    ...(list.columns.some((column) => column.field === field) && {
      sort: { field, descending: sort.startsWith('-') },
    }),
    page: Number.isInteger(page) && page >= 1 && page <= 100_000 ? page : 1,
    size: PAGE_SIZES.usual,
  };
}

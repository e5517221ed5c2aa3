import { readAddress } from '@/core/access/address';
import { surely } from '@/core/access/formula';
import { screenListing } from '@/core/access/landing';
import { NONE } from '@/core/access/level';
import type { Outcome, ShownRows } from '@/core/access/page';
import { addressOf, resolve, resolveRow, type ShownList } from '@/core/access/resolve';
import type { Id } from '@/core/model/id';
import {
  listRecords,
  openRecord,
  PAGE_SIZES,
  targetsOf,
  type Query,
  type Scope,
  type StoredRecord,
} from '../records/read';

/** What an address of the application gives to a viewer. The released pages and the studio's canvas both come from here. */
export async function pageAt(scope: Scope, address: string, query: URLSearchParams): Promise<Outcome> {
  const { access } = scope;
  const destination = readAddress(access.compiled.tree, address);
  if (!destination) return { is: 'not-there' };
  const { screen } = destination;
  if (access.level(access.element(screen.id), undefined) === NONE) return { is: 'refused' };
  const entity = screen.binds && access.compiled.tree.need(screen.binds.entity, 'rows').node;
  let record: StoredRecord | undefined;
  if (entity && destination.record !== undefined) {
    record = await openRecord(scope, entity.id, destination.record);
    if (!record) return { is: 'not-there' };
  }
  const context = record && entity ? { record, lookUp: await targetsOf(scope, entity, [record]) } : {};
  const shown = resolve(access, screen, context);
  if (!shown) return { is: 'not-there' };
  const lists: Record<Id, ShownRows> = {};
  for (const part of shown.sections.flatMap((section) => section.parts))
    if (part.kind === 'list') lists[part.id] = await rowsOf(scope, part, query);
  const listing = entity && screenListing(access, entity);
  return {
    is: 'open',
    page: {
      address,
      screen: shown,
      lists,
      ...(record && { version: record.version }),
      ...(listing && { leaveTo: addressOf(listing) }),
    },
  };
}

async function rowsOf(scope: Scope, shown: ShownList, params: URLSearchParams): Promise<ShownRows> {
  const { tree } = scope.access.compiled;
  const list = tree.need(shown.id, 'list').node;
  const entity = tree.need(list.entity, 'rows').node;
  const fields = entity.fields.filter((field) => shown.columns.some((column) => column.field === field.id));
  const query = readQuery(params, shown);
  const page = await listRecords(scope, entity, surely(list.filter), fields, query);
  const lookUp = await targetsOf(scope, entity, page.records);
  return {
    rows: page.records.map((record) => ({
      ...resolveRow(scope.access, list, record, { lookUp }),
      version: record.version,
    })),
    total: page.total,
    page: page.page,
    size: page.size,
    q: query.q ?? '',
    sort: query.sort ? (query.sort.descending ? '-' : '') + query.sort.field : '',
  };
}

/** A list's part of the address: `LIST.q`, `LIST.sort`, `LIST.page`. What makes no sense is as if it were not there. */
function readQuery(params: URLSearchParams, list: ShownList): Query {
  const q = params.get(`${list.id}.q`)?.slice(0, 200) ?? '';
  const sort = params.get(`${list.id}.sort`) ?? '';
  const field = sort.replace(/^-/, '');
  const page = Number(params.get(`${list.id}.page`) ?? 1);
  return {
    q,
    ...(list.columns.some((column) => column.field === field) && {
      sort: { field, descending: sort.startsWith('-') },
    }),
    page: Number.isInteger(page) && page >= 1 && page <= 100_000 ? page : 1,
    size: PAGE_SIZES.usual,
  };
}

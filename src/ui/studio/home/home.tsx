'use client';

import { useState } from 'react';
import { counted } from '@/core/edit';
import { DataTable, type DataColumn } from '../../parts/data-table';
import { BuildersWindow } from './builders-window';
import { CopyWindow, DeleteWindow, MoveWindow, RenameWindow, TakeOutWindow } from './windows';
import { RowMenu } from './row-menu';
import type { ApplicationAction, HomeRow } from './home-row';

interface Props {
  readonly applications: readonly HomeRow[];
}

/** The applications that one may work in, and what is there to do first where there is none. */
export function Home({ applications }: Props) {
  const [doing, setDoing] = useState<{ readonly what: ApplicationAction; readonly row: HomeRow }>();
  const close = (): void => setDoing(undefined);
  if (applications.length === 0) return <FirstOne />;
  return (
    <>
      <div className="mb-4 flex items-center">
        <h1 className="text-xl font-semibold">Applications</h1>
        <a href="/studio/new" className="button button-main ml-auto">
          New application…
        </a>
      </div>
      <div className="bg-paper">
        <DataTable
          name="Applications"
          fixed
          columns={columnsWith((row, what) => setDoing({ row, what }))}
          rows={applications}
          idOf={({ slug }) => slug}
        />
      </div>
      {doing?.what === 'builders' && <BuildersWindow row={doing.row} onClose={close} />}
      {doing?.what === 'copy' && <CopyWindow row={doing.row} onClose={close} />}
      {doing?.what === 'rename' && <RenameWindow row={doing.row} onClose={close} />}
      {doing?.what === 'move' && <MoveWindow row={doing.row} onClose={close} />}
      {doing?.what === 'take-out' && <TakeOutWindow row={doing.row} onClose={close} />}
      {doing?.what === 'delete' && <DeleteWindow row={doing.row} onClose={close} />}
    </>
  );
}

function FirstOne() {
  const ways = [
    [
      'csv',
      'From CSV files',
      'Each file becomes an entity with a list, a record screen and a form. You can check the column types first.',
    ],
    ['postgres', 'From PostgreSQL', 'The same, from the tables of a database. The database is only read.'],
    ['file', 'From a definition file', 'A file exported from Zinc Gate, here or elsewhere.'],
    ['nothing', 'Empty', 'An empty application with a name and an address.'],
  ] as const;
  return (
    <div className="mx-auto mt-10 max-w-2xl">
      <h1 className="text-xl font-semibold">Create your first application</h1>
      <p className="mt-2 text-quiet">
        An application has screens, menus and data. You decide who can see and edit each of them, preview it
        as any user, and release it.
      </p>
      <ul className="mt-5 grid gap-3">
        {ways.map(([key, name, says], n) => (
          <li key={key} className="border-l-4 border-open bg-paper px-4 py-3">
            <a
              href={`/studio/new?from=${key}`}
              className={`link text-[16px] font-semibold ${n === 0 ? '' : 'font-medium'}`}
            >
              {name}
            </a>
            <p className="text-quiet">{says}</p>
          </li>
        ))}
      </ul>
    </div>
  );
}

const columnsWith = (onDo: (row: HomeRow, what: ApplicationAction) => void): DataColumn<HomeRow>[] => [
  {
    id: 'name',
    header: 'Name',
    meta: { head: { className: 'w-[30%]' }, cell: { className: 'align-top' } },
    cell: ({ row: { original: one } }) => (
      <>
        <a
          className="link block truncate text-[15px] font-semibold"
          href={`/studio/${one.slug}/gates`}
          title={one.name}
          dir="auto"
        >
          {one.name}
        </a>
        <span className="text-quiet">{ROLES[one.role]}</span>
      </>
    ),
  },
  {
    id: 'address',
    header: 'Address',
    meta: { cell: { className: 'align-top' } },
    cell: ({ row: { original: one } }) =>
      one.release === null ? (
        <span className="block truncate font-mono text-[13px] text-quiet" title={`/live/${one.slug}`}>
          /live/{one.slug}
        </span>
      ) : (
        <a
          className="link block truncate font-mono text-[13px]"
          href={`/live/${one.slug}`}
          title={`/live/${one.slug}`}
        >
          /live/{one.slug}
        </a>
      ),
  },
  {
    id: 'people',
    header: 'People',
    meta: { end: true, head: { className: 'w-20 text-right' }, cell: { className: 'align-top' } },
    cell: ({ row: { original: one } }) => one.people.toLocaleString('en'),
  },
  {
    id: 'release',
    header: 'Released',
    meta: { cell: { className: 'align-top' } },
    cell: ({ row: { original: one } }) => (
      <>
        {one.release === null ? 'Not yet' : `Release ${one.release}`}
        {one.since > 0 && (
          <span className="block text-quiet">
            {counted(one.since, 'edit')} {one.release === null ? 'so far' : 'since then'}
          </span>
        )}
        {one.lookAt > 0 && (
          <a className="link block text-amber" href={`/studio/${one.slug}/prove`}>
            Findings: {one.lookAt}
          </a>
        )}
        {one.overdue !== null && (
          <a className="link block text-amber" href={`/studio/${one.slug}/prove?part=signed`}>
            Last sign-off {one.overdue} days ago (overdue)
          </a>
        )}
      </>
    ),
  },
  {
    id: 'changed',
    header: 'Last change',
    meta: { cell: { className: 'align-top' } },
    cell: ({ row: { original: one } }) =>
      one.lastChange ? (
        <>
          <span className="block truncate">{one.lastChange.by}</span>
          <time className="text-quiet" dateTime={one.lastChange.at} suppressHydrationWarning>
            {new Date(one.lastChange.at).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}
          </time>
        </>
      ) : (
        <span className="text-quiet">No changes yet</span>
      ),
  },
  {
    id: 'here',
    header: 'Online now',
    meta: { cell: { className: 'align-top' } },
    cell: ({ row: { original: one } }) =>
      one.here.length > 0 ? one.here.join(', ') : <span className="text-quiet">Nobody else</span>,
  },
  {
    id: 'more',
    header: () => <span className="sr-only">Actions</span>,
    meta: { apart: true, head: { className: 'w-12' }, cell: { className: 'align-top' } },
    cell: ({ row: { original: one } }) => <RowMenu row={one} onDo={(what) => onDo(one, what)} />,
  },
];

const ROLES = { owner: 'Owner', editor: 'Editor', reviewer: 'Reviewer' } as const;

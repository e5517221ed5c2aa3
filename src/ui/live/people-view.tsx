'use client';

import { useCallback, useState, type ReactNode } from 'react';
import type { ShownPeople } from '@/core/access';
import { type ManagedPerson, liveAddPerson, livePeople } from '@/contract/live';
import { send } from '@/ui/client/send';
import { counted } from '@/core/edit';
import { DataTable, Pager, type DataColumn } from '../parts/data-table';
import { Queries, useAsked, useSettled } from '@/ui/client/queries';
import { useHost } from './host';
import { NewPerson } from './new-person';
import { EditPerson } from './edit-person';

/** Somebody who types is asked for once they pause. */
const PAUSE_MS = 150;

/** The people whom the viewer looks after, and what they may do for them. The server decides each of it again. */
export function PeopleView(props: { part: ShownPeople }) {
  return (
    <Queries>
      <Inside {...props} />
    </Queries>
  );
}

function Inside({ part }: { part: ShownPeople }) {
  const host = useHost();
  const [q, setQ] = useState('');
  const [page, setPage] = useState(1);
  const query = { q: useSettled(q, PAUSE_MS), page };
  const {
    data: found,
    error,
    refetch,
  } = useAsked(livePeople, host.people === undefined ? undefined : { app: host.people, query }, {
    keepsLast: true,
  });
  // What somebody typed before the page could work is searched for as well.
  const alreadyTyped = useCallback((box: HTMLInputElement | null): void => {
    if (box?.value) setQ(box.value);
  }, []);
  const load = async (): Promise<void> => void (await refetch());
  const pages = Math.max(1, Math.ceil((found?.total ?? 0) / 25));
  return (
    <div data-element={part.id} className="min-w-0 border-t-2 border-ink bg-paper">
      <div className="flex items-center gap-3 px-2 py-2">
        <h2 className="mr-auto font-semibold">{part.name}</h2>
        {part.works && found && host.people !== undefined && (
          <NewPerson
            add={(body) => send(liveAddPerson, { app: host.people ?? '', body })}
            roles={found.offers.roles}
            language={host.language}
            timeZone={host.timeZone}
            onDone={load}
          />
        )}
        <input
          type="search"
          aria-label={`Search ${part.name}`}
          placeholder="Search"
          className="field-box w-44"
          defaultValue={q}
          ref={alreadyTyped}
          onChange={(event) => {
            setQ(event.target.value);
            setPage(1);
          }}
        />
      </div>
      {error && (
        <p role="alert" className="px-2 pb-2">
          {error.message}
        </p>
      )}
      {host.people === undefined ? (
        <p className="px-2 pb-3 text-quiet">
          In the released application, this lists the people the viewer manages.
        </p>
      ) : (
        <DataTable<ManagedPerson>
          name="People"
          columns={columnsOf((person) =>
            part.works && found ? (
              <EditPerson person={person} roles={found.offers.roles} onDone={load} />
            ) : null,
          )}
          rows={found?.people ?? []}
          idOf={({ id }) => id}
        />
      )}
      {found && (
        <Pager page={page} pages={pages} onPage={setPage}>
          {counted(found.total, 'person', 'people')}
        </Pager>
      )}
    </div>
  );
}

/** Name, address and roles of each, and what can be done for them. */
const columnsOf = (work: (person: ManagedPerson) => ReactNode): DataColumn<ManagedPerson>[] => [
  {
    id: 'name',
    header: 'Name',
    cell: ({ row: { original: person } }) => (
      <>
        {person.name}
        {!person.active && <span className="text-quiet"> (account disabled)</span>}
      </>
    ),
  },
  { id: 'email', header: 'Email', cell: ({ row }) => row.original.email },
  {
    id: 'roles',
    header: 'Roles',
    cell: ({ row }) => row.original.assignments.map((one) => one.name).join(', '),
  },
  {
    id: 'work',
    header: () => <span className="sr-only">Actions</span>,
    cell: ({ row }) => work(row.original),
    meta: { end: true },
  },
];

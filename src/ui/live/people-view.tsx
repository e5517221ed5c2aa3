'use client';

import { useState } from 'react';
import type { ShownPeople } from '@/core/access';
import { Queries, useAsked, useSettled } from '../parts/queries';
import { useHost } from './host';
import { NewPerson } from './new-person';
import { EditPerson } from './edit-person';
import { type Found } from './looked-after';

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
  const query = new URLSearchParams({ q: useSettled(q, PAUSE_MS), page: String(page) });
  const {
    data: found,
    error,
    refetch,
  } = useAsked<Found>(host.people && `${host.people}?${query}`, {
    keepsLast: true,
  });
  const load = async (): Promise<void> => void (await refetch());
  const pages = Math.max(1, Math.ceil((found?.total ?? 0) / 25));
  return (
    <div data-element={part.id} className="min-w-0 border-t-2 border-ink bg-paper">
      <div className="flex items-center gap-3 px-2 py-2">
        <h2 className="mr-auto font-semibold">{part.name}</h2>
        {part.works && found && host.people !== undefined && (
          <NewPerson
            url={host.people}
            roles={found.offers.roles}
            language={host.language}
            timeZone={host.timeZone}
            onDone={load}
          />
        )}
        <input
          type="search"
          aria-label={`Search in ${part.name}`}
          placeholder="Search"
          className="field-box w-44"
          value={q}
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
          In the application, the people whom the viewer looks after stand here.
        </p>
      ) : (
        <table className="w-full text-left">
          <thead>
            <tr className="border-y border-rule">
              <th className="px-2 py-1 font-medium">Name</th>
              <th className="px-2 py-1 font-medium">Email</th>
              <th className="px-2 py-1 font-medium">Roles</th>
              <th className="px-2 py-1" />
            </tr>
          </thead>
          <tbody>
            {found?.people.map((person) => (
              <tr key={person.id} className="border-b border-sheet">
                <td className="px-2 py-1.5">
                  {person.name}
                  {!person.active && <span className="text-quiet"> (switched off)</span>}
                </td>
                <td className="px-2 py-1.5">{person.email}</td>
                <td className="px-2 py-1.5">{person.assignments.map((one) => one.name).join(', ')}</td>
                <td className="px-2 py-1 text-right">
                  {part.works && <EditPerson person={person} roles={found.offers.roles} onDone={load} />}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {found && (
        <div className="flex items-center justify-between px-2 py-2 text-quiet">
          <span role="status">{found.total === 1 ? '1 person' : `${found.total} people`}</span>
          {pages > 1 && (
            <span className="flex gap-2">
              <button type="button" className="button" disabled={page <= 1} onClick={() => setPage(page - 1)}>
                Earlier
              </button>
              <button
                type="button"
                className="button"
                disabled={page >= pages}
                onClick={() => setPage(page + 1)}
              >
                Later
              </button>
            </span>
          )}
        </div>
      )}
    </div>
  );
}

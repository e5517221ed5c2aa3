'use client';

import { useState } from 'react';
import { type Definition, unitsOf } from '@/core/model';
import { addPerson, peopleFile, type PeoplePage, peoplePage, type PersonRow } from '@/contract/studio/people';
import { send, urlOf } from '@/ui/client/send';
import { DataTable, Pager, type DataColumn } from '../../parts/data-table';
import { useAsked, useSettled } from '@/ui/client/queries';
import { NewPerson } from '../../live/new-person';
import { RightsWindow } from '../shared/rights-window';
import { usePeopleWork } from './use-people-work';
import { ImportWindow } from './import-window';
import { PartHead } from './parts';
import { assignmentInWords } from '@/core/edit';
import { PersonWindow } from './person-window';
import { Select } from '@/ui/parts/select';

const SIZE = 25;
/** Only what is asked for. */
const withoutEmpty = (query: typeof FIRST): Partial<typeof FIRST> =>
  Object.fromEntries(Object.entries(query).filter(([, value]) => value !== ''));

const FIRST = { q: '', role: '', units: '', state: '', sort: 'name', page: 1 };

/** Everybody, a page at a time: found, filtered and sorted on the server. */
export function PeoplePart({ first }: { first: PeoplePage }) {
  const { definition, app, mayManage, owns, tell } = usePeopleWork();
  const [rights, setRights] = useState(false);
  const [query, setQuery] = useState(FIRST);
  const [open, setOpen] = useState<string>();
  const written = useSettled(query, 120);
  const {
    data: found = first,
    error,
    refetch,
  } = useAsked(
    peoplePage,
    { app, query: withoutEmpty(written) },
    { first: written === FIRST ? first : undefined, keepsLast: true },
  );
  const load = async (): Promise<void> => void (await refetch());
  const turn = (change: Partial<typeof query>): void => setQuery({ ...query, page: 1, ...change });
  const asked = [query.q, query.role, query.units, query.state].some((one) => one !== '');
  const pages = Math.max(1, Math.ceil(found.total / SIZE));
  const columns = columnsOf(definition, setOpen);
  const chosen = found.people.find((one) => one.id === open);
  return (
    <>
      <PartHead
        title="People"
        about={
          mayManage
            ? 'Changes here take effect immediately, without a release.'
            : 'Read-only. The owner of the application can allow you to manage people.'
        }
      >
        <a className="button" href={urlOf(peopleFile, { app })}>
          Export CSV
        </a>
        {owns && (
          <button type="button" className="button" onClick={() => setRights(true)}>
            Manage access…
          </button>
        )}
        {rights && <RightsWindow app={app} tell={tell} onClose={() => setRights(false)} />}
        {mayManage && (
          <>
            <ImportWindow onDone={load} />
            <NewPerson main add={(body) => send(addPerson, { app, body })} onDone={load} />
          </>
        )}
      </PartHead>
      {error && <p role="alert">{error.message}</p>}
      <div className="border-t-2 border-ink bg-paper">
        <div className="flex flex-wrap items-center gap-2 px-2 py-2">
          <input
            type="search"
            aria-label="Search people"
            placeholder="Name or email address"
            className="field-box w-56"
            value={query.q}
            onChange={(event) => turn({ q: event.target.value })}
          />
          <Select
            aria-label="Role"
            className="w-auto"
            value={query.role}
            onChoose={(role) => turn({ role })}
            none="Any role"
            options={definition.roles}
          />
          <Select
            aria-label="Home unit"
            className="w-auto"
            value={query.units}
            onChoose={(unit) => turn({ units: unit })}
            none="Any home unit"
            options={unitsOf(definition)}
          />
          <Select
            aria-label="State"
            className="w-auto"
            value={query.state}
            onChoose={(state) => turn({ state })}
            none="Any state"
            options={[
              { id: 'active', name: 'Active' },
              { id: 'off', name: 'Disabled' },
              { id: 'unconfirmed', name: 'Not activated' },
            ]}
          />
          <span role="status" className="ml-auto text-quiet">
            {found.total === 1 ? '1 person' : `${found.total} people`}
          </span>
        </div>
        <DataTable
          name="People"
          fixed
          columns={columns}
          rows={found.people}
          idOf={({ id }) => id}
          sort={query.sort}
          onSort={(sort) => turn({ sort })}
          onRow={({ id }) =>
            () =>
              setOpen(id)
            }
        />
        {found.total === 0 && (
          <p className="px-2 py-3 text-quiet">
            {asked
              ? 'No people match these filters.'
              : 'No people yet. Add people one at a time or import a CSV file.'}
          </p>
        )}
        <Pager page={query.page} pages={pages} onPage={(page) => turn({ page })}>
          {pages > 1 && `page ${query.page} of ${pages}`}
        </Pager>
      </div>
      {chosen && (
        <PersonWindow key={chosen.id} person={chosen} onDone={load} onClose={() => setOpen(undefined)} />
      )}
    </>
  );
}

/** Name, address, home and roles of each. */
function columnsOf(definition: Definition, onOpen: (id: string) => void): DataColumn<PersonRow>[] {
  const cut = { className: 'truncate' };
  const rolesOf = ({ assignments }: PersonRow): string =>
    assignments.map((one) => assignmentInWords(definition, one)).join(', ');
  return [
    {
      id: 'name',
      accessorFn: ({ name }) => name,
      header: 'Name',
      cell: ({ row: { original: person } }) => (
        <>
          <button type="button" className="link" onClick={() => onOpen(person.id)}>
            {person.name}
          </button>
          {!person.active && <span className="text-quiet"> (account disabled)</span>}
          {!person.confirmed && <span className="text-quiet"> (not activated)</span>}
        </>
      ),
      meta: { head: { className: 'w-[22%]' }, cell: cut },
    },
    {
      id: 'email',
      accessorFn: ({ attributes }) => attributes['email'],
      header: 'Email address',
      meta: { head: { className: 'w-[28%]' }, cell: cut },
    },
    {
      id: 'home',
      accessorFn: ({ attributes }) =>
        unitsOf(definition).find((unit) => unit.id === attributes['home_unit'])?.name,
      header: 'Home unit',
      meta: { head: { className: 'w-[14%]' }, cell: cut },
    },
    {
      id: 'roles',
      enableSorting: false,
      accessorFn: rolesOf,
      header: 'Roles',
      cell: ({ row: { original: person } }) => <span title={rolesOf(person)}>{rolesOf(person)}</span>,
      meta: { cell: cut },
    },
  ];
}

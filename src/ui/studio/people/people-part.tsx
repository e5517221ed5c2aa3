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
            ? 'Changes here count at once; they wait for no release.'
            : 'For reading. To manage people is a right that the owner of the application gives.'
        }
      >
        <a className="button" href={urlOf(peopleFile, { app })}>
          Export CSV
        </a>
        {owns && (
          <button type="button" className="button" onClick={() => setRights(true)}>
            Who may manage them
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
            label="Role"
            all="Any role"
            value={query.role}
            among={definition.roles}
            onChange={(role) => turn({ role })}
          />
          <Select
            label="Home unit"
            all="Any home unit"
            value={query.units}
            among={unitsOf(definition)}
            onChange={(unit) => turn({ units: unit })}
          />
          <Select
            label="State"
            all="Any state"
            value={query.state}
            among={[
              { id: 'active', name: 'Active' },
              { id: 'off', name: 'Switched off' },
              { id: 'unconfirmed', name: 'Not confirmed' },
            ]}
            onChange={(state) => turn({ state })}
          />
          <span role="status" className="ml-auto text-quiet">
            {found.total === 1 ? '1 person' : `${found.total} people`}
          </span>
        </div>
        <DataTable
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
            {asked ? 'Nobody is like that.' : 'Nobody yet. Add people one by one, or many as CSV.'}
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
          {!person.active && <span className="text-quiet"> (switched off)</span>}
          {!person.confirmed && <span className="text-quiet"> (not confirmed)</span>}
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

function Select({
  label,
  all,
  value,
  among,
  onChange,
}: {
  label: string;
  all: string;
  value: string;
  among: readonly { readonly id: string; readonly name: string }[];
  onChange: (id: string) => void;
}) {
  return (
    <select
      aria-label={label}
      className="field-box w-auto"
      value={value}
      onChange={(event) => onChange(event.target.value)}
    >
      <option value="">{all}</option>
      {among.map((one) => (
        <option key={one.id} value={one.id}>
          {one.name}
        </option>
      ))}
    </select>
  );
}

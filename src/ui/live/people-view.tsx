'use client';

import { useCallback, useEffect, useState } from 'react';
import type { ShownPeople } from '@/core/access';
import { useConfirm } from '../parts/asking';
import { Window } from '../parts/window';
import { ask, send, useHost } from './host';
import { GiveRole, type RoleOffer } from '../parts/give-role';
import { NewPerson } from './new-person';

interface Given {
  readonly role: string;
  readonly name: string;
  readonly unit?: string;
  readonly from?: string;
  readonly until?: string;
  /** May the viewer take it away? */
  readonly mine: boolean;
}

interface Person {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly active: boolean;
  readonly assignments: readonly Given[];
  readonly link: boolean;
  readonly emailToo: boolean;
}

interface Found {
  readonly people: readonly Person[];
  readonly total: number;
  readonly offers: { readonly roles: readonly RoleOffer[] };
}

/** The people whom the viewer looks after, and what they may do for them. The server decides each of it again. */
export function PeopleView({ part }: { part: ShownPeople }) {
  const host = useHost();
  const [q, setQ] = useState('');
  const [page, setPage] = useState(1);
  const [found, setFound] = useState<Found>();
  const load = useCallback(async () => {
    if (host.people === undefined) return;
    const answer = await ask<Found>(`${host.people}?q=${encodeURIComponent(q)}&page=${page}`, {
      method: 'GET',
    });
    if (answer.ok) setFound(answer.value);
    else host.tell(answer.detail);
  }, [host, q, page]);
  useEffect(() => {
    const timer = setTimeout(() => void load(), 150);
    return () => clearTimeout(timer);
  }, [load]);
  const pages = Math.max(1, Math.ceil((found?.total ?? 0) / 25));
  return (
    <div data-element={part.id} className="min-w-0 border-t-2 border-ink bg-paper">
      <div className="flex items-center gap-3 px-2 py-2">
        <h2 className="mr-auto font-semibold">{part.name}</h2>
        {part.works && found && host.people !== undefined && (
          <NewPerson url={host.people} roles={found.offers.roles} timeZone={host.timeZone} onDone={load} />
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

interface Doing {
  readonly roles: Found['offers']['roles'];
  readonly onDone: () => Promise<void>;
}

function EditPerson({ person, roles, onDone }: Doing & { person: Person }) {
  const host = useHost();
  const confirm = useConfirm();
  const [told, setTold] = useState('');
  const at = `${host.people}/${person.id}`;
  const change = async (body: unknown): Promise<void> => {
    const answer = await send('PATCH', at, body);
    setTold(answer.ok ? 'Done.' : [answer.detail, ...Object.values(answer.fields)].join(' '));
    await onDone();
  };
  const take = async (one: Given): Promise<void> => {
    const title = `Take ${one.name} away from ${person.name}?`;
    if (await confirm({ title, text: 'It counts at once.', go: 'Take it away' }))
      await change({ take: [plainOf(one)] });
  };
  const turn = async (): Promise<void> => {
    const question = {
      title: `Switch ${person.name} off?`,
      text: 'Their sessions end at once, and they cannot sign in until they are switched on again.',
      go: 'Switch off',
    };
    if (!person.active || (await confirm(question))) await change({ active: !person.active });
  };
  const sendLink = async (): Promise<void> => {
    const question = {
      title: `A new password for ${person.name}?`,
      text: `A link goes to ${person.email}, by which they choose one. The link that was sent before no longer works.`,
      go: 'Send the link',
    };
    if (!(await confirm(question))) return;
    tellOf(await send('POST', `${at}/link`), 'A link to choose a password is on its way to them.');
  };
  const tellOf = (answer: Awaited<ReturnType<typeof send>>, done: string): void =>
    setTold(answer.ok ? done : answer.detail);
  return (
    <Window
      title={person.name}
      onOpenChange={() => setTold('')}
      trigger={
        <button type="button" className="button" aria-label={`Change ${person.name}`}>
          Change
        </button>
      }
    >
      <h3 className="mb-1 font-medium">Roles</h3>
      <ul className="mb-2 grid gap-1">
        {person.assignments.map((one, n) => (
          <li key={n} className="flex items-baseline gap-3">
            <span className="grow">
              {one.name}
              {periodOf(one, host.day)}
            </span>
            {one.mine ? (
              <button
                type="button"
                className="link shrink-0"
                aria-label={`Take ${one.name} away`}
                onClick={() => void take(one)}
              >
                Take away
              </button>
            ) : (
              <span className="text-quiet">not yours to take</span>
            )}
          </li>
        ))}
        {person.assignments.length === 0 && <li className="text-quiet">None.</li>}
      </ul>
      <GiveRole roles={roles} timeZone={host.timeZone} onGive={(given) => void change({ give: [given] })} />
      <div className="mt-4 flex flex-wrap gap-2">
        <button type="button" className="button" disabled={!person.link} onClick={() => void turn()}>
          {person.active ? 'Switch off' : 'Switch on'}
        </button>
        <button type="button" className="button" disabled={!person.link} onClick={() => void sendLink()}>
          New password …
        </button>
        <button
          type="button"
          className="button"
          disabled={!person.link}
          onClick={() =>
            void send('DELETE', `${at}/waits`).then((answer) =>
              tellOf(answer, 'They need not wait any more to sign in.'),
            )
          }
        >
          Lift the wait after wrong tries
        </button>
      </div>
      {!person.link && (
        <p className="mt-2 text-quiet">
          This person holds more than you may hand out, so their account is not yours to change.
        </p>
      )}
      {told && (
        <p role="alert" className="mt-3 border-l-4 border-ink bg-sheet px-3 py-2">
          {told}
        </p>
      )}
    </Window>
  );
}

/** From when and until when it counts, where that is not always. */
const periodOf = ({ from, until }: Given, day: (moment: string) => string): string =>
  `${from ? `, from ${day(from)}` : ''}${until ? `, until ${day(until)}` : ''}`;

/** An assignment as it is given and taken. */
const plainOf = ({ role, unit, from, until }: Given) => ({
  role,
  ...(unit !== undefined && { unit }),
  ...(from !== undefined && { from }),
  ...(until !== undefined && { until }),
});

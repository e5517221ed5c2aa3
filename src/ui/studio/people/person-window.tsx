'use client';

import '../../parts/nonce';
import { Dialog } from 'radix-ui';
import { useMemo, useState } from 'react';
import { parse, viewerOfPerson } from '@/core';
import { type Assignment, Held, rightNow } from '@/core/access';
import { attributesOf, bind } from '@/core/condition';
import {
  privilegesOf,
  showValue,
  unitsOf,
  type Value,
  type Values,
  type ValueType,
  withIncluded,
} from '@/core/model';
import { send } from '../../live/host';
import { useAsked } from '../../parts/queries';
import { GiveRole, type RoleOffer } from '../../parts/give-role';
import { usePeopleWork } from './context';
import { assignmentInWords, type PersonRow } from './person-row';
import { KeptText } from './parts';

const OWN = ['name', 'email', 'home_unit'];

/** A person: what is known of them, what they hold, and a box to test any of it. */
export function PersonWindow({
  person,
  onDone,
  onClose,
}: {
  person: PersonRow;
  onDone: () => Promise<void>;
  onClose: () => void;
}) {
  const { definition, api, mayManage } = usePeopleWork();
  const [told, setTold] = useState('');
  const at = `${api}/people/${person.id}`;
  const change = async (body: unknown): Promise<void> => {
    const answer = await send('PATCH', at, body);
    setTold(answer.ok ? '' : [answer.detail, ...Object.values(answer.fields)].join(' '));
    await onDone();
  };
  const link = async (): Promise<void> => {
    const answer = await send('POST', `${at}/link`);
    setTold(
      answer.ok
        ? 'A link to choose a password is on its way to them. It stands in the outbox.'
        : answer.detail,
    );
  };
  const lift = async (): Promise<void> => {
    const answer = await send('DELETE', `${at}/waits`);
    setTold(answer.ok ? 'They need not wait any more to sign in.' : answer.detail);
  };
  const screens = definition.areas
    .flatMap((area) => area.screens)
    .filter((one) => one.binds?.record !== 'existing');
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-lead/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-10 left-1/2 z-40 max-h-[calc(100vh-5rem)] w-[64rem] max-w-[calc(100vw-2rem)] -translate-x-1/2 overflow-auto border-t-4 border-ink bg-paper p-5 shadow-lg"
        >
          <Dialog.Title className="mb-3 text-[17px] font-semibold">
            {person.name}
            {!person.active && <span className="font-normal text-quiet"> (switched off)</span>}
            {!person.confirmed && (
              <span className="font-normal text-quiet"> (nobody yet: has not opened the link)</span>
            )}
          </Dialog.Title>
          <div className="grid grid-cols-[22rem_1fr] gap-6">
            <div className="grid content-start gap-2">
              <Labelled label="Name">
                <KeptText
                  label="Name"
                  value={person.name}
                  disabled={!mayManage}
                  onKeep={(name) => void change({ name })}
                />
              </Labelled>
              <Labelled label="Email address">
                <KeptText
                  label="Email address"
                  value={String(person.attributes['email'] ?? '')}
                  disabled={!mayManage}
                  onKeep={(email) => void change({ email })}
                />
              </Labelled>
              <Labelled label="Home unit">
                <select
                  aria-label="Home unit"
                  className="field-box"
                  disabled={!mayManage}
                  value={String(person.attributes['home_unit'] ?? '')}
                  onChange={(event) => void change({ homeUnit: event.target.value || null })}
                >
                  <option value=""></option>
                  {unitsOf(definition).map((unit) => (
                    <option key={unit.id} value={unit.id}>
                      {unit.name}
                    </option>
                  ))}
                </select>
              </Labelled>
              {definition.attributes.map((one) => (
                <Labelled key={one.id} label={one.name}>
                  <AttributeInput
                    name={one.name}
                    type={one.type}
                    value={person.attributes[one.id] ?? null}
                    disabled={!mayManage}
                    onKeep={(value) => void change({ attributes: { [one.id]: value } })}
                  />
                </Labelled>
              ))}
              <Labelled label="Starts at">
                <select
                  aria-label="Starts at"
                  className="field-box"
                  disabled={!mayManage}
                  value={person.startScreen ?? ''}
                  onChange={(event) => void change({ startScreen: event.target.value || null })}
                >
                  <option value="">Where their roles say</option>
                  {screens.map((screen) => (
                    <option key={screen.id} value={screen.id}>
                      {screen.name}
                    </option>
                  ))}
                </select>
              </Labelled>
              {mayManage && (
                <div className="mt-1 flex flex-wrap gap-2">
                  <button
                    type="button"
                    className="button"
                    onClick={() => void change({ active: !person.active })}
                  >
                    {person.active ? 'Switch off' : 'Switch on'}
                  </button>
                  <button type="button" className="button" onClick={() => void link()}>
                    Send a link to choose a password
                  </button>
                  <button type="button" className="button" onClick={() => void lift()}>
                    Lift the wait after wrong tries
                  </button>
                </div>
              )}
              {told && (
                <p role="alert" className="border-l-4 border-ink bg-sheet px-3 py-2">
                  {told}
                </p>
              )}
            </div>
            <div>
              <Assignments person={person} onChange={(single) => void change(single)} />
              <Inspector person={person} />
            </div>
          </div>
          <Dialog.Close className="button mt-4">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Labelled({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <div className="grid grid-cols-[7.5rem_1fr] items-center gap-2">
      <span className="text-quiet" aria-hidden>
        {label}
      </span>
      {children}
    </div>
  );
}

function AttributeInput({
  name,
  type,
  value,
  disabled,
  onKeep,
}: {
  name: string;
  type: ValueType;
  value: Value | null;
  disabled: boolean;
  onKeep: (value: Value | null) => void;
}) {
  if (type.kind === 'boolean')
    return (
      <select
        aria-label={name}
        className="field-box"
        disabled={disabled}
        value={value === null ? '' : String(value)}
        onChange={(event) => onKeep(event.target.value === '' ? null : event.target.value === 'true')}
      >
        <option value="">Not known</option>
        <option value="true">Yes</option>
        <option value="false">No</option>
      </select>
    );
  return (
    <KeptText
      label={name}
      mayBeEmpty
      placeholder={type.kind === 'date' ? 'YYYY-MM-DD' : ''}
      value={value === null ? '' : String(value)}
      disabled={disabled}
      onKeep={(text) => onKeep(text === '' ? null : text)}
    />
  );
}

const plain = ({ role, unit, from, until }: Assignment): Assignment => ({
  role,
  ...(unit !== undefined && { unit }),
  ...(from !== undefined && { from }),
  ...(until !== undefined && { until }),
});

/** The roles given to a person, each perhaps in one unit, or for a time. */
function Assignments({
  person,
  onChange,
}: {
  person: PersonRow;
  /** One is given or taken away, so that what somebody else does meanwhile stays. */
  onChange: (single: { give: readonly Assignment[] } | { take: readonly Assignment[] }) => void;
}) {
  const { definition, mayManage: mayChange } = usePeopleWork();
  const given = person.assignments.map(plain);
  const offers = useMemo(() => {
    const units = unitsOf(definition);
    return definition.roles.map(({ id, name }): RoleOffer => ({ id, name, everywhere: true, units }));
  }, [definition]);
  return (
    <section aria-label="Roles given">
      <h3 className="mb-1 font-semibold">Roles given</h3>
      <ul>
        {given.map((one, n) => (
          <li key={n} className="flex items-baseline gap-3 py-1">
            <span className="grow">{assignmentInWords(definition, one)}</span>
            {mayChange && (
              <button
                type="button"
                className="link shrink-0"
                aria-label={`Take ${assignmentInWords(definition, one)} away`}
                onClick={() => onChange({ take: [one] })}
              >
                Take away
              </button>
            )}
          </li>
        ))}
        {given.length === 0 && <li className="text-quiet">None.</li>}
      </ul>
      {mayChange && (
        <GiveRole
          roles={offers}
          timeZone={definition.timeZone}
          wide
          onGive={(role) => onChange({ give: [role] })}
        />
      )}
    </section>
  );
}

interface Sessions {
  readonly sessions: readonly {
    readonly since: string;
    readonly values: Readonly<Record<string, { readonly value: Value; readonly until: number }>>;
  }[];
}

/** What the person's session holds now: roles with how they come, privileges, groups, attributes, session values. */
function Inspector({ person }: { person: PersonRow }) {
  const { definition, api } = usePeopleWork();
  const { data } = useAsked<Sessions>(`${api}/people/${person.id}`);
  const session = useMemo((): Values => {
    const entries = data?.sessions.flatMap((one) => Object.entries(one.values)) ?? [];
    return Object.fromEntries(entries.map(([id, held]) => [id, held.value]));
  }, [data]);
  const held = useMemo(
    () => new Held(definition, viewerOfPerson({ ...person, active: true }), { ...rightNow(), session }),
    [definition, person, session],
  );
  const name = (among: readonly { readonly id: string; readonly name: string }[], id: string): string =>
    among.find((one) => one.id === id)?.name ?? id;
  const where = (place: 'everywhere' | ReadonlySet<string> | undefined): string =>
    place === 'everywhere' || place === undefined
      ? ''
      : ` in ${[...place].map((id) => name(unitsOf(definition), id)).join(', ')}`;
  const how = (role: string): string => {
    const ways = person.assignments.filter(
      (one) => held.assigned.has(one.role) && withIncluded(definition, [one.role]).has(role),
    );
    return ways
      .map((one) => (one.role === role ? 'given directly' : `through ${name(definition.roles, one.role)}`))
      .filter((way, n, all) => all.indexOf(way) === n)
      .join(', ');
  };
  const groups = definition.groups.filter(
    (group) => held.isSpokenOf({ kind: 'group', group: group.id })('be true') === true,
  );
  return (
    <section aria-label="What they hold now" className="mt-4 border-t border-rule pt-3">
      <h3 className="mb-1 font-semibold">What their session holds now</h3>
      {!person.active && (
        <p className="mb-1 font-medium">
          They are switched off: until they are switched on, they are nobody.
        </p>
      )}
      <dl className="grid grid-cols-[8rem_1fr] gap-x-3 gap-y-1">
        <dt className="text-quiet">Roles</dt>
        <dd>
          {[...held.roles].map(([role, place]) => (
            <div key={role}>
              {name(definition.roles, role)}
              {where(place)} <span className="text-quiet">({how(role)})</span>
            </div>
          ))}
          {held.roles.size === 0 && 'none'}
        </dd>
        <dt className="text-quiet">Privileges</dt>
        <dd>
          {[...held.privileges]
            .map(([id, place]) => `${name(privilegesOf(definition), id)}${where(place)}`)
            .join(', ') || 'none'}
        </dd>
        <dt className="text-quiet">Groups</dt>
        <dd>{groups.map((group) => group.name).join(', ') || 'none'}</dd>
        <dt className="text-quiet">Attributes</dt>
        <dd>
          {attributesOf(definition)
            .filter((one) => (person.attributes[one.id] ?? null) !== null && !OWN.includes(one.id))
            .map((one) => `${one.name}: ${showValue(one.type, person.attributes[one.id], definition)}`)
            .join(', ') || 'none of your own'}
        </dd>
        <dt className="text-quiet">Session values</dt>
        <dd>
          {(data?.sessions ?? []).length === 0
            ? 'not signed in'
            : Object.entries(session)
                .map(
                  ([id, value]) =>
                    `${name(definition.sessionValues, id)}: ${value === true ? 'Yes' : String(value)}`,
                )
                .join(', ') || 'none'}
        </dd>
      </dl>
      <TestBox held={held} />
    </section>
  );
}

/** Tests a role, a privilege or any condition for this person. */
function TestBox({ held }: { held: Held }) {
  const [text, setText] = useState('');
  const scope = { definition: held.definition };
  const parsed = text.trim() === '' ? undefined : parse(scope, text);
  const answer = parsed?.ok
    ? bind(held.facts, scope, parsed.value, 'be true') === true
      ? 'Yes, for this person it is true now.'
      : bind(held.facts, scope, parsed.value, 'be false') === true
        ? 'No, for this person it is false now.'
        : 'It cannot be told, or only for some records.'
    : parsed && `${parsed.problem.message} ${parsed.problem.mend}`;
  return (
    <div className="mt-3">
      <label>
        <span className="text-quiet">Test a role, a privilege or any condition</span>
        <input
          className="field-box font-mono text-[13px]"
          placeholder='user has role "Registrar"'
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      {answer && (
        <p role="status" className="mt-1">
          {answer}
        </p>
      )}
    </div>
  );
}

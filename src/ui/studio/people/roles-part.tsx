'use client';

import { accessOf, compile, viewerOfRole } from '@/core';
import { rightNow, SIGNED_IN } from '@/core/access';
import { answerInWords, type EditEffect, fullName, removeNamed } from '@/core/edit';
import {
  type Definition,
  type ElementKind,
  findGone,
  type HandOut,
  newId,
  type Role,
  withIncluded,
} from '@/core/model';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useAsked } from '../../parts/queries';
import { useDraft } from '../shell/studio-work';
import { Window } from '../../parts/window';
import { usePeopleWork } from './context';
import { KeptText, Panel, PartHead } from './parts';
import { RolePicture } from './role-picture';

/** Roles: what they are called, what they include, hold and hand out, and what they reach. */
export function RolesPart() {
  const { definition, mayChange, apply } = usePeopleWork();
  const [chosen, setChosen] = useState(definition.roles[0]?.id);
  const role = definition.roles.find((one) => one.id === chosen) ?? definition.roles[0];
  const gone = useMemo(() => findGone(definition), [definition]);
  const add = (): void => {
    const item: Role = { id: newId(), name: newName(definition), includes: [], privileges: [] };
    apply({ do: 'addItem', list: 'roles', at: definition.roles.length, item });
    setChosen(item.id);
  };
  return (
    <>
      <PartHead title="Roles" about="A role that includes another gives all that the other gives.">
        {mayChange && (
          <button type="button" className="button" onClick={add}>
            Add a role
          </button>
        )}
      </PartHead>
      {gone.length > 0 && (
        <ul aria-label="Named and gone" className="mb-4 border-l-4 border-amber bg-amber-soft px-3 py-2">
          {gone.map((one, n) => (
            <li key={n}>
              {one.place}: {one.message} {one.mend}
            </li>
          ))}
        </ul>
      )}
      <Panel label="What includes what">
        <RolePicture roles={definition.roles} chosen={role?.id} onChoose={setChosen} />
      </Panel>
      {role && (
        <div className="mt-4">
          <RoleDetails key={role.id} role={role} />
        </div>
      )}
    </>
  );
}

function newName({ roles }: Definition): string {
  for (let n = 1; ; n++) {
    const name = n === 1 ? 'New role' : `New role ${n}`;
    if (!roles.some((role) => role.name === name)) return name;
  }
}

function RoleDetails({ role }: { role: Role }) {
  const { definition, mayChange, apply } = usePeopleWork();
  const change = (part: Partial<Role>): void =>
    apply({ do: 'changeItem', list: 'roles', from: role, to: { ...role, ...part } });
  const at = definition.roles.indexOf(role);
  const move = (to: number): void => apply({ do: 'moveItem', list: 'roles', id: role.id, from: at, to });
  const others = definition.roles.filter((one) => one.id !== role.id);
  const screens = definition.areas
    .flatMap((area) => area.screens)
    .filter((one) => one.binds?.record !== 'existing');
  const { startScreen, ...withoutStart } = role;
  return (
    <Panel label={role.name}>
      <div className="flex items-center gap-2">
        <KeptText
          label="Name of the role"
          className="max-w-64 font-semibold"
          value={role.name}
          disabled={!mayChange}
          onKeep={(name) => change({ name })}
        />
        <KeptText
          label="What the role is for"
          placeholder="What it is for"
          value={role.description ?? ''}
          disabled={!mayChange}
          mayBeEmpty
          onKeep={(description) => change({ description })}
        />
        {mayChange && (
          <>
            <button
              type="button"
              className="button px-2"
              aria-label="Earlier in the order"
              disabled={at === 0}
              onClick={() => move(at - 1)}
            >
              <ArrowUp size={14} aria-hidden />
            </button>
            <button
              type="button"
              className="button px-2"
              aria-label="Later in the order"
              disabled={at === definition.roles.length - 1}
              onClick={() => move(at + 1)}
            >
              <ArrowDown size={14} aria-hidden />
            </button>
            <DeleteRole role={role} />
          </>
        )}
      </div>
      <div className="mt-3 grid grid-cols-3 gap-5">
        <Checks
          heading="Includes"
          among={others}
          held={role.includes}
          note={(one) => (withIncluded(definition, [one.id]).has(role.id) ? 'includes this one' : undefined)}
          onChange={(includes) => change({ includes })}
        />
        <Checks
          heading="Holds the privileges"
          among={definition.privileges.flatMap((group) => group.privileges)}
          held={role.privileges}
          onChange={(privileges) => change({ privileges })}
        />
        <div>
          <h3 className="mb-1 font-semibold">How people come to it</h3>
          <RoleSwitch role={role} setting="givenToNew" onChange={change}>
            Given to every new person
          </RoleSwitch>
          <RoleSwitch role={role} setting="joinable" onChange={change}>
            People may join by themselves
          </RoleSwitch>
          <RoleSwitch role={role} setting="setsCompared" onChange={change}>
            Looking after people, they may set what conditions compare
          </RoleSwitch>
          {definition.standIn && (
            <RoleSwitch role={role} setting="standInFull" onChange={change}>
              Who stands in for them gets all that they get
            </RoleSwitch>
          )}
          <label className="mt-2 block">
            <span className="text-quiet">Starts at</span>
            <select
              className="field-box"
              disabled={!mayChange}
              value={startScreen ?? ''}
              onChange={(event) =>
                apply({
                  do: 'changeItem',
                  list: 'roles',
                  from: role,
                  to: event.target.value ? { ...role, startScreen: event.target.value } : withoutStart,
                })
              }
            >
              <option value="">Where the application says</option>
              {screens.map((screen) => (
                <option key={screen.id} value={screen.id}>
                  {screen.name}
                </option>
              ))}
            </select>
          </label>
        </div>
      </div>
      <HandsOut role={role} onChange={(handsOut) => change({ handsOut })} />
      <RolePeople role={role} />
      <RoleReach role={role} />
    </Panel>
  );
}

function Checks({
  heading,
  among,
  held,
  note,
  onChange,
}: {
  heading: string;
  among: readonly { readonly id: string; readonly name: string }[];
  held: readonly string[];
  note?: (one: { readonly id: string; readonly name: string }) => string | undefined;
  onChange: (held: readonly string[]) => void;
}) {
  const { mayChange } = usePeopleWork();
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">{heading}</legend>
      {among.length === 0 && <p className="text-quiet">There is none.</p>}
      {among.map((one) => {
        const because = note?.(one);
        return (
          <label key={one.id} className="flex min-h-[24px] items-center gap-1.5">
            <input
              type="checkbox"
              className="accent-open"
              disabled={!mayChange || because !== undefined}
              checked={held.includes(one.id)}
              onChange={(event) =>
                onChange(event.target.checked ? [...held, one.id] : held.filter((id) => id !== one.id))
              }
            />
            {one.name}
            {because && <span className="text-quiet">({because})</span>}
          </label>
        );
      })}
    </fieldset>
  );
}

/** What those with the role may hand out inside the application. */
function HandsOut({ role, onChange }: { role: Role; onChange: (handsOut: readonly HandOut[]) => void }) {
  const { definition, mayChange } = usePeopleWork();
  const given = role.handsOut ?? [];
  return (
    <details className="mt-3" open={given.length > 0}>
      <summary className="font-semibold">
        Hands out to others inside the application: {given.length === 0 ? 'nothing' : `${given.length} roles`}
      </summary>
      <ul className="mt-1 grid grid-cols-2 gap-x-5">
        {definition.roles.map((one) => {
          const now = given.find((each) => each.role === one.id);
          return (
            <li key={one.id} className="flex items-center gap-4">
              <label className="flex min-h-[24px] items-center gap-1.5">
                <input
                  type="checkbox"
                  className="accent-open"
                  disabled={!mayChange}
                  checked={now !== undefined}
                  onChange={(event) =>
                    onChange(
                      event.target.checked
                        ? [...given, { role: one.id }]
                        : given.filter((each) => each.role !== one.id),
                    )
                  }
                />
                {one.name}
              </label>
              {now && (
                <label className="flex min-h-[24px] items-center gap-1.5 text-quiet">
                  <input
                    type="checkbox"
                    className="accent-open"
                    disabled={!mayChange}
                    checked={now.notHeld ?? false}
                    onChange={(event) =>
                      onChange(
                        given.map((each) =>
                          each === now
                            ? event.target.checked
                              ? { role: one.id, notHeld: true }
                              : { role: one.id }
                            : each,
                        ),
                      )
                    }
                  />
                  even without holding it
                </label>
              )}
            </li>
          );
        })}
      </ul>
    </details>
  );
}

/** Who was given the role, the first of them by name. */
function RolePeople({ role }: { role: Role }) {
  const { api } = usePeopleWork();
  const { data: found } = useAsked<{ people: readonly { name: string }[]; total: number }>(
    `${api}/people?role=${role.id}`,
  );
  if (!found) return null;
  const names = found.people.slice(0, 8).map((one) => one.name);
  return (
    <p className="mt-3 border-t border-rule pt-3">
      <span className="font-semibold">Given to</span>{' '}
      {found.total === 0
        ? 'nobody'
        : `${found.total}: ${names.join(', ')}${found.total > names.length ? ' …' : ''}`}
    </p>
  );
}

const COUNTED: readonly (readonly [ElementKind, string])[] = [
  ['screen', 'screens'],
  ['data-field', 'fields of the data'],
  ['button', 'buttons'],
];

/** How much the role gets, and what it adds to the roles that it includes. */
function RoleReach({ role }: { role: Role }) {
  const { definition } = usePeopleWork();
  const { counts, adds } = useMemo(() => {
    const compiled = compile(definition);
    const at = rightNow();
    const own = accessOf(compiled, viewerOfRole(role.id), at);
    const below = [
      accessOf(compiled, SIGNED_IN, at),
      ...role.includes.map((id) => accessOf(compiled, viewerOfRole(id), at)),
    ];
    const { elements } = compiled.tree;
    return {
      counts: COUNTED.map(([kind, name]) => {
        const all = elements.filter((one) => one.kind === kind);
        return `${all.filter((one) => own.answer(one).most > 0).length} of ${all.length} ${name}`;
      }),
      adds: elements.filter((one) => {
        const got = own.answer(one);
        const had = below.map((access) => access.answer(one));
        return had.every(
          (each) => got.most > each.most || (got.most === each.most && got.least > each.least),
        );
      }),
    };
  }, [definition, role]);
  const included = role.includes.map((id) => definition.roles.find((one) => one.id === id)?.name ?? id);
  const at = accessOf(compile(definition), viewerOfRole(role.id), rightNow());
  return (
    <div className="mt-1">
      <p>
        <span className="font-semibold">Gets</span> {counts.join(', ')}.
      </p>
      <details className="mt-1">
        <summary>
          <span className="font-semibold">
            Adds to {included.length > 0 ? included.join(' and ') : 'being signed in'}:
          </span>{' '}
          {adds.length === 0 ? 'nothing' : adds.length === 1 ? '1 thing' : `${adds.length} things`}
        </summary>
        <ul className="mt-1 columns-2">
          {adds.map((one) => (
            <li key={one.id}>
              {fullName(one)}{' '}
              <span className="text-quiet">
                {answerInWords(one.kind, at.answer(at.element(one.id))).toLowerCase()}
              </span>
            </li>
          ))}
        </ul>
      </details>
    </div>
  );
}

/** One of the settings of a role that are on or off. */
function RoleSwitch({
  role,
  setting,
  onChange,
  children,
}: {
  role: Role;
  setting: 'givenToNew' | 'joinable' | 'standInFull' | 'setsCompared';
  onChange: (change: Partial<Role>) => void;
  children: string;
}) {
  const { mayChange } = usePeopleWork();
  return (
    <label className="flex min-h-[24px] items-center gap-1.5">
      <input
        type="checkbox"
        className="accent-open"
        disabled={!mayChange}
        checked={role[setting] ?? false}
        onChange={(event) => onChange({ [setting]: event.target.checked })}
      />
      {children}
    </label>
  );
}

/** Deleting a role says first what it will change. */
function DeleteRole({ role }: { role: Role }) {
  const { definition, api, apply } = usePeopleWork();
  const { revision } = useDraft();
  const [asks, setAsks] = useState(false);
  const edit = removeNamed(definition, 'roles', role.id);
  const { data: effect, error } = useAsked<EditEffect>(asks ? `${api}/effect` : undefined, {
    body: { edit },
    version: revision,
  });
  return (
    <>
      <button type="button" className="button" onClick={() => setAsks(true)}>
        Delete …
      </button>
      <Window title={`Delete ${role.name}?`} open={asks} onOpenChange={setAsks}>
        {!effect && !error && <p>Counting who gains and who loses …</p>}
        {error && <p role="alert">{error.message}</p>}
        {effect && (
          <>
            <p>
              {effect.losing.length === 0
                ? 'Nobody loses anything.'
                : `${effect.losing.length} lose something: ${short(effect.losing)}.`}
            </p>
            <p>
              {effect.gaining.length === 0
                ? 'Nobody gains anything.'
                : `${effect.gaining.length} gain something: ${short(effect.gaining)}.`}
            </p>
            {effect.elements.length > 0 && <p className="mt-1 text-quiet">On {short(effect.elements)}.</p>}
            <p className="mt-2 text-quiet">
              Its lines, and its place in other roles, go with it. Whom it was given to keep it in their list
              as a role that is gone, and it is nobody’s.
            </p>
            <button
              type="button"
              className="button button-main mt-3"
              onClick={() => {
                if (edit) apply(edit);
                setAsks(false);
              }}
            >
              Delete it
            </button>
          </>
        )}
      </Window>
    </>
  );
}

const short = (names: readonly string[]): string =>
  names.length > 6 ? `${names.slice(0, 6).join(', ')} and ${names.length - 6} more` : names.join(', ');

'use client';

import '../../parts/nonce';
import { useMemo, useState } from 'react';
import { parse, viewerOfPerson } from '@/core';
import { Grants, rightNow } from '@/core/access';
import { attributesOf, bind } from '@/core/condition';
import { privilegesOf, showValue, unitsOf, type Values, withIncluded } from '@/core/model';
import { useAsked } from '@/ui/client/queries';
import { personWithSessions } from '@/contract/studio/people';
import { usePeopleWork } from './use-people-work';
import type { PersonRow } from '@/contract/studio/people';

const OWN = ['name', 'email', 'home_unit'];

/** What the person's session holds now: roles with how they come, privileges, groups, attributes, session values. */
export function Inspector({ person }: { person: PersonRow }) {
  const { definition, app } = usePeopleWork();
  const { data } = useAsked(personWithSessions, { app, id: person.id });
  const session = useMemo((): Values => {
    const entries = data?.sessions.flatMap((one) => Object.entries(one.values)) ?? [];
    return Object.fromEntries(entries.map(([id, held]) => [id, held.value]));
  }, [data]);
  const held = useMemo(
    () => new Grants(definition, viewerOfPerson({ ...person, active: true }), { ...rightNow(), session }),
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
      .map((one) =>
        one.role === role ? 'assigned directly' : `included in ${name(definition.roles, one.role)}`,
      )
      .filter((way, n, all) => all.indexOf(way) === n)
      .join(', ');
  };
  const groups = definition.groups.filter(
    (group) => held.isSpokenOf({ kind: 'group', group: group.id })('be true') === true,
  );
  return (
    <section aria-label="Current access" className="mt-4 border-t border-rule pt-3">
      <h3 className="mb-1 font-semibold">Roles, privileges and values of the current session</h3>
      {!person.active && (
        <p className="mb-1 font-medium">This account is disabled. They cannot sign in until it is enabled.</p>
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
            .join(', ') || 'no additional attributes'}
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
function TestBox({ held }: { held: Grants }) {
  const [text, setText] = useState('');
  const scope = { definition: held.definition };
  const parsed = text.trim() === '' ? undefined : parse(scope, text);
  const answer = parsed?.ok
    ? bind(held.facts, scope, parsed.value, 'be true') === true
      ? 'Yes. The condition is true for this person now.'
      : bind(held.facts, scope, parsed.value, 'be false') === true
        ? 'No. The condition is false for this person now.'
        : 'This cannot be determined, or is true only for some records.'
    : parsed && `${parsed.problem.message} ${parsed.problem.mend}`;
  return (
    <div className="mt-3">
      <label>
        <span className="text-quiet">Test a condition, such as a role or privilege</span>
        <input
          className="field-box font-mono text-[13px]"
          // Nothing is lost with it.
          data-as-kept
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

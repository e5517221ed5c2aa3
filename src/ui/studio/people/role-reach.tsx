'use client';

import { accessOf, compile, viewerOfRole } from '@/core';
import { rightNow, SIGNED_IN } from '@/core/access';
import { answerInWords, fullName } from '@/core/edit';
import { type ElementKind, type Role } from '@/core/model';
import { useMemo } from 'react';
import { useAsked } from '@/ui/client/queries';
import { peoplePage } from '@/contract/studio/people';
import { usePeopleWork } from './use-people-work';

/** Who was given the role, the first of them by name. */
export function RolePeople({ role }: { role: Role }) {
  const { app } = usePeopleWork();
  const { data: found } = useAsked(peoplePage, { app, query: { role: role.id } });
  if (!found) return null;
  const names = found.people.slice(0, 8).map((one) => one.name);
  return (
    <p className="mt-3 border-t border-rule pt-3">
      <span className="font-semibold">Assigned to</span>{' '}
      {found.total === 0
        ? 'nobody'
        : `${found.total}: ${names.join(', ')}${found.total > names.length ? ' …' : ''}`}
    </p>
  );
}

const COUNTED: readonly (readonly [ElementKind, string])[] = [
  ['screen', 'screens'],
  ['data-field', 'data fields'],
  ['button', 'buttons'],
];

/** How much the role gets, and what it adds to the roles that it includes. */
export function RoleReach({ role }: { role: Role }) {
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
        <span className="font-semibold">Has access to</span> {counts.join(', ')}.
      </p>
      <details className="mt-1">
        <summary>
          <span className="font-semibold">
            In addition to {included.length > 0 ? included.join(' and ') : 'what every signed-in person has'}:
          </span>{' '}
          {adds.length === 0 ? 'nothing' : adds.length === 1 ? '1 element' : `${adds.length} elements`}
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

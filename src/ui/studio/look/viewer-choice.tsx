'use client';

import { useQueries } from '@tanstack/react-query';
import { ChevronDown } from 'lucide-react';
import { viewerKey } from '@/core';
import { keyedGroups, keyedRoles, LOGIN_STATES, type MadeViewer, SIGNED_IN_KEY } from '@/core/access';
import { type Definition, unitAndBelow, unitsOf } from '@/core/model';
import { asked } from '../../parts/queries';
import { hasWords, type Choice, type ChoiceGroup } from '../../parts/choice-list';
import { ChooseBox, useBox } from '../../parts/choose-box';

interface Somebody {
  readonly id: string;
  readonly name: string;
  readonly active: boolean;
  readonly assignments: readonly { readonly role: string; readonly unit?: string }[];
}

export interface KeptViewer {
  readonly id: string;
  readonly name: string;
  readonly viewer: MadeViewer;
}

const MOST_QUERIES = 4;
const MOST_PEOPLE = 60;

/** Chooses through whose eyes a pane looks: a login state, a role, a group, anybody by name, role or unit, or made up. */
export function ViewerChoice({
  api,
  definition,
  kept,
  name,
  onChoose,
  onMakeUp,
}: {
  api: string;
  definition: Definition;
  kept: readonly KeptViewer[];
  /** Who it is now. */
  name: string;
  onChoose: (key: string) => void;
  onMakeUp: () => void;
}) {
  const box = useBox();
  const people = useFound(api, definition, box.open ? box.words : undefined);
  const fitting = (choices: readonly Choice[]): Choice[] =>
    choices.filter((one) => hasWords(one.name, box.words));
  const groups: readonly ChoiceGroup[] = [
    {
      heading: 'Login states',
      choices: fitting(
        LOGIN_STATES.map((one) => ({ ...one, note: one.key === SIGNED_IN_KEY ? 'no role' : '' })),
      ),
    },
    { heading: 'Roles', choices: fitting(keyedRoles(definition)) },
    {
      heading: 'Groups',
      choices: fitting(keyedGroups(definition).map((one) => ({ ...one, note: 'nothing else known' }))),
    },
    {
      heading: 'Made up and kept',
      choices: fitting(kept.map((one) => ({ key: viewerKey('kept', one.id), name: one.name }))),
    },
    {
      // The server has found them, also by their roles and units.
      heading: 'People',
      choices: people.map((one) => ({
        key: viewerKey('person', one.id),
        name: one.name,
        note: rolesOf(definition, one),
      })),
    },
  ];
  return (
    <ChooseBox
      box={box}
      label="Viewer"
      placeholder="A name, a role or a unit"
      none="Nobody is called that."
      width="w-96"
      groups={groups}
      always={{ key: MAKE_UP, name: 'Make one up …' }}
      onChoose={(key) => (key === MAKE_UP ? onMakeUp() : onChoose(key))}
      trigger={
        <button
          type="button"
          aria-label={`Viewer: ${name}`}
          className="flex max-w-44 shrink-0 items-center gap-1.5 rounded-sm border border-edge bg-paper px-2 py-0.5 font-medium hover:border-ink"
        >
          <span className="truncate">{name}</span>
          <ChevronDown size={13} aria-hidden className="shrink-0" />
        </button>
      }
    />
  );
}

/** No viewer's key: it opens the window where one is put together. */
const MAKE_UP = 'make-up';

function rolesOf(definition: Definition, { assignments, active }: Somebody): string {
  const named = assignments.map(({ role, unit }) => {
    const name = definition.roles.find((one) => one.id === role)?.name ?? 'a role that is gone';
    const place = unitsOf(definition).find((one) => one.id === unit)?.name;
    return place ? `${name} in ${place}` : name;
  });
  return [...(active ? [] : ['switched off']), ...named].join(', ') || 'no role';
}

/** People by name, by a role that has those words in its name, or by a unit; found on the server. */
function useFound(api: string, definition: Definition, words: string | undefined): readonly Somebody[] {
  const wanted = (words ?? '').trim().toLowerCase();
  const has = (name: string): boolean => wanted.length > 1 && name.toLowerCase().includes(wanted);
  const queries = [
    new URLSearchParams({ q: wanted }),
    ...definition.roles.filter(({ name }) => has(name)).map(({ id }) => new URLSearchParams({ role: id })),
    ...unitsOf(definition)
      .filter(({ name }) => has(name))
      .map(({ id }) => new URLSearchParams({ units: [...(unitAndBelow(definition, id) ?? [])].join(',') })),
  ].slice(0, MOST_QUERIES);
  return useQueries({
    queries: queries.map((query) => ({
      ...asked<{ people: readonly Somebody[] }>(`${api}/people?${query}`),
      enabled: words !== undefined,
    })),
    combine: (answers) => {
      const all = answers.flatMap(({ data }) => data?.people ?? []);
      return [...new Map(all.map((one) => [one.id, one])).values()].slice(0, MOST_PEOPLE);
    },
  });
}

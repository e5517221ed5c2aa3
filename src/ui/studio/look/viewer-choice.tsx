'use client';

import { useQueries } from '@tanstack/react-query';
import { Command } from 'cmdk';
import { ChevronDown } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { viewerKey } from '@/core';
import { keyedGroups, keyedRoles, LOGIN_STATES, type MadeViewer, SIGNED_IN_KEY } from '@/core/access';
import { type Definition, unitAndBelow, unitsOf } from '@/core/model';
import { asked } from '../../parts/queries';
import { useFirst } from '../../parts/use-first';

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
  const [open, setOpen] = useState(false);
  const [words, setWords] = useState('');
  const people = useFound(api, definition, open ? words : undefined);
  const has = (one: string): boolean => one.toLowerCase().includes(words.trim().toLowerCase());
  const choose = (key: string): void => {
    setOpen(false);
    setWords('');
    onChoose(key);
  };
  const groups: readonly (readonly [string, readonly (readonly [string, string, string])[]])[] = [
    [
      'Login states',
      LOGIN_STATES.map(
        ({ key, name: state }) => [key, state, key === SIGNED_IN_KEY ? 'no role' : ''] as const,
      ),
    ],
    ['Roles', keyedRoles(definition).map((one) => [one.key, one.name, ''] as const)],
    ['Groups', keyedGroups(definition).map((one) => [one.key, one.name, 'nothing else known'] as const)],
    ['Made up and kept', kept.map((one) => [viewerKey('kept', one.id), one.name, ''] as const)],
    [
      'People',
      people.map((one) => [viewerKey('person', one.id), one.name, rolesOf(definition, one)] as const),
    ],
  ];
  const shownOf = ([heading, options]: (typeof groups)[number]) =>
    heading === 'People' ? options : options.filter(([, one]) => has(one));
  const first = useFirst(groups.flatMap((group) => shownOf(group).map(([key]) => key)));
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        aria-label={`Viewer: ${name}`}
        className="flex max-w-44 shrink-0 items-center gap-1.5 rounded-sm border border-edge bg-paper px-2 py-0.5 font-medium hover:border-ink"
      >
        <span className="truncate">{name}</span>
        <ChevronDown size={13} aria-hidden className="shrink-0" />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align="start" sideOffset={4} className="popover w-96">
          <Command label="Viewer" shouldFilter={false} {...first}>
            <Command.Input
              autoFocus
              value={words}
              onValueChange={setWords}
              placeholder="A name, a role or a unit"
              className="field-box"
            />
            <Command.List className="mt-1 max-h-80 overflow-y-auto">
              {groups.map((group) => {
                const [heading] = group;
                const shown = shownOf(group);
                if (shown.length === 0) return null;
                return (
                  <Command.Group
                    key={heading}
                    heading={heading}
                    className="[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-1.5 [&_[cmdk-group-heading]]:text-[12px] [&_[cmdk-group-heading]]:text-quiet"
                  >
                    {shown.map(([key, one, note]) => (
                      <Command.Item key={key} value={key} className="option" onSelect={() => choose(key)}>
                        {one} <span className="text-quiet">{note}</span>
                      </Command.Item>
                    ))}
                  </Command.Group>
                );
              })}
              <Command.Item
                value="make-up"
                className="option mt-1 border-t border-rule"
                onSelect={() => {
                  setOpen(false);
                  onMakeUp();
                }}
              >
                Make one up …
              </Command.Item>
            </Command.List>
          </Command>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

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

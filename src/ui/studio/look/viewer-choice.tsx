'use client';

import { ChevronDown } from 'lucide-react';
import { viewerKey } from '@/core';
import { keyedGroups, keyedRoles, type KeptViewer, LOGIN_STATES, SIGNED_IN_KEY } from '@/core/access';
import type { Definition } from '@/core/model';
import { hasWords, type Choice, type ChoiceGroup } from '../../parts/choice-list';
import { ChooseBox, useBox } from '../../parts/choose-box';
import { rolesOf, useFoundPeople } from '../shared/found-people';

/** Chooses through whose eyes a pane looks: a login state, a role, a group, anybody by name, role or unit, or made up. */
export function ViewerChoice({
  app,
  definition,
  kept,
  name,
  onChoose,
  onMakeUp,
}: {
  app: string;
  definition: Definition;
  kept: readonly KeptViewer[];
  /** Who it is now. */
  name: string;
  onChoose: (key: string) => void;
  onMakeUp: () => void;
}) {
  const box = useBox();
  const { people, none, asking } = useFoundPeople(app, definition, box.open ? box.words : undefined);
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
      choices: fitting(keyedGroups(definition).map((one) => ({ ...one, note: 'no other details' }))),
    },
    {
      heading: 'Saved custom viewers',
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
      placeholder="Find by name, role or unit"
      none={none}
      asking={asking}
      width="w-96"
      groups={groups}
      always={{ key: MAKE_UP, name: 'New custom viewer…' }}
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

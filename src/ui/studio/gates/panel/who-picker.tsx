'use client';

import { Plus } from 'lucide-react';
import { whoInWords } from '@/core/edit';
import { privilegesInLists, privilegesOf, sameWho, unitsOf, type Who } from '@/core/model';
import { hasWords } from '../../../parts/choice-list';
import { ChooseBox, useBox } from '../../../parts/choose-box';
import { useBench } from '../../frame/bench';
import { rolesOf, useFoundPeople } from '../../shared/found-people';

/** Picks whom a new line speaks of: a login state, a role, a privilege's holders, a group, a unit's people, or a person. */
export function WhoPicker({ taken, onPick }: { taken: readonly Who[]; onPick: (who: Who) => void }) {
  const { definition, people, personName, app } = useBench();
  const box = useBox();
  const { people: found, none, asking } = useFoundPeople(app, definition, box.open ? box.words : undefined);
  const groups: readonly (readonly [string, readonly Who[]])[] = [
    ['Login state', [{ kind: 'everyone' }, { kind: 'signed-in' }, { kind: 'signed-out' }]],
    ['Roles', definition.roles.map((role) => ({ kind: 'role', role: role.id }))],
    [
      'People with a privilege',
      privilegesOf(definition).map((one) => ({ kind: 'privilege', privilege: one.id })),
    ],
    ['Groups', definition.groups.map((one) => ({ kind: 'group', group: one.id }))],
    [
      'Home unit, including units below it',
      unitsOf(definition).map((one) => ({ kind: 'unit', unit: one.id })),
    ],
  ];
  // Another line of the same is for another condition.
  const noteOf = (who: Who): string | undefined =>
    taken.some((one) => sameWho(one, who)) ? 'has a line' : undefined;
  const nameOf = (who: Who): string =>
    who.kind === 'privilege'
      ? (privilegesInLists(definition).find(({ id }) => id === who.privilege)?.name ?? '')
      : whoInWords(who, definition, personName);
  return (
    <ChooseBox
      box={box}
      label="Add line"
      placeholder="Find a role, privilege, group, unit or person"
      none={none}
      asking={asking}
      place={{ align: 'end' }}
      width="w-72"
      groups={[
        ...groups.map(([heading, all]) => ({
          heading,
          choices: all
            .map((who) => ({ key: JSON.stringify(who), name: nameOf(who), note: noteOf(who) }))
            .filter(({ name }) => hasWords(name, box.words)),
        })),
        {
          heading: 'People',
          choices: found.map((one) => {
            const who: Who = { kind: 'person', person: one.id };
            const key = JSON.stringify(who);
            return { key, name: one.name, note: noteOf(who) ?? rolesOf(definition, one) };
          }),
        },
      ]}
      onChoose={(key) => {
        const who = JSON.parse(key) as Who;
        const person = found.find((one) => who.kind === 'person' && one.id === who.person);
        if (person) people.meet(person);
        onPick(who);
      }}
      trigger={
        <button type="button" className="button px-2 py-0.5">
          <Plus size={14} aria-hidden />
          Add line
        </button>
      }
    />
  );
}

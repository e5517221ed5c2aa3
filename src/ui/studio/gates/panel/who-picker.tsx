'use client';

import { Plus } from 'lucide-react';
import { whoInWords } from '@/core/edit';
import { privilegesInLists, privilegesOf, sameWho, unitsOf, type Who } from '@/core/model';
import { hasWords } from '../../../parts/choice-list';
import { ChooseBox, useBox } from '../../../parts/choose-box';
import { useBench } from '../bench';

/** Picks whom a new line speaks of: a login state, a role, a privilege's holders, a group, a unit's people, or a person. */
export function WhoPicker({ taken, onPick }: { taken: readonly Who[]; onPick: (who: Who) => void }) {
  const { definition, people, personName } = useBench();
  const box = useBox();
  const groups: readonly (readonly [string, readonly Who[]])[] = [
    ['Login state', [{ kind: 'everyone' }, { kind: 'signed-in' }, { kind: 'signed-out' }]],
    ['Roles', definition.roles.map((role) => ({ kind: 'role', role: role.id }))],
    [
      'Holders of a privilege',
      privilegesOf(definition).map((one) => ({ kind: 'privilege', privilege: one.id })),
    ],
    ['Groups', definition.groups.map((one) => ({ kind: 'group', group: one.id }))],
    ['At home in a unit, or below it', unitsOf(definition).map((one) => ({ kind: 'unit', unit: one.id }))],
    ['People', people.map((person) => ({ kind: 'person', person: person.id }))],
  ];
  const nameOf = (who: Who): string =>
    who.kind === 'privilege'
      ? (privilegesInLists(definition).find(({ id }) => id === who.privilege)?.name ?? '')
      : whoInWords(who, definition, personName);
  return (
    <ChooseBox
      box={box}
      label="Add who"
      placeholder="Role, privilege, group, unit, person"
      none="Nobody is called that."
      place={{ align: 'end' }}
      width="w-72"
      groups={groups.map(([heading, all]) => ({
        heading,
        choices: all
          .filter((who) => !taken.some((one) => sameWho(one, who)))
          .map((who) => ({ key: JSON.stringify(who), name: nameOf(who) }))
          .filter(({ name }) => hasWords(name, box.words)),
      }))}
      onChoose={(key) => onPick(JSON.parse(key) as Who)}
      trigger={
        <button type="button" className="button px-2 py-0.5">
          <Plus size={14} aria-hidden />
          Add who
        </button>
      }
    />
  );
}

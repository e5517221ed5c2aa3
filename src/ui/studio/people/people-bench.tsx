'use client';

import { useEffect } from 'react';
import { parseAsStringLiteral, useQueryState } from 'nuqs';
import { carry } from '../shell/bench-state';
import { useStudio } from '../shell/studio-work';
import { ConditionsPart } from './conditions-part';
import { GroupsPart } from './groups-part';
import { FactsPart } from './facts-part';
import { JoiningPart } from './joining-part';
import { PeoplePart } from './people-part';
import type { PeoplePage } from '@/contract/studio/people';
import { PrivilegesPart } from './privileges-part';
import { RolesPart } from './roles-part';
import { UnitsPart } from './units-part';

const PARTS = [
  ['people', 'People'],
  ['roles', 'Roles'],
  ['privileges', 'Privileges'],
  ['units', 'Units'],
  ['groups', 'Groups'],
  ['conditions', 'Named conditions'],
  ['facts', 'Attributes and session values'],
  ['joining', 'Application settings'],
] as const;

const PART = parseAsStringLiteral(PARTS.map(([key]) => key)).withDefault('people');

/** The people bench: who there is, and what roles, privileges, units and groups they can have. */
export function PeopleBench({ first }: { first: PeoplePage }) {
  const { app } = useStudio();
  const [part, setPart] = useQueryState('part', PART);
  useEffect(() => carry(app, { part }), [app, part]);
  return (
    <div className="grid min-h-0 grid-cols-[190px_minmax(0,1fr)]">
      <nav aria-label="Sections of the People bench" className="border-r border-rule bg-paper py-3">
        <ul className="grid gap-0.5">
          {PARTS.map(([key, name]) => (
            <li key={key}>
              <button
                type="button"
                aria-current={part === key ? 'page' : undefined}
                className="block w-full border-l-4 border-transparent px-3 py-1 text-left hover:bg-sheet aria-[current]:border-open aria-[current]:bg-open-pale aria-[current]:font-semibold"
                onClick={() => void setPart(key)}
              >
                {name}
              </button>
            </li>
          ))}
        </ul>
      </nav>
      <main data-region="work" tabIndex={-1} className="min-w-0 overflow-auto p-5">
        {part === 'people' && <PeoplePart first={first} />}
        {part === 'roles' && <RolesPart />}
        {part === 'privileges' && <PrivilegesPart />}
        {part === 'units' && <UnitsPart />}
        {part === 'groups' && <GroupsPart />}
        {part === 'conditions' && <ConditionsPart />}
        {part === 'facts' && <FactsPart />}
        {part === 'joining' && <JoiningPart />}
      </main>
    </div>
  );
}

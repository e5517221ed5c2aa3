'use client';

import '../../parts/nonce';
import { useMemo } from 'react';
import { type Assignment } from '@/core/access';
import { unitsOf } from '@/core/model';
import type { RoleOffer } from '@/contract/live';
import { GiveRole } from '../../parts/give-role';
import { usePeopleWork } from './use-people-work';
import { assignmentInWords } from '@/core/edit';
import type { PersonRow } from '@/contract/studio/people';

const plain = ({ role, unit, from, until }: Assignment): Assignment => ({
  role,
  ...(unit !== undefined && { unit }),
  ...(from !== undefined && { from }),
  ...(until !== undefined && { until }),
});

/** The roles given to a person, each perhaps in one unit, or for a time. */
export function Assignments({
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
    <section aria-label="Assigned roles">
      <h3 className="mb-1 font-semibold">Assigned roles</h3>
      <ul>
        {given.map((one, n) => (
          <li key={n} className="flex items-baseline gap-3 py-1">
            <span className="grow">{assignmentInWords(definition, one)}</span>
            {mayChange && (
              <button
                type="button"
                className="link shrink-0"
                aria-label={`Remove ${assignmentInWords(definition, one)}`}
                onClick={() => onChange({ take: [one] })}
              >
                Remove
              </button>
            )}
          </li>
        ))}
        {given.length === 0 && <li className="text-quiet">None.</li>}
      </ul>
      {mayChange && (
        <GiveRole
          roles={offers}
          language={definition.language}
          timeZone={definition.timeZone}
          wide
          onGive={(role) => onChange({ give: [role] })}
        />
      )}
    </section>
  );
}

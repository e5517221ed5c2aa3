'use client';

import { type HandOut, type Role } from '@/core/model';
import { usePeopleWork } from './use-people-work';
import { Checkbox } from '@/ui/parts/checkbox';

/** What those with the role may hand out inside the application. */
export function HandsOut({
  role,
  onChange,
}: {
  role: Role;
  onChange: (handsOut: readonly HandOut[]) => void;
}) {
  const { definition, mayChange } = usePeopleWork();
  const given = role.handsOut ?? [];
  return (
    <details className="mt-3" open={given.length > 0}>
      <summary className="font-semibold">
        Can assign to others in the application: {given.length === 0 ? 'nothing' : `${given.length} roles`}
      </summary>
      <ul className="mt-1 grid grid-cols-2 gap-x-5">
        {definition.roles.map((one) => {
          const now = given.find((each) => each.role === one.id);
          return (
            <li key={one.id} className="flex items-center gap-4">
              <Checkbox
                disabled={!mayChange}
                checked={now !== undefined}
                onTurn={(on) =>
                  onChange(on ? [...given, { role: one.id }] : given.filter((each) => each.role !== one.id))
                }
              >
                {one.name}
              </Checkbox>
              {now && (
                <Checkbox
                  className="text-quiet"
                  disabled={!mayChange}
                  checked={now.notHeld ?? false}
                  onTurn={(on) =>
                    onChange(
                      given.map((each) =>
                        each === now ? (on ? { role: one.id, notHeld: true } : { role: one.id }) : each,
                      ),
                    )
                  }
                >
                  even without having this role
                </Checkbox>
              )}
            </li>
          );
        })}
      </ul>
    </details>
  );
}

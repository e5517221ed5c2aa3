'use client';

import { type HandOut, type Role } from '@/core/model';
import { usePeopleWork } from './use-people-work';

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
        Hands out to others inside the application: {given.length === 0 ? 'nothing' : `${given.length} roles`}
      </summary>
      <ul className="mt-1 grid grid-cols-2 gap-x-5">
        {definition.roles.map((one) => {
          const now = given.find((each) => each.role === one.id);
          return (
            <li key={one.id} className="flex items-center gap-4">
              <label className="flex min-h-[24px] items-center gap-1.5">
                <input
                  type="checkbox"
                  className="accent-open"
                  disabled={!mayChange}
                  checked={now !== undefined}
                  onChange={(event) =>
                    onChange(
                      event.target.checked
                        ? [...given, { role: one.id }]
                        : given.filter((each) => each.role !== one.id),
                    )
                  }
                />
                {one.name}
              </label>
              {now && (
                <label className="flex min-h-[24px] items-center gap-1.5 text-quiet">
                  <input
                    type="checkbox"
                    className="accent-open"
                    disabled={!mayChange}
                    checked={now.notHeld ?? false}
                    onChange={(event) =>
                      onChange(
                        given.map((each) =>
                          each === now
                            ? event.target.checked
                              ? { role: one.id, notHeld: true }
                              : { role: one.id }
                            : each,
                        ),
                      )
                    }
                  />
                  even without holding it
                </label>
              )}
            </li>
          );
        })}
      </ul>
    </details>
  );
}

'use client';

import { send } from '@/ui/client/send';
import { joinRole, leaveRole } from '@/contract/live';
import { useHost } from './host';

interface Props {
  readonly app: string;
  readonly name: string;
  readonly roles: readonly {
    readonly id: string;
    readonly name: string;
    readonly description: string;
    readonly held: boolean;
    /** May be joined, or left, by oneself. */
    readonly mayTurn: boolean;
  }[];
}

/** A person's roles, and those that they may join or leave by themselves. */
export function AccountView({ app, name, roles }: Props) {
  const host = useHost();
  const turn = async (role: string, join: boolean): Promise<void> => {
    const answer = await send(join ? joinRole : leaveRole, { app, role });
    host.tell(
      answer.ok ? (join ? 'You now have this role.' : 'You no longer have this role.') : answer.detail,
    );
    if (answer.ok) host.refresh();
  };
  return (
    <>
      <h1 className="mb-3 text-xl font-semibold">{name}</h1>
      <section className="border-t-2 border-ink bg-paper px-4 pt-2 pb-4" aria-label="Your roles">
        <h2 className="mb-2 font-semibold">Your roles</h2>
        {roles.length === 0 && <p>You have no roles, and there are none you can join.</p>}
        <ul className="grid">
          {roles.map((role) => (
            <li key={role.id} className="flex items-center gap-4 border-b border-sheet py-2">
              <span className="min-w-0 grow">
                <span className="font-medium">{role.name}</span>
                {role.description && <span className="text-quiet"> – {role.description}</span>}
              </span>
              <span className="text-quiet">
                {role.held ? 'you have this role' : 'you do not have this role'}
              </span>
              {role.mayTurn && (
                <button
                  type="button"
                  className="button"
                  aria-label={`${role.held ? 'Leave' : 'Join'} ${role.name}`}
                  onClick={() => void turn(role.id, !role.held)}
                >
                  {role.held ? 'Leave' : 'Join'}
                </button>
              )}
            </li>
          ))}
        </ul>
      </section>
    </>
  );
}

'use client';

import { usePeopleWork } from './use-people-work';
import { Panel, PartHead } from './parts';
import { Outbox } from './outbox';
import { ByPrivilege } from './by-privilege';
import { Select } from '@/ui/parts/select';
import { Checkbox } from '@/ui/parts/checkbox';

/** How people come in, where they start, who may unlock for others, and who may look as others. */
export function JoiningPart() {
  const { definition, mayChange, mayManage, apply } = usePeopleWork();
  const given = definition.roles.filter((role) => role.givenToNew).map((role) => role.name);
  const joinable = definition.roles.filter((role) => role.joinable).map((role) => role.name);
  const screens = definition.areas
    .flatMap((area) => area.screens)
    .filter((one) => one.binds?.record !== 'existing');
  const inFull = definition.roles.filter((role) => role.standInFull).map((role) => role.name);
  const { unlock, standIn } = definition;
  return (
    <>
      <PartHead title="Application settings" about="These settings apply to the whole application." />
      <Panel label="Sign-up">
        <Checkbox
          disabled={!mayChange}
          checked={definition.signUp}
          onTurn={(on) =>
            apply({
              do: 'changeSettings',
              from: { signUp: definition.signUp },
              to: { signUp: on },
            })
          }
        >
          People can sign up for an account themselves
        </Checkbox>
        <p className="text-quiet">
          People who sign up cannot sign in until they open the link sent to their email address. New people
          are assigned {given.join(', ') || 'no role'} and can join {joinable.join(', ') || 'no role'}{' '}
          themselves.
        </p>
        <label className="mt-3 block max-w-72">
          <span className="text-quiet">Default start screen, for people whose roles have none</span>
          <Select
            disabled={!mayChange}
            value={definition.startScreen ?? ''}
            onChoose={(chosen) =>
              apply({
                do: 'changeSettings',
                from: { startScreen: definition.startScreen ?? null },
                to: { startScreen: chosen || null },
              })
            }
            none="The first menu item they can open"
            options={screens}
          />
        </label>
      </Panel>
      <div className="mt-4">
        <Panel label="Temporary unlocking">
          <h2 className="mb-1 font-semibold">Temporary unlocking</h2>
          <ByPrivilege
            label="Privilege for unlocking"
            none="nobody can unlock"
            what="can unlock a locked element on another person’s screen"
            value={unlock}
            onChange={(to) =>
              apply({ do: 'changeSettings', from: { unlock: unlock ?? null }, to: { unlock: to } })
            }
          />
        </Panel>
      </div>
      <div className="mt-4">
        <Panel label="Acting as another person">
          <h2 className="mb-1 font-semibold">Acting as another person</h2>
          <ByPrivilege
            label="Privilege for acting as another person"
            none="nobody can act as another person"
            what="can act as another person in the released application"
            value={standIn}
            onChange={(to) =>
              apply({
                do: 'changeSettings',
                from: { standIn: standIn ?? null },
                to: { standIn: to && { changes: false, ...standIn, ...to } },
              })
            }
          />
          {standIn && (
            <Checkbox
              className="mt-1"
              disabled={!mayChange}
              checked={standIn.changes}
              onTurn={(on) =>
                apply({
                  do: 'changeSettings',
                  from: { standIn },
                  to: { standIn: { ...standIn, changes: on } },
                })
              }
            >
              They can make changes, not just read
            </Checkbox>
          )}
          <p className="mt-1 text-quiet">
            They have only the access that both people have. They have the other person’s full access only if
            every role of that person allows it: {inFull.join(', ') || 'no role allows it'}. Everything is
            recorded in the audit trail under both names.
          </p>
        </Panel>
      </div>
      {mayManage && (
        <div className="mt-4">
          <Outbox />
        </div>
      )}
    </>
  );
}

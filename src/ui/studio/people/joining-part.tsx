'use client';

import { usePeopleWork } from './use-people-work';
import { Panel, PartHead } from './parts';
import { Outbox } from './outbox';
import { ByPrivilege } from './by-privilege';

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
      <PartHead title="Joining and starting" about="For the application as a whole." />
      <Panel label="Signing up">
        <label className="flex min-h-[24px] items-center gap-1.5">
          <input
            type="checkbox"
            className="accent-open"
            disabled={!mayChange}
            checked={definition.signUp}
            onChange={(event) =>
              apply({
                do: 'changeSettings',
                from: { signUp: definition.signUp },
                to: { signUp: event.target.checked },
              })
            }
          />
          People may open an account for themselves
        </label>
        <p className="text-quiet">
          Until they open the link that goes to their address they are nobody. New people get{' '}
          {given.join(', ') || 'no role'}; they may join {joinable.join(', ') || 'no role'} by themselves.
        </p>
        <label className="mt-3 block max-w-72">
          <span className="text-quiet">Where people start whose roles name no screen</span>
          <select
            className="field-box"
            disabled={!mayChange}
            value={definition.startScreen ?? ''}
            onChange={(event) =>
              apply({
                do: 'changeSettings',
                from: { startScreen: definition.startScreen ?? null },
                to: { startScreen: event.target.value || null },
              })
            }
          >
            <option value="">The first that is open to them in the menu</option>
            {screens.map((screen) => (
              <option key={screen.id} value={screen.id}>
                {screen.name}
              </option>
            ))}
          </select>
        </label>
      </Panel>
      <div className="mt-4">
        <Panel label="Unlocking for a while">
          <h2 className="mb-1 font-semibold">Unlocking for a while</h2>
          <ByPrivilege
            label="The privilege to unlock"
            none="nobody unlocks"
            what="may open a locked element on somebody else’s screen"
            value={unlock}
            onChange={(to) =>
              apply({ do: 'changeSettings', from: { unlock: unlock ?? null }, to: { unlock: to } })
            }
          />
        </Panel>
      </div>
      <div className="mt-4">
        <Panel label="Standing in">
          <h2 className="mb-1 font-semibold">Standing in</h2>
          <ByPrivilege
            label="The privilege to stand in"
            none="nobody stands in"
            what="may look as another person in the released application"
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
            <label className="mt-1 flex min-h-[24px] items-center gap-1.5">
              <input
                type="checkbox"
                className="accent-open"
                disabled={!mayChange}
                checked={standIn.changes}
                onChange={(event) =>
                  apply({
                    do: 'changeSettings',
                    from: { standIn },
                    to: { standIn: { ...standIn, changes: event.target.checked } },
                  })
                }
              />
              They may change things meanwhile, and not only read
            </label>
          )}
          <p className="mt-1 text-quiet">
            They get the lower of what both get; in full only for people whose every role allows it:{' '}
            {inFull.join(', ') || 'no role does'}. All of it is in the audit trail under both names.
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

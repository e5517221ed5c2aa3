'use client';

import { Queries, useAsked } from '@/ui/client/queries';
import { send } from '@/ui/client/send';
import { standInChoices, startStandIn } from '@/contract/live';
import { useTell } from '../parts/toasts';
import { ChooseBox, useBox } from '../parts/choose-box';

export interface Props {
  readonly app: string;
  /** Where one lands. */
  readonly base: string;
}

/** Finds a person and begins to look as them. */
export function StandInPicker(props: Props & { label: string }) {
  return (
    <Queries>
      <Inside {...props} />
    </Queries>
  );
}

function Inside({ app, base, label }: Props & { label: string }) {
  const tell = useTell();
  const box = useBox();
  const { data } = useAsked(standInChoices, box.open ? { app, query: { q: box.words } } : undefined, {
    keepsLast: true,
  });
  const begin = (person: string): void =>
    void send(startStandIn, { app, body: { person } }).then((answer) =>
      answer.ok ? window.location.assign(base) : tell(answer.detail),
    );
  return (
    <ChooseBox
      box={box}
      label="Act as someone else"
      placeholder="Name"
      // Nothing is said before anybody could be found.
      none={data ? 'No people match this name.' : ''}
      place={{ align: 'end' }}
      groups={[
        {
          choices: (data?.people ?? []).map(({ id, name, roles }) => ({
            key: id,
            name,
            note: roles.join(', '),
          })),
        },
      ]}
      onChoose={begin}
      about={
        <p className="mt-1 px-2 text-quiet">
          You can see only what both of you have access to, unless the builder allows full access. The session
          ends automatically and is recorded in the audit trail.
        </p>
      }
      trigger={
        <button type="button" className="button">
          {label}
        </button>
      }
    />
  );
}

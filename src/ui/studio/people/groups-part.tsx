'use client';

import type { Condition } from '@/core/condition';
import { removeNamed } from '@/core/edit';
import { type Group, newId } from '@/core/model';
import { useAsked } from '@/ui/client/queries';
import { tryCondition } from '@/contract/studio/draft';
import { usePeopleWork } from './use-people-work';
import { NamedList, Panel } from './parts';
import { ConditionRow } from './condition-row';
import { START } from './start-condition';

/** Groups: named conditions on people. Who is in one is worked out, never kept. */
export function GroupsPart() {
  const { definition, apply } = usePeopleWork();
  const add = (): void =>
    apply({
      do: 'addItem',
      list: 'groups',
      at: definition.groups.length,
      item: { id: newId(), name: 'New group', condition: START },
    });
  return (
    <NamedList
      title="Groups"
      about="A group contains everyone who meets its condition. People are not added by hand."
      add={{ name: 'Add group', run: add }}
      things={definition.groups}
      draw={(one) => <GroupPanel group={one} />}
    />
  );
}

function GroupPanel({ group }: { group: Group }) {
  const { definition, mayChange, apply } = usePeopleWork();
  const change = (to: Group): void => apply({ do: 'changeItem', list: 'groups', from: group, to });
  const removal = removeNamed(definition, 'groups', group.id);
  return (
    <Panel label={group.name}>
      <ConditionRow
        name={group.name}
        scope={{ definition }}
        condition={group.condition}
        onName={(name) => change({ ...group, name })}
        onCondition={(condition) => change({ ...group, condition })}
        onRemove={removal && (() => apply(removal))}
        what="group"
        mayChange={mayChange}
      />
      <Holds condition={group.condition} />
    </Panel>
  );
}

/** Whom the condition holds right now. */
function Holds({ condition }: { condition: Condition }) {
  const { app } = usePeopleWork();
  const { data } = useAsked(tryCondition, { app, body: { condition } }, { keepsLast: true });
  if (!data) return null;
  const { people } = data;
  return (
    <p className="mt-1 text-quiet">
      Currently {people.hits} of {people.of} people
      {people.examples.length > 0 &&
        `: ${people.examples.join(', ')}${people.hits > people.examples.length ? ' …' : ''}`}
    </p>
  );
}

'use client';

import { RadioGroup } from 'radix-ui';
import type { ReactNode } from 'react';
import { handleName } from '@/core/edit';
import { type AppElement, isDataDoor } from '@/core/model';
import { useBench } from '../../frame/bench';

/** What really protects the selected element: its door, what holds it open, and where to gate. */
export function DoorBox() {
  const { compiled, selected } = useBench();
  const door = isDataDoor(selected)
    ? selected
    : compiled.tree.get(compiled.handles.doorOf(selected)?.id ?? '');
  if (!door) return selected.kind === 'screen' ? <LedHere /> : null;
  if (door.kind === 'screen')
    return (
      <Box>
        It opens <ElementLink element={door} /> and follows that screen automatically: people who cannot open
        the screen do not see this.
      </Box>
    );
  return <DataDoor door={door} />;
}

function Box({ children }: { children: ReactNode }) {
  return <div className="mb-4 border-l-4 border-lead bg-plate px-3 py-2">{children}</div>;
}

function ElementLink({ element, name }: { element: AppElement; name?: string }) {
  const { select } = useBench();
  return (
    <a
      className="link"
      href={`?element=${element.id}`}
      onClick={(event) => {
        event.preventDefault();
        select(element.id);
      }}
    >
      {name ?? element.name}
    </a>
  );
}

/** For a screen: what leads to it. */
function LedHere() {
  const { compiled, selected } = useBench();
  const leading = compiled.handles.handlesOf(selected).flatMap((id) => compiled.tree.get(id) ?? []);
  if (leading.length === 0) return null;
  return (
    <Box>
      The door is the screen itself. These links to it follow automatically:{' '}
      <ElementLinks elements={leading} />
    </Box>
  );
}

function ElementLinks({ elements }: { elements: readonly AppElement[] }) {
  return (
    <>
      {elements.map((one, n) => (
        <span key={one.id}>
          {n > 0 && ', '}
          <ElementLink element={one} name={handleName(one)} />
        </span>
      ))}
      .
    </>
  );
}

function DataDoor({ door }: { door: AppElement }) {
  const { compiled, viewers, accessFor, selected } = useBench();
  const follows = compiled.lines(door.id) === undefined;
  const handles = compiled.handles.handlesOf(door).flatMap((id) => compiled.tree.get(id) ?? []);
  const holds = (one: AppElement): boolean =>
    viewers.some((viewer) => accessFor(viewer).most.gateRule(one).see !== false);
  const holding = handles.filter((one) => one !== selected && holds(one));
  const closed = handles.filter((one) => one !== selected && !holds(one));
  const name = door.kind === 'rows' ? `${door.name}, its records` : `${door.container?.name}: ${door.name}`;
  const never = door.kind === 'data-field' && door.node.neverFollows && follows;
  return (
    <Box>
      <p>
        <span className="font-semibold">
          Door: {door === selected ? name : <ElementLink element={door} name={name} />}
        </span>
        {never
          ? ' never follows the screens, so it is closed unless it has its own lines.'
          : follows
            ? ' follows the screens.'
            : ' has its own lines.'}
      </p>
      {follows && !never && (
        <p className="mt-1">
          {holding.length > 0 ? (
            <>
              {door === selected ? 'Opened by ' : 'Also opened by '}
              <ElementLinks elements={holding} />
            </>
          ) : door === selected ? (
            'No screen shows it to anyone.'
          ) : (
            'Nothing else opens it.'
          )}
        </p>
      )}
      {!follows && handles.length > (door === selected ? 0 : 1) && (
        <p className="mt-1">
          No screen can show more than this: <ElementLinks elements={[...holding, ...closed]} />
        </p>
      )}
      {door !== selected && <WhereToGate door={door} />}
    </Box>
  );
}

/** Whether the lines below are those of this one place, or of the data wherever it shows. */
function WhereToGate({ door }: { door: AppElement }) {
  const { selected, target, setTarget } = useBench();
  const what = door.kind === 'action' ? 'the action' : door.kind === 'rows' ? 'the records' : 'the data';
  return (
    <RadioGroup.Root
      aria-label="Where to control access"
      value={target.id}
      onValueChange={setTarget}
      className="mt-2 grid gap-1 border-t border-rule pt-2"
    >
      <Choice value={selected.id}>Control access on this screen only</Choice>
      <Choice value={door.id}>Control access to {what} everywhere</Choice>
    </RadioGroup.Root>
  );
}

function Choice({ value, children }: { value: string; children: ReactNode }) {
  return (
    <label className="flex cursor-pointer items-center gap-1.5">
      <RadioGroup.Item
        value={value}
        className="size-3.5 rounded-full border border-edge bg-paper data-[state=checked]:border-open"
      >
        <RadioGroup.Indicator className="m-auto block size-2 rounded-full bg-open" />
      </RadioGroup.Item>
      {children}
    </label>
  );
}

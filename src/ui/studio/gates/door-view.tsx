'use client';

import { accessOf, compile } from '@/core';
import { sameAnswer } from '@/core/access';
import { answerInWords } from '@/core/edit';
import {
  type Action,
  type AppElement,
  type Entity,
  type EntityField,
  newId,
  readValue,
  showValue,
  type Value,
} from '@/core/model';
import { useMemo } from 'react';
import { useBench } from './bench';
import { ReachStrip } from '../shared/level-mark';
import { KeptText } from '../people/parts';

/** The doors of one entity: its rows, its actions, its fields, and how the screens stand to each. */
export function DoorView({ entity }: { entity: Entity }) {
  const { compiled, mayChange, apply } = useBench();
  const rows = compiled.tree.need(entity.id, 'rows');
  const change = (to: Entity): void => apply({ do: 'changeItem', list: 'entities', from: entity, to });
  const doors = rows.contents;
  const missing = (['export', 'bulk'] as const).filter(
    (kind) => !entity.actions.some((one) => one.kind === kind),
  );
  return (
    <section aria-label="Doors" className="flex min-h-0 min-w-0 flex-col overflow-auto bg-sheet p-3">
      <div className="mb-2 flex flex-wrap items-center gap-3">
        <h2 className="mr-auto text-lg font-semibold">Doors of {entity.plural}</h2>
        {mayChange &&
          missing.map((kind) => (
            <button
              key={kind}
              type="button"
              className="button"
              onClick={() =>
                change({
                  ...entity,
                  actions: [
                    ...entity.actions,
                    { kind, id: newId(), name: kind === 'export' ? 'Export' : 'Change many' },
                  ],
                })
              }
            >
              Add {kind === 'export' ? 'export' : 'bulk change'}
            </button>
          ))}
        {mayChange && (
          <button
            type="button"
            className="button"
            onClick={() =>
              change({
                ...entity,
                actions: [...entity.actions, { kind: 'named', id: newId(), name: 'New action', sets: {} }],
              })
            }
          >
            Add an action
          </button>
        )}
      </div>
      <table className="w-full border-t-2 border-ink bg-paper text-left">
        <thead>
          <tr className="border-b border-rule">
            <th className="px-2 py-1 font-medium">Door</th>
            <th className="px-2 py-1 font-medium">Who gets it</th>
            <th className="px-2 py-1 font-medium">How it stands to the screens</th>
          </tr>
        </thead>
        <tbody>
          <Heading words="Rows: which records" />
          <DoorRow door={rows} />
          <Heading words="Actions" />
          {doors
            .filter((one) => one.kind === 'action')
            .map((one) => (
              <DoorRow key={one.id} door={one}>
                {one.kind === 'action' && one.node.kind === 'named' && (
                  <NamedActionForm entity={entity} action={one.node} onChange={change} />
                )}
              </DoorRow>
            ))}
          <Heading words="Fields" />
          {doors
            .filter((one) => one.kind === 'data-field')
            .map((one) => (
              <DoorRow key={one.id} door={one}>
                {one.kind === 'data-field' && !compiled.lines(one.id) && (
                  <label className="flex min-h-[24px] items-center gap-1.5 text-[13px] text-quiet">
                    <input
                      type="checkbox"
                      className="accent-open"
                      disabled={!mayChange}
                      checked={one.node.neverFollows ?? false}
                      onChange={(event) =>
                        change(withField(entity, { ...one.node, neverFollows: event.target.checked }))
                      }
                    />
                    never follows the screens
                  </label>
                )}
              </DoorRow>
            ))}
        </tbody>
      </table>
    </section>
  );
}

const withField = (entity: Entity, field: EntityField): Entity => ({
  ...entity,
  fields: entity.fields.map((one) => (one.id === field.id ? field : one)),
});

const Heading = ({ words }: { words: string }) => (
  <tr>
    <th colSpan={3} scope="rowgroup" className="bg-plate px-2 pt-2 pb-1 text-[12px] font-normal text-quiet">
      {words}
    </th>
  </tr>
);

function DoorRow({ door, children }: { door: AppElement; children?: React.ReactNode }) {
  const { compiled, viewers, accessFor, selected, select } = useBench();
  const answers = viewers.map((viewer) => accessFor(viewer).answer(door));
  const reach = viewers
    .map((viewer, n) => `${viewer.name}: ${answerInWords(door.kind, answers[n] ?? { least: 0, most: 0 })}`)
    .join(', ');
  const own = compiled.lines(door.id) !== undefined;
  return (
    <tr
      className={`cursor-pointer border-b border-sheet align-top ${door === selected ? 'bg-open-soft' : 'hover:bg-plate'}`}
      onClick={() => select(door.id)}
    >
      <td className="px-2 py-1.5">
        <button type="button" className="link" onClick={() => select(door.id)}>
          {door.kind === 'rows' ? 'Which records' : door.name}
        </button>
        <div onClick={(event) => event.stopPropagation()}>{children}</div>
      </td>
      <td className="px-2 py-2">
        <ReachStrip answers={answers} label={reach} />
      </td>
      <td className="px-2 py-1.5">{own ? <Compared door={door} /> : <Follows door={door} />}</td>
    </tr>
  );
}

function Follows({ door }: { door: AppElement }) {
  const { compiled } = useBench();
  if (door.kind === 'data-field' && door.node.neverFollows)
    return <>Closed: it never follows, and has no lines.</>;
  const handles = compiled.handles.handlesOf(door).length;
  return (
    <>{handles === 0 ? 'Follows, and no screen has it: closed.' : `Follows ${handles} on the screens.`}</>
  );
}

/** For a door with lines of its own: for whom the screens would show more than it gives, or show less. */
function Compared({ door }: { door: AppElement }) {
  const { definition, viewers, accessFor, circumstances } = useBench();
  const { more, less } = useMemo(() => {
    const gates = Object.fromEntries(Object.entries(definition.gates).filter(([id]) => id !== door.id));
    const following = compile({ ...definition, gates });
    const found: { more: string[]; less: string[] } = { more: [], less: [] };
    for (const viewer of viewers) {
      const now = accessFor(viewer).answer(door);
      const access = accessOf(following, viewer.viewer, circumstances);
      const shown = access.answer(access.element(door.id));
      if (sameAnswer(now, shown)) continue;
      (shown.most > now.most || shown.least > now.least ? found.more : found.less).push(viewer.name);
    }
    return found;
  }, [definition, viewers, accessFor, circumstances, door]);
  return (
    <>
      <span className="font-medium">Lines of its own.</span>{' '}
      {more.length > 0 && <>Narrower than the screens for {more.join(', ')}. </>}
      {less.length > 0 && <>Wider than any screen shows for {less.join(', ')}. </>}
      {more.length + less.length === 0 && 'As wide as the screens.'}
    </>
  );
}

/** What a named action sets, and what it asks before. */
function NamedActionForm({
  entity,
  action,
  onChange,
}: {
  entity: Entity;
  action: Extract<Action, { kind: 'named' }>;
  onChange: (to: Entity) => void;
}) {
  const { definition, mayChange, compiled } = useBench();
  const put = (to: Action): void =>
    onChange({ ...entity, actions: entity.actions.map((one) => (one.id === action.id ? to : one)) });
  const free = entity.fields.filter((field) => !Object.hasOwn(action.sets, field.id));
  const used = compiled.handles.buttonsOf(action.id).length;
  const { confirm, ...unasked } = action;
  return (
    <details className="text-[13px]">
      <summary>
        {Object.keys(action.sets).length === 0
          ? 'Sets nothing: it only reads'
          : `Sets ${Object.keys(action.sets)
              .map((id) => entity.fields.find((field) => field.id === id)?.name ?? id)
              .join(', ')}`}
        {confirm && ', after a question'}
      </summary>
      <div className="my-1 grid gap-1 border-l-2 border-edge pl-2">
        <KeptText
          label="Name of the action"
          value={action.name}
          disabled={!mayChange}
          onKeep={(name) => put({ ...action, name })}
        />
        {Object.entries(action.sets).map(([id, value]) => {
          const field = entity.fields.find((one) => one.id === id);
          if (!field) return null;
          return (
            <SetValue
              key={id}
              field={field}
              value={value}
              shown={showValue(field.type, value, definition)}
              disabled={!mayChange}
              onChange={(next) => put({ ...action, sets: { ...action.sets, [id]: next } })}
              onRemove={() =>
                put({
                  ...action,
                  sets: Object.fromEntries(Object.entries(action.sets).filter(([one]) => one !== id)),
                })
              }
            />
          );
        })}
        {mayChange && free.length > 0 && (
          <select
            aria-label="Set another field"
            className="field-box"
            value=""
            onChange={(event) => put({ ...action, sets: { ...action.sets, [event.target.value]: null } })}
          >
            <option value="">Set another field …</option>
            {free.map((field) => (
              <option key={field.id} value={field.id}>
                {field.name}
              </option>
            ))}
          </select>
        )}
        <KeptText
          label="Asks first"
          placeholder="What it asks first; empty: nothing"
          mayBeEmpty
          value={confirm ?? ''}
          disabled={!mayChange}
          onKeep={(text) => put(text === '' ? unasked : { ...action, confirm: text })}
        />
        {mayChange && (
          <button
            type="button"
            className="link justify-self-start"
            disabled={used > 0}
            title={used > 0 ? 'Buttons use it' : undefined}
            onClick={() =>
              onChange({ ...entity, actions: entity.actions.filter((one) => one.id !== action.id) })
            }
          >
            {used > 0 ? `Used by ${used === 1 ? 'a button' : `${used} buttons`}` : 'Delete the action'}
          </button>
        )}
      </div>
    </details>
  );
}

function SetValue({
  field,
  value,
  shown,
  disabled,
  onChange,
  onRemove,
}: {
  field: EntityField;
  value: Value | null;
  shown: string;
  disabled: boolean;
  onChange: (value: Value | null) => void;
  onRemove: () => void;
}) {
  const options =
    field.type.kind === 'choice'
      ? field.type.options
      : field.type.kind === 'boolean'
        ? [
            { id: 'true', name: 'Yes' },
            { id: 'false', name: 'No' },
          ]
        : undefined;
  const keep = (text: string): void => {
    const raw = field.type.kind === 'boolean' && text !== '' ? text === 'true' : text;
    const reading = readValue({ ...field, required: false }, raw);
    if ('value' in reading) onChange(reading.value);
  };
  return (
    <div className="flex items-center gap-2">
      <span className="w-28 shrink-0 truncate">{field.name}</span>
      {options ? (
        <select
          aria-label={`${field.name} becomes`}
          className="field-box"
          disabled={disabled}
          value={value === null ? '' : String(value)}
          onChange={(event) => keep(event.target.value)}
        >
          <option value="">empty</option>
          {options.map((option) => (
            <option key={option.id} value={option.id}>
              {option.name}
            </option>
          ))}
        </select>
      ) : (
        <KeptText
          label={`${field.name} becomes`}
          placeholder="empty"
          mayBeEmpty
          value={typeof value === 'string' ? value : shown}
          disabled={disabled}
          onKeep={keep}
        />
      )}
      {!disabled && (
        <button type="button" className="link" onClick={onRemove} aria-label={`Do not set ${field.name}`}>
          Not
        </button>
      )}
    </div>
  );
}

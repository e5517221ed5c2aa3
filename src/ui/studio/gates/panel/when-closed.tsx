'use client';

import { useStateFor } from '../../../parts/use-state-for';
import type { Closed } from '@/core/model';
import { useBench } from '../../frame/bench';

type Show = Closed['show'] | 'left-out';

const FOR_SCREENS: readonly (readonly [Show, string])[] = [
  ['left-out', 'Refused, in the usual words'],
  ['refused', 'Refused, in your words'],
  ['sent', 'Sent to another screen'],
  ['secret', 'Kept secret: as if it did not exist'],
];
const FOR_PARTS: readonly (readonly [Show, string])[] = [
  ['left-out', 'Left out'],
  ['locked', 'Its name and a lock'],
  ['explained', 'Its name, and your words when it is used'],
];
const PARTS = ['section', 'field', 'button', 'list', 'chart', 'column', 'text', 'people', 'menu-item'];

/** What those see who do not get the selected element. */
export function WhenClosed() {
  const { definition, selected, apply, mayChange, compiled } = useBench();
  const now = Object.hasOwn(definition.closed, selected.id) ? definition.closed[selected.id] : undefined;
  const choices = selected.kind === 'screen' ? FOR_SCREENS : PARTS.includes(selected.kind) ? FOR_PARTS : [];
  if (choices.length === 0) return null;
  const change = (to: Closed | undefined): void =>
    apply({ do: 'changeClosed', element: selected.id, ...(now && { from: now }), ...(to && { to }) });
  const others = compiled.tree
    .screens()
    .filter((one) => one.id !== selected.id && one.binds?.record !== 'existing');
  const pick = (show: Show): void => {
    if (show === 'left-out') return change(undefined);
    if (show === 'sent') return change({ show, screen: others[0]?.id ?? '' });
    if (show === 'refused') return change({ show, text: 'This is not open to you.' });
    if (show === 'explained') return change({ show, text: 'This is not open to you.' });
    change({ show });
  };
  return (
    <div className="mb-4">
      <label className="grid gap-1">
        <span className="font-semibold">Who does not get it sees</span>
        <select
          className="field-box"
          disabled={!mayChange}
          value={now?.show ?? 'left-out'}
          onChange={(event) => pick(event.target.value as Show)}
        >
          {choices.map(([show, words]) => (
            <option key={show} value={show}>
              {words}
            </option>
          ))}
        </select>
      </label>
      {now && 'text' in now && (
        <Words
          key={selected.id}
          text={now.text}
          disabled={!mayChange}
          onChange={(text) => change({ ...now, text })}
        />
      )}
      {now?.show === 'sent' && (
        <select
          aria-label="Screen to send to"
          className="field-box mt-1"
          disabled={!mayChange}
          value={now.screen}
          onChange={(event) => change({ show: 'sent', screen: event.target.value })}
        >
          {others.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </select>
      )}
      {now?.show === 'secret' && (
        <p className="mt-1 text-quiet">
          What leads to it is always left out for them, whatever it says itself.
        </p>
      )}
    </div>
  );
}

/** The builder's words; kept when the field is left. */
function Words({
  text,
  disabled,
  onChange,
}: {
  text: string;
  disabled: boolean;
  onChange: (text: string) => void;
}) {
  const [written, setWritten] = useStateFor(text, text);
  return (
    <textarea
      aria-label="What they read"
      rows={2}
      className="field-box mt-1"
      disabled={disabled}
      value={written}
      onChange={(event) => setWritten(event.target.value)}
      onBlur={() => written.trim() !== '' && written !== text && onChange(written.trim())}
    />
  );
}

'use client';

import { useStateFor } from '../../../parts/use-state-for';
import type { Closed } from '@/core/model';
import { useBench } from '../../frame/bench';
import { Select } from '@/ui/parts/select';

type Show = Closed['show'] | 'left-out';

const FOR_SCREENS: readonly (readonly [Show, string])[] = [
  ['left-out', 'The standard “no access” page'],
  ['refused', 'A “no access” page with your own text'],
  ['sent', 'Redirect to another screen'],
  ['secret', '“Page not found”, as if it did not exist'],
];
const FOR_PARTS: readonly (readonly [Show, string])[] = [
  ['left-out', 'Nothing (hidden)'],
  ['locked', 'Its label with a lock'],
  ['explained', 'Its label; using it shows your own text'],
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
    if (show === 'refused') return change({ show, text: 'You do not have access to this.' });
    if (show === 'explained') return change({ show, text: 'You do not have access to this.' });
    change({ show });
  };
  return (
    <div className="mb-4">
      <label className="grid gap-1">
        <span className="font-semibold">People without access see</span>
        <Select
          disabled={!mayChange}
          value={now?.show ?? 'left-out'}
          onChoose={(chosen) => pick(chosen as Show)}
          options={choices.map(([show, words]) => ({ id: show, name: words }))}
        />
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
        <Select
          aria-label="Screen to redirect to"
          className="mt-1"
          disabled={!mayChange}
          value={now.screen}
          onChoose={(chosen) => change({ show: 'sent', screen: chosen })}
          options={others}
        />
      )}
      {now?.show === 'secret' && (
        <p className="mt-1 text-quiet">
          Links to this screen are always hidden from them, whatever the links’ own settings.
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
      aria-label="Text they see"
      rows={2}
      className="field-box mt-1"
      disabled={disabled}
      value={written}
      onChange={(event) => setWritten(event.target.value)}
      onBlur={() => written.trim() !== '' && written !== text && onChange(written.trim())}
    />
  );
}

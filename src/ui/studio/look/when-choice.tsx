'use client';

import { useState } from 'react';
import { ChevronDown } from 'lucide-react';
import { Popover } from 'radix-ui';
import { addDays, momentOf, readClock, WEEKDAYS } from '@/core/condition';
import type { Definition } from '@/core/model';
import type { PaneState } from './pane-state';
import { OnlyDays } from '../../parts/day-box';
import { ValueBox } from '@/ui/parts/value-box';

const TIMES = ['08:00', '12:00', '15:00', '19:00', '23:00'] as const;
const EVENING = '19:00';

/** At which moment a pane looks, in the application's time zone, and what is set in its viewer's session. */
export function WhenChoice({
  definition,
  state,
  onChange,
}: {
  definition: Definition;
  state: PaneState;
  onChange: (change: Pick<PaneState, 'moment' | 'session'>) => void;
}) {
  const { timeZone, sessionValues } = definition;
  const { moment, session } = state;
  const [now] = useState(() => Date.now());
  const clock = readClock(moment ?? now, timeZone);
  const set = (local: string): void => {
    const found = momentOf(local, timeZone);
    if (!Number.isNaN(found)) onChange({ moment: found, session });
  };
  const held = sessionValues.filter(({ id }) => (session[id] ?? null) !== null);
  const said = moment === undefined ? 'now' : momentInWords(definition, moment);
  return (
    <Popover.Root>
      <Popover.Trigger
        aria-label={`When: ${[said, ...held.map(({ name }) => name)].join(', ')}`}
        className="flex shrink-0 items-center gap-1.5 rounded-sm border border-edge bg-paper px-2 py-0.5 hover:border-ink"
      >
        {said}
        {held.length > 0 && <span className="text-quiet">+ {held.map(({ name }) => name).join(', ')}</span>}
        <ChevronDown size={13} aria-hidden />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align="start" sideOffset={4} className="popover grid w-96 grid-cols-1 gap-2 p-3">
          <div className="flex items-center gap-2">
            <OnlyDays
              aria-label="Day"
              language={definition.language}
              value={clock.today}
              onDay={(day) => day && set(`${day}T${clock.time}`)}
            />
            <input
              type="time"
              aria-label="Time"
              className="field-box w-28"
              value={clock.time}
              onChange={({ target }) => target.value && set(`${clock.today}T${target.value}`)}
            />
            <button
              type="button"
              className="button"
              aria-pressed={moment === undefined}
              onClick={() => onChange({ moment: undefined, session })}
            >
              Use current time
            </button>
          </div>
          <div role="group" aria-label="Day" className="flex gap-1">
            {WEEKDAYS.map((day) => (
              <button
                key={day}
                type="button"
                aria-pressed={clock.weekday === day}
                className="button min-w-0 flex-1 justify-center px-0 capitalize aria-pressed:border-open aria-pressed:bg-open-soft"
                onClick={() =>
                  set(`${nextDay(clock.today, day)}T${moment === undefined ? EVENING : clock.time}`)
                }
              >
                {day.slice(0, 3)}
              </button>
            ))}
          </div>
          <div role="group" aria-label="Time of day" className="flex gap-1">
            {TIMES.map((time) => (
              <button
                key={time}
                type="button"
                aria-pressed={moment !== undefined && clock.time === time}
                className="button min-w-0 flex-1 justify-center px-0 aria-pressed:border-open aria-pressed:bg-open-soft"
                onClick={() => set(`${clock.today}T${time}`)}
              >
                {time}
              </button>
            ))}
          </div>
          <p className="text-[12px] text-quiet">Times are in the application’s time zone ({timeZone}).</p>
          {sessionValues.length > 0 && (
            <div className="grid gap-2 border-t border-rule pt-2">
              {sessionValues.map(({ id, name, type }) => (
                <label key={id} className="flex items-center justify-between gap-2">
                  {name}
                  <span className="w-40">
                    <ValueBox
                      manner={definition}
                      none="not set"
                      type={type}
                      value={session[id] ?? null}
                      onChange={(value) => onChange({ moment, session: { ...session, [id]: value } })}
                    />
                  </span>
                </label>
              ))}
            </div>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** The first such day from a date on. */
function nextDay(from: string, weekday: string): string {
  for (let n = 0; n < 7; n++) {
    const day = addDays(from, n);
    if (readClock(Date.parse(`${day}T12:00:00Z`), 'UTC').weekday === weekday) return day;
  }
  return from;
}

/** A moment in the words of the application's language and time zone. */
export const momentInWords = ({ language, timeZone }: Definition, moment: number): string =>
  new Intl.DateTimeFormat(language, {
    timeZone,
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  }).format(moment);

'use client';

import { CalendarDays } from 'lucide-react';
import dynamic from 'next/dynamic';
import { Popover } from 'radix-ui';
import { useState, type ComponentProps, type Ref } from 'react';
import { dayInWords, isDate, readDay } from '@/core/model';

/** Only who opens it loads it. */
const Calendar = dynamic(() => import('./calendar'), { loading: () => <p className="p-2">Loading…</p> });

interface Props extends Pick<ComponentProps<'input'>, 'id' | 'disabled' | 'onBlur' | 'name' | 'aria-label'> {
  /** The application's, BCP 47: days are shown and read as it writes them. */
  readonly language: string;
  /** `2026-03-14`, or empty; what could not be read stands as it was typed. */
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly inputRef?: Ref<HTMLInputElement>;
  readonly required?: boolean | undefined;
  readonly describedBy?: string | undefined;
  readonly invalid?: boolean | undefined;
}

/** A box for a day: typed as the language writes it, or chosen in a calendar. */
export function DayBox({
  language,
  value,
  onChange,
  inputRef,
  required,
  describedBy,
  invalid,
  ...input
}: Props) {
  const [typed, setTyped] = useState<string>();
  const [open, setOpen] = useState(false);
  const words = dayInWords(language, value);
  const wrong = typed === undefined && value !== '' && words === '';
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Anchor asChild>
        <span
          className={`field-box flex min-w-0 items-center p-0 ${invalid || wrong ? 'border-2 border-ink' : ''}`}
        >
          <input
            {...input}
            ref={inputRef}
            type="text"
            autoComplete="off"
            aria-invalid={invalid || wrong || undefined}
            aria-required={required || undefined}
            aria-describedby={describedBy}
            placeholder={`for example ${exampleIn(language)}`}
            className="min-w-0 flex-1 bg-transparent px-2 py-1 outline-none"
            value={typed ?? (words || value)}
            onChange={({ target: { value: text } }) => {
              setTyped(text);
              onChange(readDay(language, text, today()) ?? text.trim());
            }}
            onKeyDown={(event) => {
              if (event.key !== 'ArrowDown' || !event.altKey) return;
              event.preventDefault();
              setOpen(true);
            }}
            onBlur={(event) => {
              setTyped(undefined);
              input.onBlur?.(event);
            }}
          />
          <Popover.Trigger
            aria-label={`Calendar${input['aria-label'] ? `: ${input['aria-label']}` : ''}`}
            title="Calendar (Alt ↓)"
            disabled={input.disabled}
            className="px-1.5 text-quiet hover:text-ink disabled:opacity-50"
          >
            <CalendarDays size={15} aria-hidden />
          </Popover.Trigger>
        </span>
      </Popover.Anchor>
      {wrong && !invalid && (
        <span role="alert" className="block text-[13px] font-medium">
          This is not a valid date. Use the format {exampleIn(language)}.
        </span>
      )}
      <Popover.Portal>
        <Popover.Content align="end" sideOffset={4} className="popover w-auto p-2">
          <Calendar
            language={language}
            day={words === '' ? '' : value}
            onDay={(day) => {
              onChange(day);
              setTyped(undefined);
              setOpen(false);
            }}
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** The same for who takes nothing but days: what is none stays in the box, and is not told. */
export function OnlyDays({
  value,
  onDay,
  ...more
}: Pick<Props, 'language' | 'value' | 'disabled' | 'aria-label'> & { onDay: (day: string) => void }) {
  const [unread, setUnread] = useState<string>();
  return (
    <DayBox
      {...more}
      value={unread ?? value}
      onChange={(text) => {
        const isDay = text === '' || isDate(text);
        setUnread(isDay ? undefined : text);
        if (isDay) onDay(text);
      }}
    />
  );
}

const today = (): string => new Date().toISOString().slice(0, 10);

/** How a day is written in the language, by one that is the same every year. */
const exampleIn = (language: string): string => dayInWords(language, `${today().slice(0, 4)}-03-14`);

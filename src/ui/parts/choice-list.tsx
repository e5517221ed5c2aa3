'use client';

import './nonce';
import { Command } from 'cmdk';
import { useEffect, useEffectEvent, useRef, type ReactNode } from 'react';
import { useFirst } from './use-first';

/** Something that can be chosen, by its name; a note tells it from others. */
export interface Choice {
  readonly key: string;
  readonly name: string;
  readonly note?: string | undefined;
}

export interface ChoiceGroup {
  readonly heading?: string;
  readonly choices: readonly Choice[];
}

interface Props {
  /** What is chosen, for screen readers. */
  readonly label: string;
  readonly placeholder: string;
  readonly words: string;
  readonly onWords: (words: string) => void;
  /** What fits the words; groups with nothing in them are left out. */
  readonly groups: readonly ChoiceGroup[];
  /** What is said where nothing fits. */
  readonly none: string;
  readonly onChoose: (key: string) => void;
  /** Stands between the box and the choices. */
  readonly about?: ReactNode;
  /** Can be chosen whatever is typed. */
  readonly always?: Choice | undefined;
  /** Is it still being looked for what fits? Enter then takes the first that is found. */
  readonly asking?: boolean;
  /** Are notes in a column of their own? */
  readonly wide?: boolean;
}

/** A box to type in, and below it what fits: with the arrow keys one goes through it, Enter takes what is on. */
export function ChoiceList({ label, placeholder, words, onWords, groups, none, onChoose, ...more }: Props) {
  const { about, always, asking = false, wide = false } = more;
  const shown = groups.filter(({ choices }) => choices.length > 0);
  const first = useFirst(shown.flatMap(({ choices }) => choices.map(({ key }) => key)));
  const takesFirst = useTakesFirst(asking, shown[0]?.choices[0]?.key, onChoose);
  const item = ({ key, name, note }: Choice, className: string): ReactNode => (
    <Command.Item key={key} value={key} className={className} onSelect={() => onChoose(key)}>
      <span className={wide ? 'truncate' : ''}>{name}</span>
      {note && <span className={`text-quiet ${wide ? 'shrink-0' : ''}`}> {note}</span>}
    </Command.Item>
  );
  return (
    <Command
      label={label}
      shouldFilter={false}
      {...first}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' || !takesFirst()) return;
        event.preventDefault();
      }}
    >
      <Command.Input
        autoFocus
        value={words}
        onValueChange={onWords}
        placeholder={placeholder}
        className="field-box"
      />
      {about}
      <Command.List className={`mt-1 overflow-y-auto ${wide ? 'max-h-[26rem]' : 'max-h-80'}`}>
        {shown.length === 0 && <p className="px-2 py-1 text-quiet">{none}</p>}
        {shown.map(({ heading, choices }, n) => (
          <Command.Group
            key={heading ?? n}
            heading={heading}
            className="[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-[12px] [&_[cmdk-group-heading]]:text-quiet"
          >
            {choices.map((one) => item(one, wide ? 'option flex justify-between gap-4' : 'option'))}
          </Command.Group>
        ))}
        {always && item(always, 'option mt-1 border-t border-rule')}
      </Command.List>
    </Command>
  );
}

/** Somebody who presses Enter before anything is found gets what is found first. Says whether one has to wait for it. */
function useTakesFirst(
  asking: boolean,
  first: string | undefined,
  onChoose: (key: string) => void,
): () => boolean {
  const waits = useRef(false);
  const found = useEffectEvent((): void => {
    if (!waits.current) return;
    waits.current = false;
    if (first !== undefined) onChoose(first);
  });
  useEffect(() => {
    if (!asking) found();
  }, [asking]);
  return () => (waits.current = asking && first === undefined);
}

/** Does a name have all of the words, in any order? */
export const hasWords = (name: string, words: string): boolean =>
  words
    .toLowerCase()
    .split(/\s+/)
    .every((word) => name.toLowerCase().includes(word));

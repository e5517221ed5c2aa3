import type { Id } from '../model/id';
import type { Value } from '../model/value-type';
import type { Literal, Named } from '../model/values/kind';
import { findByName, quoted, quotedName } from './names';
import type { Token } from './tokens';

interface LiteralKind {
  /** The constant as it is written. `among`: what is listed, where its type lists its values. */
  write(value: string, among: readonly Named[]): string;
  /** What is written there as a constant, before it is known whether the type can hold it. */
  read(token: Token, minus: boolean, among: readonly Named[]): Value | undefined;
}

const bare = (value: string): string => value;

const textIf =
  (...kinds: readonly Token['kind'][]): LiteralKind['read'] =>
  ({ kind, text }) =>
    kinds.includes(kind) ? text : undefined;

function idOf({ kind, text }: Token, _: boolean, among: readonly Named[]): Id | undefined {
  if (kind === 'id') return text.slice(1);
  return kind === 'string' || kind === 'word' ? findByName(among, text)?.id : undefined;
}

/** How constants are written in the text form, and read from it. */
export const LITERALS: Readonly<Record<Literal, LiteralKind>> = {
  string: { write: quoted, read: textIf('string') },
  number: {
    write: bare,
    read: ({ kind, text }, minus) => (kind === 'number' ? (minus ? `-${text}` : text) : undefined),
  },
  date: { write: bare, read: textIf('date', 'string') },
  moment: { write: (value) => value.replace(/:00$/, ''), read: textIf('moment', 'string') },
  time: {
    write: bare,
    read: ({ kind, text }) => (kind === 'time' || kind === 'string' ? text.padStart(5, '0') : undefined),
  },
  weekday: {
    write: (value) => value.slice(0, 1).toUpperCase() + value.slice(1),
    read: ({ text }) => text.toLowerCase(),
  },
  truth: {
    write: bare,
    read: ({ kind, text }) =>
      kind === 'word' && /^(true|false|yes|no)$/i.test(text) ? /^(true|yes)$/i.test(text) : undefined,
  },
  name: { write: (value, among) => quotedName(among, value), read: idOf },
  id: {
    write: (value) => `#${value}`,
    read: ({ kind, text }) => (kind === 'id' ? text.slice(1) : undefined),
  },
};

import { viewerKey } from '@/core';
import { type Note, SIGNED_IN_KEY, SIGNED_OUT_KEY } from '@/core/access';
import type { Definition, Value } from '@/core/model';

/** All that says what a pane shows: it can be sent to another builder as a link. */
export interface PaneState {
  /** The viewer's key. */
  readonly viewer: string;
  /** Without a leading slash; the empty one is where the viewer lands. */
  readonly address: string;
  /** `draft`, `draft:REVISION` or `release:NUMBER`. */
  readonly on: string;
  /** Milliseconds since 1970; now, where it is not there. */
  readonly moment?: number | undefined;
  /** Session values by id. */
  readonly session: Readonly<Record<string, Value | null>>;
  readonly records: 'sample' | 'live';
  /** Conditions of lines that are taken as true or as false, by the line's id. */
  readonly taken?: Readonly<Record<string, boolean>> | undefined;
  /** The search, sort and page of its lists, and the face. */
  readonly query: string;
}

export const firstPane = (viewer: string, address: string): PaneState => ({
  viewer,
  address,
  on: 'draft',
  session: {},
  records: 'sample',
  query: '',
});

/** Who looks at first: whoever is pinned, and a role. */
export const firstPanes = (definition: Definition, pins: readonly string[]): readonly PaneState[] => [
  firstPane(pins[0] === undefined ? SIGNED_OUT_KEY : viewerKey('person', pins[0]), ''),
  firstPane(definition.roles[0] ? viewerKey('role', definition.roles[0].id) : SIGNED_IN_KEY, ''),
];

/** A pane as somebody saw the application who left a note. */
export const paneOfNote = (note: Note, records: PaneState['records']): PaneState => ({
  ...splitAddress(note.address),
  viewer: viewerKey('person', note.person),
  on: `release:${note.release}`,
  moment: note.moment,
  session: note.session,
  records,
});

/** How the server is asked for what a pane shows; `pane` is the id of what is changed in it. */
export function lookQuery(state: PaneState, pane?: string): string {
  const { viewer, on, moment, session, records, taken = {} } = state;
  const query = new URLSearchParams({ viewer });
  if (on !== 'draft') query.set('on', on);
  if (moment !== undefined) query.set('moment', String(moment));
  if (Object.keys(session).length > 0) query.set('session', JSON.stringify(session));
  if (records === 'live') query.set('records', 'live');
  else if (Object.keys(taken).length > 0) query.set('taken', JSON.stringify(taken));
  if (pane !== undefined) query.set('pane', pane);
  return query.toString();
}

/** The panes as the bench's address has them, one `p` each. */
export const panesToQuery = (panes: readonly PaneState[]): string =>
  new URLSearchParams(panes.map((pane) => ['p', paneToQuery(pane)])).toString();

/** One pane, as a link has it. */
export function paneToQuery(pane: PaneState): string {
  const one = new URLSearchParams(lookQuery(pane));
  one.set('address', pane.query === '' ? pane.address : `${pane.address}?${pane.query}`);
  return one.toString();
}

/** Reads one pane of a link. What cannot be read is as if it were not there. */
export function paneFromQuery(text: string): PaneState {
  const query = new URLSearchParams(text);
  const moment = query.get('moment') === null ? NaN : Number(query.get('moment'));
  const { address, query: lists } = splitAddress(query.get('address') ?? '');
  return {
    ...firstPane(query.get('viewer') ?? SIGNED_OUT_KEY, address),
    query: lists,
    on: query.get('on') ?? 'draft',
    ...(Number.isInteger(moment) && { moment }),
    session: readValues(query.get('session')),
    records: query.get('records') === 'live' ? 'live' : 'sample',
    ...(query.get('taken') !== null && { taken: readValues(query.get('taken')) as Record<string, boolean> }),
  };
}

const LOOKS = ['viewer', 'address', 'on', 'moment', 'session', 'records', 'taken', 'pane'];

/** An address, and what it asks of its lists: `loans?page=2`. */
export function splitAddress(text: string): Pick<PaneState, 'address' | 'query'> {
  const [address = '', asks = ''] = text.replace(/^\/+/, '').split(/\?(.*)/s);
  const query = new URLSearchParams(asks);
  // How one looks is said by the pane, never by an address.
  for (const name of LOOKS) query.delete(name);
  return { address, query: query.toString() };
}

function readValues(text: string | null): PaneState['session'] {
  try {
    const read: unknown = JSON.parse(text ?? '{}');
    return typeof read === 'object' && read !== null ? (read as PaneState['session']) : {};
  } catch {
    return {};
  }
}

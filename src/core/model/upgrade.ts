import { FORMAT } from './definition';

type Json = unknown;
type Objects = Readonly<Record<string, Json>>;

/** What brings documents of one format to the next. */
interface Step {
  readonly from: number;
  /** The document as a whole, after its parts. */
  readonly document: (document: Objects) => Objects;
  /** Each object in a document, or in an edit, from the innermost outwards. */
  readonly part: (part: Objects) => Objects;
}

/** One step for each format that there was, in order. */
const STEPS: readonly Step[] = [
  {
    // Roles had no privileges; a list's filter was a field and a constant; an edit of a role was one of its own kind.
    from: 1,
    document: (document) => ({
      ...document,
      timeZone: 'UTC',
      signUp: false,
      privileges: [],
      units: [],
      attributes: [],
      groups: [],
      conditions: [],
      sessionValues: [],
      closed: {},
      format: 2,
    }),
    part: (part) => {
      if (part['do'] === 'changeRole') return { ...part, do: 'changeItem', list: 'roles' };
      if (Array.isArray(part['includes']) && part['privileges'] === undefined)
        return { ...part, privileges: [] };
      const { kind, filter } = part;
      if (kind !== 'list' || !isObject(filter) || !('equals' in filter)) return part;
      const compared = {
        compare: '=',
        left: { record: filter['field'] },
        right: { value: filter['equals'] },
      };
      return { ...part, filter: compared };
    },
  },
  {
    // A screen was changed as a whole; entities were changed as things in a list; a screen came with its lines.
    from: 2,
    document: (document) => ({ ...document, format: 3 }),
    part: (part) => {
      const { do: does, list, area, at, item, screen, lines, from, to } = part;
      if (does === 'addScreen' || does === 'removeScreen') {
        const { id } = screen as Objects;
        const whole = { node: screen, gates: { [String(id)]: { lines } }, closed: {} };
        return { do: does.replace('Screen', 'Element'), into: { in: area, list: 'screens' }, at, ...whole };
      }
      if (does === 'changeScreen') return changed(from as Objects, to as Objects);
      if (list !== 'entities') return part;
      const slot = { in: null, list };
      if (does === 'addItem' || does === 'removeItem')
        return { do: does.replace('Item', 'Element'), into: slot, at, node: item, gates: {}, closed: {} };
      if (does === 'moveItem')
        return { do: 'moveElement', id: part['id'], from: { ...slot, at: from }, to: { ...slot, at: to } };
      return does === 'changeItem' ? changed(from as Objects, to as Objects) : part;
    },
  },
];

/** A change of a whole element as one of the keys in which it differs. */
function changed(from: Objects, to: Objects): Objects {
  const keys = [...new Set([...Object.keys(from), ...Object.keys(to)])].filter(
    (key) => JSON.stringify(from[key]) !== JSON.stringify(to[key]),
  );
  const of = (side: Objects) => Object.fromEntries(keys.map((key) => [key, side[key] ?? null]));
  return { do: 'changeElement', id: from['id'], from: of(from), to: of(to) };
}

const isObject = (json: Json): json is Objects =>
  typeof json === 'object' && json !== null && !Array.isArray(json);

/**
 * A definition in the present format, by the steps from its own. What is no document, or is of a format that is not
 * known, stays as it is: reading it says what is wrong.
 */
export const upgradeDefinition = (json: Json): Json =>
  isObject(json) ? upgradedFrom(json['format'], json) : json;

/** An edit that was stored in a format, in the present one; with the documents in it, where it replaces one. */
export const upgradeEdit = (edit: Json, format: number): Json => upgradedFrom(format, edit);

const upgradedFrom = (format: Json, json: Json): Json =>
  typeof format === 'number' && format < FORMAT
    ? STEPS.filter(({ from }) => from >= format).reduce(taken, json)
    : json;

const taken = (json: Json, { from, part, document }: Step): Json =>
  everywhere(json, (one) => {
    const made = part(one);
    return made['format'] === from ? document(made) : made;
  });

function everywhere(json: Json, change: (part: Objects) => Objects): Json {
  if (Array.isArray(json)) return json.map((one) => everywhere(one, change));
  if (!isObject(json)) return json;
  return change(
    Object.fromEntries(Object.entries(json).map(([key, value]) => [key, everywhere(value, change)])),
  );
}

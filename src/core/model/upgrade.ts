import { FORMAT } from './definition';

type Json = unknown;
type Objects = Readonly<Record<string, Json>>;

const isObject = (json: Json): json is Objects =>
  typeof json === 'object' && json !== null && !Array.isArray(json);

/** What format 2 has that format 1 lacked. */
const NEW_PARTS: Objects = {
  timeZone: 'UTC',
  signUp: false,
  privileges: [],
  units: [],
  attributes: [],
  groups: [],
  conditions: [],
  sessionValues: [],
  closed: {},
};

/**
 * A definition, or an edit that holds parts of one, in the present format. In format 1 a list's filter was
 * a field and a constant, roles held no privileges, and an edit of a role was one of its own kind. What is
 * in the present format already stays as it is.
 */
export function upgrade(json: Json): Json {
  if (Array.isArray(json)) return json.map(upgrade);
  if (!isObject(json)) return json;
  const made = Object.fromEntries(Object.entries(json).map(([key, value]) => [key, upgrade(value)]));
  if (made['format'] === 1) return { ...made, ...NEW_PARTS, format: FORMAT };
  if (made['do'] === 'changeRole') return { ...made, do: 'changeItem', list: 'roles' };
  if (Array.isArray(made['includes']) && made['privileges'] === undefined) return { ...made, privileges: [] };
  const { filter } = made;
  if (made['kind'] === 'list' && isObject(filter) && 'equals' in filter)
    made['filter'] = { compare: '=', left: { record: filter['field'] }, right: { value: filter['equals'] } };
  return made;
}

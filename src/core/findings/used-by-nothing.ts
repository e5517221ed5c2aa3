import type { KeyedViewer } from '../access/deciding/viewer-key';
import type { Definition } from '../model/definition';
import type { Id } from '../model/id';
import type { Edit } from '../edit/edits/edit';
import { removeNamed, removePrivilege } from '../edit/edits/make';
import { privilegesOf } from '../model/privileges';
import type { Check, Suspect } from './finding';

/** Something with a name that other things may speak of. */
interface Named {
  readonly id: Id;
  readonly name: string;
  readonly is: string;
  readonly takeAway: (definition: Definition) => Edit | undefined;
}

/**
 * A privilege, group, named condition, session value or attribute that nothing asks for, data or a field of it that no screen
 * shows, units
 * that nothing goes by: it changes nothing for anybody, and whoever reads the application wonders what for.
 *
 * Has it: a privilege that a role holds, and that no line and no condition speaks of.
 * Has it not: the same privilege in a line of any gate.
 */
export const usedByNothing: Check = {
  kind: 'used-by-nothing',
  rank: 'not-meant',
  title: 'Not used',
  *find({ definition, people }) {
    const used = namesUsed(definition);
    for (const { id, name, is, takeAway } of namedIn(definition)) {
      if (used.has(id)) continue;
      const edit = takeAway(definition);
      yield {
        reason: `The ${is} ${name} is not used anywhere.`,
        places: [id],
        whom: [],
        mends: edit ? [{ says: `Delete the ${is} ${name}.`, does: 'nothing', edit }] : [],
      };
    }
    yield* fieldsUnused(definition, used);
    for (const { id, name } of definition.entities)
      if (!used.has(id) && !pointedAt(definition, id))
        yield {
          reason: `No screen shows ${name}, and no other entity refers to it.`,
          places: [id],
          whom: [],
          mends: [{ says: `Delete ${name}, with its records.`, does: 'closes', removes: id }],
        };
    if (definition.units.length > 0 && !goesByUnits(definition, people))
      yield {
        reason: 'Units are defined, but no person, role, record or line uses them.',
        places: definition.units.map(({ id }) => id),
        whom: [],
        mends: [],
      };
  },
};

function namedIn(definition: Definition): readonly Named[] {
  const listed = (list: 'conditions' | 'sessionValues' | 'attributes', is: string): Named[] =>
    definition[list].map((item, at) => ({
      id: item.id,
      name: item.name,
      is,
      // What is set by a button or by opening a screen cannot go before these.
      takeAway: () =>
        JSON.stringify(definition.areas).includes(`"${item.id}"`)
          ? undefined
          : ({ do: 'removeItem', list, at, item } as Edit),
    }));
  return [
    ...privilegesOf(definition).map(({ id, name }) => ({
      id,
      name,
      is: 'privilege',
      takeAway: (whole: Definition) => removePrivilege(whole, id),
    })),
    ...definition.groups.map(({ id, name }) => ({
      id,
      name,
      is: 'group',
      takeAway: (whole: Definition) => removeNamed(whole, 'groups', id),
    })),
    ...listed('conditions', 'condition'),
    ...listed('sessionValues', 'session value'),
    ...listed('attributes', 'attribute'),
  ];
}

/** Fields of the data that no screen shows, no condition asks for, no action sets and that have no part in the data itself. */
function* fieldsUnused({ entities }: Definition, used: ReadonlySet<string>): Generator<Suspect> {
  for (const { fields, labelField, unitField, actions, plural, id: entity } of entities) {
    // Data that nothing uses is told as a whole.
    if (!used.has(entity)) continue;
    const set = new Set(actions.flatMap((one) => (one.kind === 'named' ? Object.keys(one.sets) : [])));
    for (const { id, name } of fields)
      if (!used.has(id) && !set.has(id) && id !== labelField && id !== unitField)
        yield {
          reason: `No screen shows the field ${name} of ${plural}, and nothing asks for it.`,
          places: [id],
          whom: [],
          mends: [
            { says: `Delete the field ${name} of ${plural}, with its values.`, does: 'closes', removes: id },
          ],
        };
  }
}

const pointedAt = ({ entities }: Definition, id: Id): boolean =>
  entities.some((entity) =>
    entity.fields.some(({ type }) => entity.id !== id && type.kind === 'record' && type.entity === id),
  );

function goesByUnits(definition: Definition, people: readonly KeyedViewer[]): boolean {
  const { entities, attributes, sessionValues, gates, groups, conditions } = definition;
  const types = [...entities.flatMap(({ fields }) => fields), ...attributes, ...sessionValues];
  return (
    types.some(({ type }) => type.kind === 'unit') ||
    /"unit"|home_unit/.test(JSON.stringify([gates, groups, conditions])) ||
    people.some(
      ({ viewer }) =>
        viewer.kind === 'signed-in' &&
        (Boolean(viewer.attributes?.['home_unit']) ||
          viewer.assignments.some(({ unit }) => unit !== undefined)),
    )
  );
}

const setsSession = (value: object): boolean => 'do' in value && value.do === 'set-session';

/** Every id that is spoken of somewhere; what roles hold, and what is set for a session, asks for nothing. */
function namesUsed(definition: Definition): ReadonlySet<string> {
  const used = new Set<string>();
  const look = (value: unknown): void => {
    if (typeof value === 'string') used.add(value);
    else if (Array.isArray(value)) value.forEach(look);
    else if (typeof value === 'object' && value !== null && !setsSession(value))
      for (const [key, inner] of Object.entries(value)) if (key !== 'id' && key !== 'sets') look(inner);
  };
  const { unlock, standIn, gates, groups, conditions, areas } = definition;
  look([unlock, standIn, gates, groups, conditions, areas]);
  return used;
}

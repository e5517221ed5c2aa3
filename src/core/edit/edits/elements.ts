import type { Definition } from '../../model/definition';
import { sameLines, type Gate } from '../../model/gate';
import type { Id } from '../../model/id';
import { failed, ok, type Result } from '../../model/problem';
import { sameJson } from '../../model/same-json';
import { MOST_VALUES, SLOT_SCHEMAS } from '../../model/schema';
import { checkShape, type Shape } from '../../model/shape';
import { idsIn, placeOf, withNode, withSlot, type ElementNode, type Slot } from '../../model/slots';
import { treeOf } from '../../model/tree';
import { changedMeanwhile } from './changed-meanwhile';
import type { ElementEdit } from './edit';

/** Edits of the shape: elements that come, go, stand elsewhere, or are another way. */
export function changeElements(definition: Definition, edit: ElementEdit): Result<Definition> {
  switch (edit.do) {
    case 'addElement':
      return addElement(definition, edit);
    case 'removeElement':
      return removeElement(definition, edit);
    case 'moveElement':
      return moveElement(definition, edit);
    case 'changeElement':
      return changeElement(definition, edit);
  }
}

type EditOf<K extends ElementEdit['do']> = Extract<ElementEdit, { do: K }>;
type Gates = Readonly<Record<Id, Gate>>;

const nameOf = (definition: Definition, id: Id | null): string =>
  id === null ? definition.name : (treeOf(definition).get(id)?.name ?? id);
const called = ({ id, name }: ElementNode): string => (typeof name === 'string' ? name : id);

function addElement(
  definition: Definition,
  { into, at, node, gates, closed }: EditOf<'addElement'>,
): Result<Definition> {
  const shape = shapeOf(into.list, node);
  if (!shape.ok) return shape;
  const ids = new Set(idsIn(node));
  const others = [...Object.keys(gates), ...Object.keys(closed)].filter((id) => !ids.has(id));
  if (others.length > 0)
    return failed({
      code: 'not-in-it',
      place: called(node),
      message: `It contains the gate of ${others.join(', ')}, which is not part of it.`,
      mend: 'Include only the gates of the elements that are added.',
    });
  const taken = [...ids].find(
    (id) => definition.gates[id] ?? definition.closed[id] ?? treeOf(definition).get(id),
  );
  if (taken !== undefined) return failed(changedMeanwhile(called(node), 'It already exists.'));
  const made = withSlot(definition, into, (held) => held.toSpliced(at, 0, node));
  if (!made) return failed(noPlace(definition, into));
  return ok({
    ...made,
    gates: { ...made.gates, ...gates },
    closed: { ...made.closed, ...closed },
  });
}

function removeElement(
  definition: Definition,
  { into, node, gates, closed }: EditOf<'removeElement'>,
): Result<Definition> {
  const place = placeOf(definition, node.id);
  if (!place) return failed(changedMeanwhile(called(node), 'It has been deleted in the meantime.'));
  const ids = [...idsIn(place.node)];
  const same =
    sameJson(place.node, node) &&
    sameJson(place.slot, into) &&
    sameJson(within(definition.closed, ids), closed) &&
    sameGates(within(definition.gates, ids), gates);
  if (!same)
    return failed(
      changedMeanwhile(
        called(node),
        'It, something in it, or one of their gates has changed in the meantime.',
      ),
    );
  const made = withSlot(definition, into, (held) => held.toSpliced(place.at, 1)) as Definition;
  return ok({ ...made, gates: without(made.gates, ids), closed: without(made.closed, ids) });
}

const sameGates = (now: Gates, expected: Gates): boolean =>
  Object.keys(now).length === Object.keys(expected).length &&
  Object.entries(expected).every(([id, gate]) => sameLines(now[id]?.lines ?? [], gate.lines) && id in now);

/** Of what is kept by id, what is kept of these. */
export function within<T>(all: Readonly<Record<Id, T>>, ids: readonly Id[]): Readonly<Record<Id, T>> {
  return Object.fromEntries(
    ids.flatMap((id) => (Object.hasOwn(all, id) ? [[id, all[id] as T] as const] : [])),
  );
}

function without<T>(all: Readonly<Record<Id, T>>, ids: readonly Id[]): Readonly<Record<Id, T>> {
  const gone = new Set(ids);
  return Object.fromEntries(Object.entries(all).filter(([id]) => !gone.has(id)));
}

function moveElement(definition: Definition, { id, from, to }: EditOf<'moveElement'>): Result<Definition> {
  const place = placeOf(definition, id);
  if (!place) return failed(gone(definition, id, 'It has been deleted in the meantime.'));
  if (place.slot.in !== from.in || place.slot.list !== from.list)
    return failed(changedMeanwhile(nameOf(definition, id), 'It has been moved in the meantime.'));
  const { node } = place;
  if (to.in !== null && [...idsIn(node)].includes(to.in))
    return failed({
      code: 'in-itself',
      place: called(node),
      message: 'An element cannot be moved into itself.',
      mend: 'Choose another place.',
    });
  const shape = shapeOf(to.list, node);
  if (!shape.ok) return shape;
  const taken = withSlot(definition, from, (held) => held.toSpliced(place.at, 1)) as Definition;
  const made = withSlot(taken, to, (held) => held.toSpliced(to.at, 0, node));
  return made ? ok(made) : failed(noPlace(definition, to));
}

function changeElement(
  definition: Definition,
  { id, from, to }: EditOf<'changeElement'>,
): Result<Definition> {
  const place = placeOf(definition, id);
  if (!place) return failed(gone(definition, id, 'It has been deleted in the meantime.'));
  if ('id' in to || 'kind' in to)
    return failed({
      code: 'id-changed',
      place: called(place.node),
      message: 'The id and the kind of an element cannot be changed.',
      mend: 'Add a new element and delete this one.',
    });
  const differs = Object.keys(from).some((key) => !sameJson(place.node[key] ?? null, from[key] ?? null));
  if (differs) return failed(changedMeanwhile(called(place.node), 'It has changed in the meantime.'));
  const kept = Object.entries(place.node).filter(([key]) => !(key in to));
  const set = Object.entries(to).filter(([, value]) => value !== null);
  const node = { ...Object.fromEntries([...kept, ...set]), id };
  const shape = shapeOf(place.slot.list, node);
  return shape.ok ? ok(withNode(definition, id, () => node) as Definition) : shape;
}

/** Is it what can stand in such a list? An edit names an element by its id, which does not say what it is. */
const shapeOf = (list: Slot['list'], node: ElementNode): Result<unknown> =>
  checkShape(SLOT_SCHEMAS[list] as Shape<unknown>, node, { values: MOST_VALUES });

/** Why there is no place in a list: an area has one frame at most. */
const noPlace = (definition: Definition, slot: Slot) =>
  slot.list === 'frame' && slot.in !== null && placeOf(definition, slot.in)?.node['frame']
    ? changedMeanwhile(nameOf(definition, slot.in), 'It already has its own menu.')
    : gone(definition, slot.in, 'Its new container has been deleted in the meantime.');

const gone = (definition: Definition, id: Id | null, message: string) =>
  changedMeanwhile(nameOf(definition, id), message);

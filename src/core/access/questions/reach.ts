import { gives, type Line } from '../../model/gate';
import type { Id } from '../../model/id';
import { withIncluded, isDataDoor, type AppElement } from '../../model/tree';
import { type Access, accessOf } from '../deciding/access';
import type { Compiled } from '../deciding/compile';
import { explain } from './explain';
import { NONE, seenOf, type Answer } from '../deciding/level';
import type { Circumstances, Viewer } from '../deciding/viewer';

/** One element in somebody's reach. */
export interface Reached {
  readonly element: AppElement;
  readonly answer: Answer;
}

/** A screen that opens, or an entity whose records are open, with what is open in it. */
export interface ReachedPlace extends Reached {
  readonly inside: readonly Reached[];
}

/** All that a viewer gets: the answer to *what can X see*. */
export interface WholeReach {
  readonly screens: readonly ReachedPlace[];
  readonly data: readonly ReachedPlace[];
  /** How many screens and entities there are in all. */
  readonly of: { readonly screens: number; readonly data: number };
}

/** What only holds other elements. */
const HOLDS: readonly AppElement['kind'][] = ['section', 'face'];

/**
 * The viewer's whole reach, in the order of the tree. Containers count by what is in them.
 *
 * @example
 * const { screens, of } = reachOf(accessOf(compile(LARKFIELD), { kind: 'signed-out' }, at));
 * screens.map(({ element }) => element.id) // → ['s_catalogue']
 * of.screens // → 18
 */
export function reachOf(access: Access): WholeReach {
  const { tree } = access.compiled;
  const answer = (element: AppElement): Reached => ({
    element,
    answer: seenOf(element.kind, access.answer(element)),
  });
  const isOpen = (one: Reached): boolean => one.answer.most > NONE;
  const place = (element: AppElement): ReachedPlace => ({
    ...answer(element),
    inside: tree
      .within(element)
      .slice(1)
      .filter((one) => !HOLDS.includes(one.kind))
      .map(answer)
      .filter(isOpen),
  });
  const screens = tree.elements.filter((one) => one.kind === 'screen');
  const data = tree.elements.filter((one) => one.kind === 'rows');
  return {
    screens: screens.map(place).filter(isOpen),
    data: data.map(place).filter(isOpen),
    of: { screens: screens.length, data: data.length },
  };
}

/** One way into an element: a line of a gate, with the people who get something by it. */
interface WayIn {
  readonly gate: Id;
  readonly line: Line;
  /** For data that follows the screens: the handle that holds it open. */
  readonly handle?: Id;
  readonly people: readonly {
    readonly id: Id;
    readonly answer: Answer;
    /** Their roles by which the line speaks of them. */
    readonly roles: readonly Id[];
  }[];
}

/** Who gets an element, by way in: the answer to *who can see Y*. */
export interface WhoGetsIt {
  readonly ways: readonly WayIn[];
  /** How many people get it at all, each counted once. */
  readonly people: number;
  /** Does somebody who is signed out get it? */
  readonly signedOut: Answer;
}

/** The same with names; under each way so many as are told, and how many there are. */
export interface WhoGetsNamed extends Omit<WhoGetsIt, 'ways'> {
  /** Of how many people in all. */
  readonly of: number;
  readonly ways: readonly (Omit<WayIn, 'people'> & {
    readonly count: number;
    readonly people: readonly (WayIn['people'][number] & { readonly name: string })[];
  })[];
}

/**
 * Who gets an element, by way in: each giving line that speaks of some of the people, with those. People who are alike
 * are decided once. Throws where there is no such element.
 *
 * @example
 * const compiled = compile(LARKFIELD);
 * const people = [{ id: 'p1', viewer: viewerOfRole('registrar') }, { id: 'p2', viewer: viewerOfRole('lender') }];
 * whoGets(compiled, 's_stores', people, at).people // → 1
 */
export function whoGets(
  compiled: Compiled,
  id: Id,
  people: readonly { readonly id: Id; readonly viewer: Viewer }[],
  at: Circumstances,
): WhoGetsIt {
  const ways = new Map<string, Omit<WayIn, 'people'> & { people: WayIn['people'][number][] }>();
  const known = new Map<Access, { answer: Answer; ways: Omit<WayIn, 'people'>[] }>();
  let reached = 0;
  for (const { id: person, viewer } of people) {
    const access = accessOf(compiled, viewer, at);
    let found = known.get(access);
    if (!found) {
      const element = access.element(id);
      const answer = access.answer(element);
      known.set(access, (found = { answer, ways: answer.most > NONE ? waysInto(access, element) : [] }));
    }
    if (found.answer.most === NONE) continue;
    reached++;
    for (const way of found.ways) {
      const key = `${way.line.id} ${way.gate} ${way.handle ?? ''}`;
      const group = ways.get(key) ?? { ...way, people: [] };
      ways.set(key, group);
      group.people.push({ id: person, answer: found.answer, roles: rolesFor(compiled, viewer, way.line) });
    }
  }
  const signedOut = accessOf(compiled, { kind: 'signed-out' }, at);
  return {
    ways: [...ways.values()].sort((a, b) => b.people.length - a.people.length),
    people: reached,
    signedOut: signedOut.answer(signedOut.element(id)),
  };
}

/** The giving lines of the gate that is nearest to the element; for data that follows, of its open handles. */
function waysInto(access: Access, element: AppElement): Omit<WayIn, 'people'>[] {
  const { steps } = explain(access, element.id);
  const step = isDataDoor(element)
    ? steps.find((one) => one.element === element.id)
    : steps.findLast((one) => one.gate === 'own' && !isDataDoor(access.element(one.element)));
  if (step?.gate === 'own') return step.lines.filter(gives).map((line) => ({ gate: step.element, line }));
  return access.compiled.handles
    .handlesOf(element)
    .map((handle) => access.element(handle))
    .filter((handle) => access.gateRule(handle).see !== false)
    .flatMap((handle) => waysInto(access, handle).map((way) => ({ ...way, handle: handle.id })));
}

/** The roles assigned to the viewer by which the line speaks of them. */
function rolesFor(compiled: Compiled, viewer: Viewer, { who }: Line): Id[] {
  if (viewer.kind !== 'signed-in') return [];
  const { definition } = compiled;
  const assigned = [...new Set(viewer.assignments.map((one) => one.role))];
  if (who.kind === 'role')
    return assigned.filter((role) =>
      who.exactly ? role === who.role : withIncluded(definition, [role]).has(who.role),
    );
  if (who.kind !== 'privilege') return [];
  return assigned.filter((role) =>
    [...withIncluded(definition, [role])].some((one) =>
      compiled.tree.role(one)?.privileges.includes(who.privilege),
    ),
  );
}

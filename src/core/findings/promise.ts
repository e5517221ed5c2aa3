import { applyEdit } from '../edit/edits/apply';
import type { Edit } from '../edit/edits/edit';
import { compareReach, type AccessDifference } from '../edit/comparing/access-differences';
import { gives, sameWho, type Line } from '../model/gate';
import { sameJson } from '../model/same-json';
import { isDataDoor, withIncluded } from '../model/tree';
import { unitsOf } from '../model/units';
import { viewerKey } from '../access/deciding/viewer-key';
import type { Viewer } from '../access/deciding/viewer';
import type { Id } from '../model/id';
import type { Context } from './context';
import { keysOf, type Does, type ProposedMend } from './finding';

/**
 * Does a mend what its sentence says, and no more? One that closes gives nobody more, one that opens takes from nobody,
 * one that says neither changes nobody's access, and nobody is touched whom the sentence does not name. It is tried: who
 * gets what is compared with what they would get, at other times too. In doubt, it does not.
 */
export function keepsPromise(context: Context, mend: ProposedMend): boolean {
  const { definition, moment } = context;
  if ('removes' in mend) return mend.does === 'closes' && closesByGoing(context, mend.removes);
  const { edit } = mend;
  const surely = surelyDoes(context, edit) === mend.does;
  if (surely && !mend.to) return true;
  const made = applyEdit(definition, edit);
  if (!made.ok) return false;
  const named = mend.to && new Set(keysOf(mend.to));
  const isSo = ({ groups }: AccessDifference<string>): boolean =>
    groups.every(({ before, after, who }) => {
      const isNamed = named === undefined || who.every((key) => key.split(' ').some((one) => named.has(one)));
      if (mend.does === 'nothing' || !isNamed) return false;
      if (surely) return true;
      // It is so on every record only where even the most of the one is no more than the least of the other.
      const [less, more] = mend.does === 'closes' ? [after, before] : [before, after];
      return less.most <= more.least;
    });
  const asked = surely ? [context.kinds] : [context.kinds, combinations(context)];
  return asked.every((viewers) => compareReach(definition, made.value, viewers, { moment }).every(isSo));
}

/**
 * What is deleted goes with the lines that name it, and what is in doubt by that is closed (`removalOf`). Only a menu item
 * with others under it stays, and is then no longer closed by the screen that it led to.
 */
function closesByGoing({ tree, compiled }: Context, id: Id): boolean {
  const screens = tree.elements.filter(
    (one) => one.kind === 'screen' && (one.id === id || one.container?.id === id),
  );
  return screens
    .flatMap((screen) => compiled.handles.handlesOf(screen))
    .every((way) => {
      const element = tree.get(way);
      return element?.kind !== 'menu-item' || element.node.items.length === 0;
    });
}

interface Combined {
  /** The keys of what it is made of, with a space between. */
  readonly key: string;
  readonly viewer: Viewer;
}

const SOME_UNITS = 3;

const known = new WeakMap<Context, readonly Combined[]>();

/**
 * Viewers who are of two kinds: two roles, of which neither includes the other, a role in a unit, or somebody whom a line
 * names, with a role or none. A line may give to the one what another takes from the other.
 */
function combinations(context: Context): readonly Combined[] {
  let found = known.get(context);
  if (found) return found;
  const { definition } = context;
  const all = definition.roles.map(({ id }) => withIncluded(definition, [id]));
  const roles = definition.roles.map(({ id }) => id);
  const pairs = roles.flatMap((one, n) =>
    roles.flatMap((other, m) => (m <= n || all[n]?.has(other) || all[m]?.has(one) ? [] : [[one, other]])),
  );
  const lines = Object.values(definition.gates).flatMap((gate) => gate.lines);
  const named = new Set(lines.flatMap(({ who }) => (who.kind === 'person' ? [who.person] : [])));
  const combined = (held: readonly Id[], person?: Id): Combined => ({
    key: [
      ...(person === undefined ? [] : [viewerKey('person', person)]),
      ...held.map((id) => viewerKey('role', id)),
    ].join(' '),
    viewer: {
      kind: 'signed-in',
      assignments: held.map((role) => ({ role })),
      ...(person !== undefined && { person }),
    },
  });
  const units = unitsOf(definition).slice(0, SOME_UNITS);
  found = [
    ...pairs.map((two) => combined(two)),
    ...roles.flatMap((role) =>
      units.map(({ id: unit }) => ({
        key: viewerKey('role', role),
        viewer: { kind: 'signed-in' as const, assignments: [{ role, unit }] },
      })),
    ),
    ...[...named].flatMap((person) => [[], ...roles.map((id) => [id])].map((held) => combined(held, person))),
  ];
  known.set(context, found);
  return found;
}

/** Does the other speak of fewer people, under the same condition: of those who are assigned the role itself? */
const isFewer = ({ who, when }: Line, to: Line): boolean =>
  who.kind === 'role' &&
  to.who.kind === 'role' &&
  who.role === to.who.role &&
  to.who.exactly === true &&
  sameJson(when, to.when);

/** Is the one the other without its condition? */
const isWithout = (from: Line, to: Line): boolean => sameWho(from.who, to.who) && !to.when;

/** What an edit does to access whoever looks: told where the way of deciding alone makes it sure. */
function surelyDoes(context: Context, edit: Edit): Does | undefined {
  switch (edit.do) {
    case 'addLine':
      return gives(edit.line) ? 'opens' : 'closes';
    case 'removeLine':
      return gives(edit.line) ? 'closes' : 'opens';
    case 'changeLine': {
      const { from, to } = edit;
      if (from.what !== to.what) return undefined;
      if (isFewer(from, to)) return gives(to) ? 'closes' : 'opens';
      if (!isWithout(from, to)) return undefined;
      return gives(to) ? 'opens' : 'closes';
    }
    case 'changeElement':
      // A filter where there was none.
      return edit.from['filter'] === null ? 'closes' : undefined;
    case 'addElement':
      return 'opens';
    case 'follow': {
      // What stands in something follows all that it gives.
      const element = context.element(edit.gate);
      return element && !isDataDoor(element) ? 'opens' : undefined;
    }
    case 'startLines': {
      const element = context.element(edit.gate);
      return element && !isDataDoor(element) ? 'closes' : undefined;
    }
    case 'together': {
      const [first, ...rest] = edit.edits.map((one) => surelyDoes(context, one));
      return rest.every((one) => one === first) ? first : undefined;
    }
    case 'addItem':
    case 'changeClosed':
    case 'changeItem':
    case 'changeSettings':
    case 'moveElement':
    case 'moveItem':
    case 'removeElement':
    case 'removeItem':
    case 'replace':
      return undefined;
  }
}

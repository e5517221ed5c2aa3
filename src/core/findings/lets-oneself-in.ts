import { EDIT } from '../access/deciding/level';
import type { Formula } from '../condition/formula';
import { operandsOf } from '../condition/condition';
import { allNamed } from '../condition/named';
import { comparedAttributes } from '../access/questions/handing-out';
import { attributesOf } from '../condition/type';
import type { Role } from '../model/definition';
import { gives, type Line } from '../model/gate';
import type { Id } from '../model/id';
import { withIncluded, type AppElement } from '../model/tree';
import { namesOf, type AskedViewer, type Context } from './context';
import type { Check, ProposedMend } from './finding';
import { lineCalled, removingLine, type PlacedLine } from './mends';
import { called, sentence } from './words';
import { handedOutBy } from './handing-out-adds-up';

interface SelfAccess {
  readonly whom: readonly AskedViewer[];
  /** "by pressing Take stock". */
  readonly by: string;
  readonly places: readonly Id[];
}

/**
 * A line asks for something that the very people of whom it speaks can bring about themselves: a field that they may
 * write, a session value that a button of theirs sets, a role that everybody may join and that brings others or privileges,
 * an attribute that two who look after people set for each other.
 *
 * Has it: a screen that opens where the session says "checked", and a button that says so; a role to be joined that holds
 * a privilege for which lines ask.
 * Has it not: a button that sets it and is given to registrars only, on a screen of theirs.
 */
export const letsOneselfIn: Check = {
  kind: 'lets-oneself-in',
  rank: 'lets-in',
  title: 'People can give themselves access',
  *find(context) {
    const { definition, tree } = context;
    for (const [id, { lines }] of Object.entries(definition.gates)) {
      const element = tree.get(id);
      if (!element) continue;
      for (const [at, line] of lines.entries()) {
        if (!gives(line)) continue;
        const placed = { element, line, at };
        for (const way of waysIn(context, element, line))
          yield {
            reason: sentence(
              `${context.names(way.whom)} can open ${called(element)} for themselves ${way.by}, because ${lineCalled(context, placed)} depends on it.`,
            ),
            places: [id, ...way.places],
            whom: way.whom,
            mends: [removingLine(context, placed)],
          };
      }
    }
    for (const role of definition.roles) {
      if (role.joinable || (role.givenToNew && definition.signUp)) yield* byJoining(context, role);
      if (role.setsCompared) yield* byEachOther(context, role);
    }
  },
};

function* waysIn(context: Context, element: AppElement, line: Line): Generator<SelfAccess> {
  const asked = [
    ...(line.when ? [line.when] : []),
    ...(line.who.kind === 'group' ? [{ inGroup: line.who.group }] : []),
  ];
  const told = new Set<string>();
  for (const operand of asked.flatMap((one) => allNamed(context.definition, one)).flatMap(operandsOf)) {
    const key = JSON.stringify(operand);
    if (told.has(key)) continue;
    told.add(key);
    if ('session' in operand) yield* bySession(context, operand.session, { element, line });
    if ('record' in operand)
      for (const field of [operand.record, ...(operand.through === undefined ? [] : [operand.through])])
        yield* byWriting(context, element, field, line);
  }
}

/** Of whom the line speaks, who are so, and who gain by it: surely, or where that is nobody, perhaps. */
function spokenOf(
  context: Context,
  { element, line }: Pick<PlacedLine, 'element' | 'line'>,
  isSo: (viewer: AskedViewer) => boolean,
): AskedViewer[] {
  const gaining = (viewers: readonly AskedViewer[]): AskedViewer[] =>
    viewers.filter((viewer) => isSo(viewer) && context.gainsByLine(viewer, element, line));
  const surely = gaining(context.spokenOf(line.who, 'surely'));
  return surely.length > 0 ? surely : gaining(context.spokenOf(line.who));
}

/** By a button that the line's people may press, or by opening a screen. */
function* bySession(
  context: Context,
  value: Id,
  placed: Pick<PlacedLine, 'element' | 'line'>,
): Generator<SelfAccess> {
  const setters = context.tree.elements.filter(
    (one) =>
      (one.kind === 'button' &&
        one.node.effect.do === 'set-session' &&
        one.node.effect.value === value &&
        one.node.effect.to !== null) ||
      (one.kind === 'screen' && one.node.sets?.some((set) => set.value === value && set.to !== null)),
  );
  for (const setter of setters) {
    const whom = spokenOf(
      context,
      placed,
      (viewer) => context.most(viewer, setter) >= (setter.kind === 'button' ? EDIT : 1),
    );
    if (whom.length > 0)
      yield {
        whom,
        by: `by ${setter.kind === 'button' ? 'pressing' : 'opening'} ${called(setter)}`,
        places: [setter.id],
      };
  }
}

/**
 * By writing the field that the line asks for, or pointing to another record of which it asks: whoever may write it
 * whatever it holds. In a form for a new record a tick that opens a section is how forms work, since nothing is stored.
 */
function* byWriting(context: Context, element: AppElement, field: Id, line: Line): Generator<SelfAccess> {
  if (element.id === field || (element.screen?.binds?.record === 'new' && element.kind !== 'button')) return;
  const door = context.element(field);
  if (!door) return;
  const whom = spokenOf(context, { element, line }, (viewer) => {
    if (context.most(viewer, door) < EDIT) return false;
    const { edit } = context.accessOf(viewer).most.rule(door);
    return !asksFor(edit, field);
  });
  if (whom.length > 0) yield { whom, by: `by editing ${called(door)}`, places: [door.id] };
}

function asksFor(formula: Formula, field: Id): boolean {
  if (typeof formula === 'boolean') return false;
  if ('all' in formula) return formula.all.some((one) => asksFor(one, field));
  if ('any' in formula) return formula.any.some((one) => asksFor(one, field));
  return JSON.stringify(formula).includes(`"${field}"`);
}

/** By joining a role that leads to more: to a privilege that lines ask for, or to other roles to hand out. */
function* byJoining(context: Context, role: Role) {
  const { definition } = context;
  const held = definition.roles.filter(({ id }) => withIncluded(definition, [role.id]).has(id));
  const privileges = held
    .flatMap((one) => one.privileges)
    .flatMap(
      (id) => definition.privileges.flatMap((group) => group.privileges).find((one) => one.id === id) ?? [],
    );
  const further = handedOutBy(definition, role);
  const within = held.filter((one) => one !== role && !one.joinable && !one.givenToNew);
  if (privileges.length + further.length + within.length === 0) return;
  const { joinable, givenToNew, ...rest } = role;
  const given = givenToNew === true && definition.signUp === true;
  const mends: ProposedMend[] = [
    {
      says: [
        ...(joinable ? [`Stop people from joining ${role.name} themselves.`] : []),
        ...(given ? [`Do not give ${role.name} to new people.`] : []),
      ].join(' '),
      does: 'nothing',
      edit: {
        do: 'changeItem',
        list: 'roles',
        from: role,
        to: !given && givenToNew !== undefined ? { ...rest, givenToNew } : rest,
      },
    },
  ];
  const more = [
    ...within.map(({ name }) => `get ${name} with it`),
    ...privileges.map(({ name }) => `have the privilege “${name}”`),
    ...further.map(({ name }) => `be able to assign ${name}`),
  ];
  yield {
    reason: joinable
      ? `Anyone who signs in can join ${role.name}, and will then ${namesOf(more)}.`
      : `Anyone who signs up is assigned ${role.name}, and will then ${namesOf(more)}.`,
    places: [role.id, ...[...within, ...privileges, ...further].map(({ id }) => id)],
    whom: context.roleKinds([role]),
    mends,
  };
}

/** Two who hold a role that sets what conditions compare can set it for each other. */
function* byEachOther(context: Context, role: Role) {
  const { definition } = context;
  const compared = [...comparedAttributes(definition)].filter((id) => id !== 'email');
  if (compared.length === 0 || handedOutBy(definition, role).length === 0) return;
  const names = attributesOf(definition).filter(({ id }) => compared.includes(id));
  const { setsCompared: _, ...rest } = role;
  yield {
    reason: `Two people with ${role.name} can set each other’s attributes that conditions use: ${namesOf(names.map(({ name }) => name))}.`,
    places: [role.id, ...compared],
    whom: context.roleKinds([role]),
    mends: [
      {
        says: `Stop people with ${role.name} from changing attributes that conditions use.`,
        does: 'nothing' as const,
        edit: { do: 'changeItem', list: 'roles', from: role, to: rest } as const,
      },
    ],
  };
}

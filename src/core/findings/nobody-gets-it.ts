import { NONE } from '../access/deciding/level';
import type { AppElement } from '../model/tree';
import { closingContainers } from './container-closes';
import type { Context } from './context';
import type { Check, ProposedMend } from './finding';
import { deleting, following } from './mends';
import { called } from './words';

/** What is looked at by itself; what only holds others is told by what it holds, unless nobody gets that at all. */
const KINDS: readonly AppElement['kind'][] = [
  'area',
  'screen',
  'face',
  'section',
  'field',
  'button',
  'list',
  'column',
  'text',
  'chart',
  'people',
];

/**
 * Nobody gets a screen or something on one: no login state, no role, no group and no person, at any time.
 *
 * Has it: a new screen that was given to nobody yet; a button whose only line speaks of a role that is blocked above it.
 * Has it not: a button that only works in the evening.
 */
export const nobodyGetsIt: Check = {
  kind: 'nobody-gets-it',
  rank: 'not-meant',
  title: 'Nobody has access',
  *find(context) {
    // What a container closes to those who were given it, is told at the container.
    const toldOnce = new Set([...closingContainers(context).values()].flat().map(({ element }) => element));
    const missed = (element: AppElement): boolean =>
      context.nobodyGets(element) && KINDS.includes(element.kind) && !toldOnce.has(element);
    for (const element of context.tree.elements) {
      const { container } = element;
      if (!missed(element) || (container && missed(container))) continue;
      yield {
        reason: `Nobody has access to ${called(element)}: ${why(context, element)}`,
        places: [element.id],
        whom: [],
        mends: [...followingAgain(context, element), deleting(element)],
      };
    }
  },
};

function why({ compiled, tree }: Context, element: AppElement): string {
  const lines = compiled.lines(element.id);
  if (lines?.length === 0) return 'its gate has no lines.';
  const door = compiled.handles.doorOf(element);
  const behind = door && tree.get(door.id);
  if (!lines && behind) return `${called(behind)} is closed to everyone who can reach it.`;
  return 'no line of its gate gives access to anyone who can reach it.';
}

/** Its door; of a screen that shows a record the records, where they have lines of their own. */
function behind({ compiled, tree }: Context, element: AppElement): AppElement | undefined {
  if (element.kind !== 'screen') return tree.get(compiled.handles.doorOf(element)?.id ?? '');
  const entity = element.node.binds?.record === 'existing' ? element.node.binds.entity : '';
  return compiled.lines(entity) && tree.get(entity);
}

/** Where somebody gets both what it stands in and its door, following again is enough for them. */
function followingAgain(context: Context, element: AppElement): ProposedMend[] {
  const { compiled, viewers } = context;
  const { id, container } = element;
  const lines = compiled.lines(id);
  const door = behind(context, element);
  // What a chart shows goes by more doors than one.
  if (!lines || !container || element.kind === 'chart') return [];
  const to = viewers.filter(
    (viewer) => context.mostByGate(viewer, container) > NONE && (!door || context.most(viewer, door) > NONE),
  );
  // What was closed to everybody is opened to the public by a line that says so, and not in passing.
  if (to.length === 0 || to.includes(context.signedOut)) return [];
  const says = `Make ${called(element)} follow ${called(container)}, which opens it to ${context.names(to)}.`;
  return [following(context, element, { says, does: 'opens', to })];
}

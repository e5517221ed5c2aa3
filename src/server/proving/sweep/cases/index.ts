import { compile } from '@/core';
import { type AppElement, menusOf } from '@/core/model';
import { behindTopic, isLockable } from '@/core/sweep';
import type { SweepContext, Case } from './case';
import { ofFrame, ofScreen, whateverIsOpen } from './pages';
import { people } from './people';
import { pressing } from './pressing';
import { listsOf, reading } from './reading';
import { unlocks } from './unlocks';
import { writing } from './writing';

export { type Case, type ChangeRequest } from './case';

/** All that is asked as one viewer: what they should be sent, what they must be refused, and what must be done. */
export function casesFor(asked: SweepContext): Case[] {
  const cases = [...everything(asked)];
  return [...cases, ...fromElsewhere(asked, cases)];
}

const isAskedItself = ({ access }: SweepContext, element: AppElement): boolean =>
  element.kind === 'list' || element.kind === 'button' || isLockable(access, element);

/** Of a list also what can be done with the whole of it. */
function mainOf({ access }: SweepContext, element: AppElement): AppElement[] {
  const { tree } = access.compiled;
  const entity = element.kind === 'list' ? tree.entityOf(element.node.entity) : undefined;
  const actions = (['export', 'bulk'] as const).flatMap((kind) => {
    const action = entity && tree.optionalAction(entity, kind);
    return action ? [access.element(action.id)] : [];
  });
  return [element, ...actions];
}

function* everything(asked: SweepContext): Generator<Case> {
  const compiled = compile(asked.copy.definition);
  const { definition, tree } = compiled;
  yield* whateverIsOpen(asked);
  for (const menu of menusOf(definition)) {
    const element = tree.need(menu.id, 'menu');
    yield* asked.once(menu.id, [element], tree.within(element), () => ofFrame(asked, menu));
  }
  for (const { id } of tree.screens()) {
    const screen = tree.need(id, 'screen');
    yield* asked.once(id, [screen], behindTopic(compiled, id), () => ofScreen(asked, screen));
    for (const part of tree.within(screen).filter((one) => isAskedItself(asked, one)))
      yield* asked.once(
        `${part.id} itself`,
        mainOf(asked, part),
        behindTopic(compiled, part.id),
        function* () {
          for (const cases of [listsOf, pressing, unlocks]) yield* cases(asked, part);
        },
      );
  }
  for (const entity of definition.entities)
    for (const cases of [reading, writing]) yield* cases(asked, entity);
  yield* people(asked);
}

/** Of each sort of what changes something once, as if a page of another site had sent it. */
function* fromElsewhere(asked: SweepContext, cases: readonly Case[]): Generator<Case> {
  for (const { asking, about, ...one } of cases) {
    if (!('does' in one) || asking.method === undefined) continue;
    const sort = `${asking.method} ${asking.path.replace(/Z\w+Z/g, '')}`;
    const headers = { ...asking.headers, origin: 'https://elsewhere.example' };
    yield* asked.once(`${sort} from elsewhere`, [], [], () => [
      { asking: { ...asking, headers }, refused: true, about },
    ]);
  }
}

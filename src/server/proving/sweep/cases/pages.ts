import { addressOf } from '@/core/access';
import { compile } from '@/core';
import { frameOf, type Id, type Menu, type Screen } from '@/core/model';
import type { Predicted } from '@/core/sweep';
import type { Asking } from '../asker';
import {
  type SweepContext,
  base,
  type Case,
  levelsOn,
  ofEachSort,
  recordsOf,
  type ScreenElement,
  withSession,
} from './case';
import { filled, other } from './values';

const RSC = { rsc: '1' };

/** What there is for everybody: an address at which there is nothing, where one lands, and what is the same for all or about who asks. */
export function* whateverIsOpen({ copy, predictor, access, signedOut, once }: SweepContext): Generator<Case> {
  const root = [access.compiled.tree.root];
  const nowhere = 'zinc-no-such-address';
  const path = base(copy);
  const first = predictor.first();
  yield* once(`first ${first.is} ${first.to ?? ''}`, root, root, () => [
    { asking: { path }, reads: 'page', predicted: first },
  ]);
  yield* once(`whatever ${signedOut}`, root, root, () => [
    { asking: { path: `${path}/${nowhere}` }, reads: 'page', predicted: predictor.page(nowhere) },
    ...['account', 'sign-in', 'sign-up', 'confirm'].map((one) => ({
      asking: { path: `${path}/${one}` },
      tells: 'what may be known' as const,
    })),
  ]);
}

/** A menu, as it stands around the first screen that is open. */
export function* ofFrame(asked: SweepContext, menu: Menu): Generator<Case> {
  const { tree, definition } = compile(asked.copy.definition);
  const screen = tree
    .screens()
    .find(
      (one) =>
        (frameOf(definition, one) ?? definition.menu).id === menu.id && asked.access.opens(one, undefined),
    );
  if (screen) yield* page(asked, screen, asRead(asked, addressOf(screen)), addressOf(screen));
}

const asRead = ({ copy }: SweepContext, address: string, query = ''): Asking => ({
  path: `${base(copy)}/${address}?${query}_rsc`,
  headers: RSC,
});

/**
 * A screen, on a record of each sort where it shows one. The page's document carries all that the browser that is at the
 * application already is sent (RSC), and costs the server far more: it is asked for once for each thing that can come
 * of it.
 */
export function* ofScreen(asked: SweepContext, element: ScreenElement): Generator<Case> {
  const { copy, predictor, records, access } = asked;
  const { node: screen } = element;
  const inside = access.compiled.tree.within(element);
  const entity = screen.binds?.record === 'existing' ? screen.binds.entity : undefined;
  const shown = entity === undefined ? [] : recordsOf(asked, entity);
  const on: (string | undefined)[] =
    entity === undefined
      ? [undefined]
      : ofEachSort(asked, shown, (record) => levelsOn(asked, inside, record)).map(({ id }) => id);
  const faced = on[0];
  // A record of another kind has no page there.
  if (entity !== undefined) on.push(records.find((one) => one.entity.id !== entity)?.id ?? 'none');
  for (const record of on) {
    const address = addressOf(screen, record);
    const { is } = predictor.page(address);
    yield* asked.once(`${screen.id} whole ${is}`, [], [], () =>
      page(asked, screen, { path: `${base(copy)}/${address}` }, address),
    );
    yield* page(asked, screen, asRead(asked, address), address);
  }
  const address = addressOf(screen, faced);
  for (const face of screen.faces ?? [])
    yield* page(asked, screen, asRead(asked, address, `face=${face.id}&`), address, face.id);
  yield* beforeSaving(asked, screen, on);
}

/** One page. Where opening it sets something for the session, it is decided with that, and asked when nothing else is. */
function* page(
  asked: SweepContext,
  screen: Screen,
  asking: Asking,
  address: string,
  face?: Id,
): Generator<Case> {
  const { predictor, self } = asked;
  const about = face ?? screen.id;
  const predicted = predictor.page(address, face);
  const sets = self === undefined || predicted.is !== 'open' ? [] : (screen.sets ?? []);
  if (sets.length === 0) {
    yield { asking, reads: 'page', predicted, about };
    return;
  }
  const by = withSession(asked, Object.fromEntries(sets.map(({ value, to }) => [value, to])));
  const then = by.page(address, face);
  if (then.is === 'open') yield { asking, does: { predicted: then, by }, about, setsSession: true };
}

/** How a screen would be, with nothing written and with everything written that can be. */
function* beforeSaving(
  asked: SweepContext,
  screen: Screen,
  on: readonly (string | undefined)[],
): Generator<Case> {
  const { copy, predictor, records } = asked;
  const { tree } = compile(copy.definition);
  if (!screen.binds) return;
  const entity = tree.need(screen.binds.entity, 'rows').node;
  const closed = new Set<Predicted['is']>();
  for (const id of on) {
    const record = records.find((one) => one.id === id);
    const values = record
      ? Object.fromEntries(entity.fields.map((field) => [field.id, other(asked, field, record) ?? null]))
      : filled(asked, entity);
    const address = addressOf(screen, id);
    const page = predictor.page(address);
    if (page.is !== 'open' && closed.has(page.is)) continue;
    if (page.is !== 'open') closed.add(page.is);
    for (const body of [...(page.is === 'open' ? [{ address, values: {} }] : []), { address, values }])
      yield {
        asking: { method: 'POST', path: `${base(copy)}/api/before-saving`, body },
        reads: 'part',
        predicted: { ...page, totals: [], charts: [] },
        about: screen.id,
      };
  }
}

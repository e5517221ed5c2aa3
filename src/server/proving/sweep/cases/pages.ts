import { addressOf } from '@/core/access';
import { compile } from '@/core';
import type { Id, Screen } from '@/core/model';
import type { Predicted } from '@/core/sweep';
import type { Asking } from '../asker';
import { type Asked, base, type Case, recordsOf, withSession } from './case';
import { filled, other } from './values';

const RSC = { rsc: '1' };

/**
 * Each screen, and each on every record. The page's document carries all that the browser that is at the application
 * already is sent (RSC), and costs the server far more: it is asked for once for each thing that can come of it.
 */
export function* pages(asked: Asked): Generator<Case> {
  const { copy, predictor, records } = asked;
  for (const { node: screen } of compile(copy.definition).tree.elements.filter(isScreen)) {
    const entity = screen.binds?.record === 'existing' ? screen.binds.entity : undefined;
    const on: (string | undefined)[] =
      entity === undefined ? [undefined] : recordsOf(asked, entity).map((record) => record.id);
    // A record of another kind has no page there.
    if (entity !== undefined) on.push(records.find((one) => one.entity.id !== entity)?.id ?? 'none');
    const whole = new Set<Predicted['is']>();
    for (const record of on) {
      const address = addressOf(screen, record);
      const { is } = predictor.page(address);
      const path = `${base(copy)}/${address}`;
      if (!whole.has(is)) yield* page(asked, screen, { path }, address);
      whole.add(is);
      yield* page(asked, screen, { path: `${path}?_rsc`, headers: RSC }, address);
    }
    const address = addressOf(screen, on[0]);
    for (const face of screen.faces ?? []) {
      const path = `${base(copy)}/${address}?face=${face.id}&_rsc`;
      yield* page(asked, screen, { path, headers: RSC }, address, face.id);
    }
    yield* beforeSaving(asked, screen, on);
  }
  const nowhere = 'zinc-no-such-address';
  yield { asking: { path: `${base(copy)}/${nowhere}` }, reads: 'page', predicted: predictor.page(nowhere) };
  yield { asking: { path: base(copy) }, reads: 'page', predicted: predictor.first() };
  // What these say is the same for everybody, or about who asks.
  for (const path of ['account', 'sign-in', 'sign-up', 'confirm'])
    yield { asking: { path: `${base(copy)}/${path}` }, tells: 'what may be known' };
}

/** One page. Where opening it sets something for the session, it is decided with that, and asked when nothing else is. */
function* page(asked: Asked, screen: Screen, asking: Asking, address: string, face?: Id): Generator<Case> {
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
function* beforeSaving(asked: Asked, screen: Screen, on: readonly (string | undefined)[]): Generator<Case> {
  const { copy, predictor, records } = asked;
  const { tree } = compile(copy.definition);
  if (!screen.binds) return;
  const entity = tree.need(screen.binds.entity, 'rows').node;
  for (const id of on.slice(0, 2)) {
    const record = records.find((one) => one.id === id);
    const values = record
      ? Object.fromEntries(entity.fields.map((field) => [field.id, other(asked, field, record) ?? null]))
      : filled(asked, entity);
    const address = addressOf(screen, id);
    const page = predictor.page(address);
    for (const body of [
      { address, values: {} },
      { address, values },
    ])
      yield {
        asking: { method: 'POST', path: `${base(copy)}/api/before-saving`, body },
        reads: 'part',
        predicted: { ...page, totals: [], charts: [] },
        about: screen.id,
      };
  }
}

const isScreen = <T extends { readonly kind: string }>(one: T): one is Extract<T, { kind: 'screen' }> =>
  one.kind === 'screen';

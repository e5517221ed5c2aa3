import { addressOf } from '@/core/access';
import { compile } from '@/core';
import type { AppElement, List } from '@/core/model';
import { written } from '@/core/sweep';
import { VERSION } from '../asker';
import { type SweepContext, base, type Case, isOpen, may, ofEachSort, recordsOf, withSession } from './case';
import { other } from './values';

/** What buttons ask of the server that is about more than one record: changing many of a list, and setting session values. */
export function* pressing(asked: SweepContext, element: AppElement): Generator<Case> {
  if (element.kind === 'list') yield* changingMany(asked, element.node);
  if (element.kind === 'button') yield* settingSession(asked, element);
}

/** A button that sets something for the session: then its screen is as it is with that. */
function* settingSession(
  asked: SweepContext,
  element: Extract<AppElement, { kind: 'button' }>,
): Generator<Case> {
  const { copy, access, self } = asked;
  const { effect } = element.node;
  if (effect.do !== 'set-session') return;
  const about = element.id;
  const path = `${base(copy)}/api/session-values`;
  const entity = access.compiled.tree.recordOf(element);
  const on =
    entity &&
    recordsOf(asked, entity.id).find((record) => isOpen(asked, record) && may(asked, about, record));
  const asking = { method: 'POST', path, body: { button: about, ...(on && { record: on.id }) } };
  if (self === undefined || (entity ? !on : !may(asked, about))) {
    // Who may perhaps is asked on no record, and refused.
    yield { asking, refused: true, about };
    return;
  }
  const by = withSession(asked, { [effect.value]: effect.to });
  const { screen } = element;
  const address = screen && addressOf(screen, screen.binds?.record === 'existing' ? on?.id : undefined);
  const predicted = address === undefined ? undefined : by.page(address);
  const then =
    address !== undefined && predicted?.is === 'open' && !screen?.sets
      ? [{ asking: { path: `${base(copy)}/${address}` }, does: { predicted, by }, about }]
      : [];
  yield { asking, does: { by }, then, setsSession: true, about };
}

/** A list's records, one of those that may be changed from it and each that may not. */
function* changingMany(asked: SweepContext, list: List): Generator<Case> {
  const { copy, access, predictor } = asked;
  const { tree } = compile(copy.definition);
  const { screen } = access.element(list.id);
  const binds = screen?.binds;
  const [on] = binds?.record === 'existing' ? recordsOf(asked, binds.entity) : [];
  const carried = predictor.carried(list, 'bulk', on) ?? [];
  const action = tree.optionalAction(tree.need(list.entity, 'rows').node, 'bulk');
  if (!action) return;
  const tried = recordsOf(asked, list.entity).map((record) => {
    const ways = record.entity.fields.flatMap((field) => {
      const to = other(asked, field, record);
      const values = { [field.id]: to ?? null };
      return to === undefined ? [] : [{ values, then: written(access, record, values) }];
    });
    const carries = carried.includes(record);
    return { record, carries, ways, way: (carries && ways.find(({ then }) => then)) || ways[0] };
  });
  const sorts = ofEachSort(
    asked,
    tried,
    ({ carries, ways }) => `${carries} ${ways.map(({ then }) => then !== undefined).join()}`,
  );
  const about = action.id;
  for (const { record, carries, way } of sorts) {
    if (!way) continue;
    const asking = {
      method: 'POST',
      path: `${base(copy)}/api/lists/${list.id}/bulk`,
      seen: `${base(copy)}/api/records/${list.entity}/${record.id}`,
      body: {
        ...(on && { record: on.id }),
        records: [{ id: record.id, version: VERSION }],
        values: way.values,
      },
    };
    if (!carries || !way.then) {
      yield { asking, refused: true, about };
      continue;
    }
    const becomes = new Map([[record.id, way.then]]);
    yield { asking, does: { becomes, by: predictor.after(becomes) }, about };
  }
}

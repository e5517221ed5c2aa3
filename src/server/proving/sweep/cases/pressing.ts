import { addressOf } from '@/core/access';
import { compile } from '@/core';
import type { AppElement, List } from '@/core/model';
import { written } from '@/core/sweep';
import { tagOf } from '../../../records/tag';
import { type Asked, base, type Case, isOpen, may, recordsOf, TRIED, withSession } from './case';
import { other } from './values';

/** What buttons ask of the server that is about more than one record: changing many of a list, and setting session values. */
export function* pressing(asked: Asked): Generator<Case> {
  const { copy } = asked;
  for (const element of compile(copy.definition).tree.elements) {
    if (element.kind === 'list') yield* changingMany(asked, element.node);
    if (element.kind === 'button') yield* settingSession(asked, element);
  }
}

/** A button that sets something for the session: then its screen is as it is with that. */
function* settingSession(asked: Asked, element: Extract<AppElement, { kind: 'button' }>): Generator<Case> {
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
function* changingMany(asked: Asked, list: List): Generator<Case> {
  const { copy, access, predictor } = asked;
  const { tree } = compile(copy.definition);
  const { screen } = access.element(list.id);
  const binds = screen?.binds;
  const [on] = binds?.record === 'existing' ? recordsOf(asked, binds.entity) : [];
  const carried = predictor.carried(list, 'bulk', on) ?? [];
  const action = tree.optionalAction(tree.need(list.entity, 'rows').node, 'bulk');
  if (!action) return;
  let done = 0;
  for (const record of recordsOf(asked, list.entity).slice(0, TRIED)) {
    const changes = record.entity.fields.flatMap((field) => {
      const to = other(asked, field, record);
      return to === undefined ? [] : [{ [field.id]: to }];
    });
    const ways = changes.map((values) => ({ values, then: written(access, record, values) }));
    const way = (carried.includes(record) && ways.find(({ then }) => then)) || ways[0];
    if (!way) continue;
    const asking = {
      method: 'POST',
      path: `${base(copy)}/api/lists/${list.id}/bulk`,
      body: {
        ...(on && { record: on.id }),
        records: [{ id: record.id, version: tagOf(access, record) }],
        values: way.values,
      },
    };
    const about = action.id;
    if (!carried.includes(record) || !way.then) yield { asking, refused: true, about };
    else if (done++ === 0) {
      const becomes = new Map([[record.id, way.then]]);
      yield { asking, does: { becomes, by: predictor.after(becomes) }, about };
    }
  }
}

import { EDIT } from '@/core/access';
import { compile } from '@/core';
import type { List } from '@/core/model';
import { written } from '@/core/sweep';
import { tagOf } from '../../../records/tag';
import { type Asked, base, type Case, recordsOf, TRIED } from './case';
import { other } from './values';

/** What buttons ask of the server that is about more than one record: changing many of a list, and setting session values. */
export function* pressing(asked: Asked): Generator<Case> {
  const { copy, access } = asked;
  for (const element of compile(copy.definition).tree.elements) {
    if (element.kind === 'list') yield* changingMany(asked, element.node);
    if (element.kind !== 'button' || element.node.effect.do !== 'set-session') continue;
    // Who may is asked as with what they hold then.
    if (access.answer(element).most === EDIT) continue;
    const asking = {
      method: 'POST',
      path: `${base(copy)}/api/session-values`,
      body: { button: element.id },
    };
    yield { asking, refused: true, about: element.id };
  }
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

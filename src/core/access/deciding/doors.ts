import type { Formula } from '../../condition/formula';
import type { List } from '../../model/definition';
import type { Id } from '../../model/id';
import type { AppElement } from '../../model/tree';
import type { Rule } from './rule';

/** Whose rules are asked. */
interface Ruled {
  element(id: Id): AppElement;
  rule(element: AppElement): Rule;
  newFieldRule(element: AppElement): Rule;
  carriedRule(list: List): Rule;
}

/** What really protects data, by the door's id. What each takes is in `plan.ts`. */
export class Doors {
  constructor(private readonly access: Ruled) {}

  rows(entity: Id): Rule {
    return this.access.rule(this.access.element(entity));
  }

  /** The action may be done only where this reaches edit; for one that only reads, see counts as edit. */
  action(id: Id): Rule {
    return this.access.rule(this.access.element(id));
  }

  /** A field of the data, of a stored record or of one that is being made. */
  field(id: Id, record: 'existing' | 'new'): Rule {
    const element = this.access.element(id);
    return record === 'new' ? this.access.newFieldRule(element) : this.access.rule(element);
  }

  /** Which records pass a list's fixed filter, for this viewer. One in doubt does not. */
  carried(list: List): Formula {
    return this.access.carriedRule(list).see;
  }
}

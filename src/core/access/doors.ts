import type { Screen } from '../model/definition';
import type { Id } from '../model/id';
import type { Compiled } from './compile';
import { all, any, surely } from './formula';
import { ALWAYS, editOnlyIf, higher, lower, type Rule } from './rule';

/**
 * The doors, as one viewer finds them. Worked out in the order gates → rows → actions → fields, and
 * read only gate results, so nothing is circular. Each is worked out once, when it is first asked for.
 */
export class Doors {
  private readonly known = new Map<string, Rule>();

  constructor(
    private readonly compiled: Compiled,
    /** An element's gate result for this viewer. */
    private readonly gate: (id: Id) => Rule,
  ) {}

  /** A screen: its own gate and, for one that shows a record, that record's rows door. */
  screen(screen: Screen): Rule {
    const gate = this.gate(screen.id);
    return screen.binds?.record === 'existing' ? lower(gate, this.rows(screen.binds.entity)) : gate;
  }

  /**
   * An entity's rows. Following: open for a record if a screen for it can be opened on that record, or
   * a list of them stands on a screen that can be opened and the record passes the list's filter.
   */
  rows(entity: Id): Rule {
    return this.once(`rows ${entity}`, () => {
      if (this.compiled.lines(entity)) return this.gate(entity);
      const { handles } = this.compiled;
      const open = any(
        ...handles.recordScreensOf(entity).map((screen) => this.gate(screen.id).see),
        ...handles.listsOf(entity).map(({ node }) => all(this.gate(node.id).see, surely(node.filter))),
      );
      return { see: open, edit: open };
    });
  }

  /**
   * An action. Following: as its buttons give it, each for the records that its screen or list carries.
   * The action may be done only where this reaches edit.
   */
  action(action: Id): Rule {
    return this.once(`action ${action}`, () => {
      const entity = this.entityOf(action);
      const base = this.compiled.lines(action)
        ? this.gate(action)
        : higher(
            ...this.compiled.handles.buttonsOf(action).map(({ node, list }) => {
              const gate = this.gate(node.id);
              const carried = surely(list?.filter);
              return { see: all(gate.see, carried), edit: all(gate.edit, carried) };
            }),
          );
      return lower(base, this.rows(entity));
    });
  }

  /**
   * A field of the data, of a stored record or of one that is being made. Following: the highest that its
   * handles give. A handle gives edit only if a button on its screen saves.
   */
  field(field: Id, record: 'existing' | 'new'): Rule {
    return this.once(`field ${record} ${field}`, () => {
      const entity = this.compiled.tree.need(this.entityOf(field), 'rows').node;
      const base = this.compiled.lines(field) ? this.gate(field) : this.fieldOnScreens(field, record);
      const save = this.compiled.tree.action(entity, record === 'new' ? 'create' : 'update');
      const rule = editOnlyIf(this.action(save.id).edit, base);
      return record === 'new' ? rule : lower(rule, this.rows(entity.id));
    });
  }

  private fieldOnScreens(field: Id, record: 'existing' | 'new'): Rule {
    const { handles, tree } = this.compiled;
    if (tree.need(field, 'data-field').node.neverFollows) return ALWAYS[0];
    const parts = handles.fieldsOf(field, record).map(({ node, screen }) => {
      const saves = any(...handles.savesOn(screen).map((button) => this.gate(button.id).edit));
      return editOnlyIf(saves, this.gate(node.id));
    });
    if (record === 'new') return higher(...parts);
    const columns = handles.columnsOf(field).map(({ node, list }) => ({
      see: all(this.gate(node.id).see, surely(list?.filter)),
      edit: false,
    }));
    return higher(...parts, ...columns);
  }

  private entityOf(part: Id): Id {
    const entity = this.compiled.tree.entityOf(part);
    if (!entity) throw new Error(`No entity has the part ${part}`);
    return entity.id;
  }

  private once(key: string, work: () => Rule): Rule {
    let rule = this.known.get(key);
    if (!rule) this.known.set(key, (rule = work()));
    return rule;
  }
}

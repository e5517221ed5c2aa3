import type { Button, Definition, Entity, List, Screen } from '@/core/model/definition';
import type { Line } from '@/core/model/gate';
import type { Id } from '@/core/model/id';
import { Tree, type Element } from '@/core/model/tree';
import type { Values } from '@/core/model/value';
import type { Viewer } from '@/core/access/viewer';

/**
 * A plain, slow reading of DESIGN 3.1 to 3.4, for one record, sentence by sentence. It shares nothing
 * with the access code that it is compared with: no bit sets, no formulas, no caches.
 */
export class PlainReading {
  private readonly tree: Tree;

  constructor(
    private readonly definition: Definition,
    private readonly viewer: Viewer,
  ) {
    this.tree = new Tree(definition);
  }

  private holds(role: Id, from: readonly Id[], seen: readonly Id[] = []): boolean {
    return from.some((id) => {
      if (id === role) return true;
      if (seen.includes(id)) return false;
      const included = this.definition.roles.find((one) => one.id === id)?.includes ?? [];
      return this.holds(role, included, [...seen, id]);
    });
  }

  private matches({ who }: Line): boolean | 'doubt' {
    const { viewer } = this;
    switch (who.kind) {
      case 'everyone':
        return true;
      case 'signed-out':
        return viewer.kind === 'signed-out';
      case 'signed-in':
        return viewer.kind === 'signed-in';
      case 'person':
        return viewer.kind === 'signed-in' && viewer.person === who.person;
      case 'role':
        if (!this.definition.roles.some((role) => role.id === who.role)) return 'doubt';
        if (viewer.kind === 'signed-out') return false;
        return who.exactly ? viewer.roles.includes(who.role) : this.holds(who.role, viewer.roles);
    }
  }

  /** 3.2: own = min(given, limit); result = min(own, container's result); a follower: container's. */
  result(element: Element): number {
    const above = element.container ? this.result(element.container) : 2;
    const gate = this.definition.gates[element.id];
    if (!gate) return above;
    let given = 0;
    let limit = 2;
    for (const line of gate.lines) {
      const matched = this.matches(line);
      if (line.what === 'see' && matched === true) given = Math.max(given, 1);
      if (line.what === 'edit' && matched === true) given = 2;
      if (line.what === 'block' && matched !== false) limit = 0;
      if (line.what === 'at-most-see' && matched !== false) limit = Math.min(limit, 1);
    }
    return Math.min(given, limit, above);
  }

  private resultOf(id: Id): number {
    return this.result(this.tree.get(id) as Element);
  }

  private parts(): { screen: Screen; part: Screen['sections'][number]['parts'][number] }[] {
    return this.tree
      .screens()
      .flatMap((screen) => screen.sections.flatMap(({ parts }) => parts.map((part) => ({ screen, part }))));
  }

  private lists(entity: Entity): List[] {
    return this.parts().flatMap(({ part }) =>
      part.kind === 'list' && part.entity === entity.id ? [part] : [],
    );
  }

  private passes(list: List, values: Values): boolean {
    return !list.filter || values[list.filter.field] === list.filter.equals;
  }

  rows(entity: Entity, values: Values): number {
    if (this.definition.gates[entity.id]) return this.resultOf(entity.id);
    const onScreen = this.tree.screens().some((one) => this.shows(one, entity) && this.resultOf(one.id) >= 1);
    const inList = this.lists(entity).some(
      (list) => this.resultOf(list.id) >= 1 && this.passes(list, values),
    );
    return onScreen || inList ? 2 : 0;
  }

  private shows(screen: Screen, entity: Entity): boolean {
    return screen.binds?.entity === entity.id && screen.binds.record === 'existing';
  }

  /** Every button for the action that is there for this record. */
  private buttons(entity: Entity, kind: string, action: Id, values: Values): Button[] {
    const does = (button: Button, screen: Screen): boolean =>
      (kind === 'named' && button.effect.do === 'action' && button.effect.action === action) ||
      (kind === 'delete' && button.effect.do === 'delete') ||
      (button.effect.do === 'save' && kind === (screen.binds?.record === 'new' ? 'create' : 'update'));
    return this.parts().flatMap(({ screen, part }) => {
      if (part.kind === 'button')
        return screen.binds?.entity === entity.id && does(part, screen) ? [part] : [];
      if (part.kind !== 'list' || part.entity !== entity.id || !this.passes(part, values)) return [];
      return part.buttons.filter((button) => button.effect.do !== 'save' && does(button, screen));
    });
  }

  action(id: Id, values: Values): number {
    const entity = this.tree.entityOf(id) as Entity;
    const action = entity.actions.find((one) => one.id === id);
    const rows = this.rows(entity, values);
    if (this.definition.gates[id]) return Math.min(this.resultOf(id), rows);
    const given = this.buttons(entity, action?.kind ?? '', id, values).map((one) => this.resultOf(one.id));
    return Math.min(rows, Math.max(0, ...given));
  }

  field(id: Id, values: Values, record: 'existing' | 'new'): number {
    const entity = this.tree.entityOf(id) as Entity;
    const save = entity.actions.find((one) => one.kind === (record === 'new' ? 'create' : 'update'));
    const writable = this.action(save?.id ?? '', values) === 2;
    const rows = record === 'new' ? 2 : this.rows(entity, values);
    let level = 0;
    if (this.definition.gates[id]) level = this.resultOf(id);
    else if (!entity.fields.find((one) => one.id === id)?.neverFollows)
      for (const { screen, part } of this.parts()) {
        if (part.kind === 'field' && part.field === id && screen.binds?.record === record) {
          const saves = screen.sections
            .flatMap(({ parts }) => parts)
            .some((one) => one.kind === 'button' && one.effect.do === 'save' && this.resultOf(one.id) === 2);
          level = Math.max(level, Math.min(this.resultOf(part.id), saves ? 2 : 1));
        }
        if (
          part.kind === 'list' &&
          record === 'existing' &&
          part.entity === entity.id &&
          this.passes(part, values)
        )
          for (const column of part.columns)
            if (column.field === id) level = Math.max(level, Math.min(this.resultOf(column.id), 1));
      }
    return Math.min(level, rows, writable ? 2 : 1);
  }

  screen(screen: Screen, values: Values): number {
    const gate = this.resultOf(screen.id);
    if (screen.binds?.record !== 'existing') return gate;
    return Math.min(gate, this.rows(this.tree.entityOf(screen.binds.entity) as Entity, values));
  }

  /** The effective level of any element on a record of the entity that it is about. */
  level(element: Element, values: Values): number {
    const own = this.result(element);
    const opens = element.screen && !element.list && this.screen(element.screen, values) === 0 ? 0 : 2;
    const lead = (screen: Id): number =>
      Math.min(own, this.screen(this.tree.need(screen, 'screen').node, values)) >= 1 ? 2 : 0;
    switch (element.kind) {
      case 'rows':
        return this.rows(element.node, values);
      case 'action':
        return this.action(element.id, values);
      case 'data-field':
        return this.field(element.id, values, 'existing');
      case 'screen':
        return this.screen(element.node, values);
      case 'menu-item':
        return element.node.screen ? lead(element.node.screen) : own >= 1 ? 2 : 0;
      case 'field':
        return Math.min(
          opens,
          own,
          this.field(element.node.field, values, element.screen?.binds?.record ?? 'existing'),
        );
      case 'column':
        return Math.min(own, this.field(element.node.field, values, 'existing'));
      case 'list':
        return Math.min(own, this.rows(this.tree.entityOf(element.node.entity) as Entity, values));
      case 'button': {
        const { effect } = element.node;
        if (effect.do === 'open') return Math.min(opens, lead(effect.screen));
        if (effect.do === 'sign-out') return Math.min(opens, own >= 1 ? 2 : 0);
        const entity = this.tree.entityOf(
          element.list?.entity ?? element.screen?.binds?.entity ?? '',
        ) as Entity;
        const making = element.screen?.binds?.record === 'new' ? 'create' : 'update';
        const kind = effect.do === 'save' ? making : effect.do;
        const action =
          effect.do === 'action' ? effect.action : entity.actions.find((one) => one.kind === kind)?.id;
        return Math.min(opens, own, this.action(action ?? '', values));
      }
      default:
        return Math.min(opens, own);
    }
  }
}

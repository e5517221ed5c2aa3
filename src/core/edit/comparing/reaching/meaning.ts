import type { Compiled } from '../../../access/deciding/compile';
import { allNamed } from '../../../condition/named';
import { operandsOf, type Condition } from '../../../condition/condition';
import type { Definition, Entity, List } from '../../../model/definition';
import type { Line, Who } from '../../../model/gate';
import type { Id } from '../../../model/id';
import { privilegesOf } from '../../../model/privileges';
import { withIncluded, type AppElement } from '../../../model/tree';

/**
 * What lines and filters mean in one definition, as texts: of two definitions in which a text is the same, the line
 * gives every viewer the same in every circumstance. Two texts may differ where the lines do the same.
 */
export class Meanings {
  private readonly definition: Definition;
  /** What everything that asks for a unit, an attribute, a session value or the time depends on. */
  private readonly world: string;
  private readonly roles = new Map<Id, string>();
  private readonly privileges = new Map<Id, string>();
  private readonly entities = new Map<Entity, string>();

  constructor(private readonly compiled: Compiled) {
    const { definition } = compiled;
    this.definition = definition;
    const { timeZone, units, attributes, sessionValues } = definition;
    this.world = JSON.stringify([timeZone, units, typed(attributes), typed(sessionValues)]);
    const held = definition.roles.map(({ id }) => [id, withIncluded(definition, [id])] as const);
    const byId = new Map(definition.roles.map((role) => [role.id, role]));
    for (const { id } of definition.roles)
      this.roles.set(id, held.flatMap(([role, all]) => (all.has(id) ? [role] : [])).join(' '));
    for (const { id } of privilegesOf(definition)) {
      const holding = held.filter(([, all]) =>
        [...all].some((one) => byId.get(one)?.privileges.includes(id)),
      );
      this.privileges.set(id, holding.map(([role]) => role).join(' '));
    }
  }

  /** What each of the lines of an element's own gate means; undefined where it follows. */
  gate(element: AppElement): ReadonlySet<string> | undefined {
    const lines = this.compiled.lines(element.id);
    if (!lines) return undefined;
    const entity = this.compiled.tree.recordOf(element);
    return new Set(lines.map((line) => this.line(line, entity)));
  }

  /** What a list's fixed filter means. */
  filter({ filter, entity }: List): string {
    return filter ? this.condition(filter, this.compiled.tree.entityOf(entity)) : '';
  }

  private line({ id, who, what, when }: Line, entity: Entity | undefined): string {
    return `${id} ${what} ${this.who(who)} ${when ? this.condition(when, entity) : ''}`;
  }

  private who(who: Who): string {
    switch (who.kind) {
      case 'role':
        return `${who.role} ${who.exactly ? this.roles.has(who.role) : this.roles.get(who.role)} ${this.world}`;
      case 'privilege':
        return `${who.privilege} ${this.privileges.get(who.privilege)} ${this.world}`;
      case 'group': {
        const condition: Condition = { inGroup: who.group };
        return this.condition(condition, undefined);
      }
      case 'unit':
        return `${who.unit} ${this.world}`;
      case 'everyone':
      case 'person':
      case 'signed-in':
      case 'signed-out':
        return JSON.stringify(who);
    }
  }

  private condition(condition: Condition, entity: Entity | undefined): string {
    const parts = allNamed(this.definition, condition);
    const roles = parts.flatMap((one) =>
      'hasRole' in one
        ? [this.roles.get(one.hasRole)]
        : 'hasPrivilege' in one
          ? [this.privileges.get(one.hasPrivilege)]
          : [],
    );
    const asksRecord = parts.flatMap(operandsOf).some((one) => 'record' in one);
    return JSON.stringify([parts, roles, asksRecord && entity ? this.fields(entity) : '', this.world]);
  }

  /** The types of an entity's fields, and of what these point to. */
  private fields(entity: Entity): string {
    let text = this.entities.get(entity);
    if (text === undefined) {
      const { entities } = this.definition;
      const targets = entity.fields.flatMap(({ type }) =>
        type.kind === 'record' ? entities.filter(({ id }) => id === type.entity) : [],
      );
      text = JSON.stringify(
        [entity, ...targets].map(({ id, unitField, fields }) => [id, unitField, typed(fields)]),
      );
      this.entities.set(entity, text);
    }
    return text;
  }
}

const typed = (all: readonly { readonly id: Id; readonly type: unknown }[]): unknown =>
  all.map(({ id, type }) => [id, type]);

import type { Access } from '../access/deciding/access';
import type { Compiled } from '../access/deciding/compile';
import type { Rule } from '../access/deciding/rule';
import type { Entity } from '../model/definition';
import type { Id } from '../model/id';
import type { AppElement } from '../model/tree';

/**
 * What has been asked already as somebody else. Of two viewers for whom the same lines count at all the doors that an
 * answer comes from, and for whom those doors give the same, only one needs to be asked: whatever decides has nothing
 * else to tell them apart by.
 */
export class Already {
  private readonly numbers = new Map<string, number>();
  private readonly rules = new WeakMap<Rule, number>();
  private readonly doors = new WeakMap<Access, Map<AppElement, number>>();
  /** How many requests it took, by the key. */
  private readonly known = new Map<string, number>();

  /** What all those share who need not be asked apart about a topic whose answers come from these elements. */
  keyOf(topic: string, access: Access, elements: readonly AppElement[]): string {
    return `${topic} ${this.number(elements.map((element) => this.at(access, element)).join())}`;
  }

  /** How many requests were made with that key; undefined where none were. */
  took(key: string): number | undefined {
    return this.known.get(key);
  }

  /** They have been made. */
  note(took: ReadonlyMap<string, number>): void {
    for (const [key, requests] of took) if (!this.known.has(key)) this.known.set(key, requests);
  }

  /** Which of its lines speak of the viewer, and what it takes to get it. */
  private at(access: Access, element: AppElement): number {
    let found = this.doors.get(access);
    if (!found) this.doors.set(access, (found = new Map<AppElement, number>()));
    let number = found.get(element);
    if (number === undefined) {
      const { held, compiled } = access;
      const speaking = compiled
        .lines(element.id)
        ?.flatMap(({ who }, n) => (held.isSpokenOf(who)('be true') === false ? [] : [n]));
      const rules = [
        access.rule(element),
        access.outerRule(element),
        ...(element.kind === 'data-field' ? [access.newFieldRule(element)] : []),
        ...(element.kind === 'list' ? [access.carriedRule(element.node)] : []),
      ];
      number = this.number(
        `${speaking?.join()} ${rules.map((rule) => rule && this.ruleNumber(rule)).join()}`,
      );
      found.set(element, number);
    }
    return number;
  }

  private ruleNumber(rule: Rule): number {
    let number = this.rules.get(rule);
    if (number === undefined) this.rules.set(rule, (number = this.number(JSON.stringify(rule))));
    return number;
  }

  private number(text: string): number {
    let number = this.numbers.get(text);
    if (number === undefined) this.numbers.set(text, (number = this.numbers.size));
    return number;
  }
}

/** All that answers about a screen come from: what it is in, what is on it, and the data that it shows. */
export function behindScreen(compiled: Compiled, screen: AppElement): AppElement[] {
  const { tree } = compiled;
  const inside = tree.within(screen);
  const entities = inside.flatMap((element) => tree.recordOf(element) ?? []);
  return unique([
    ...containersOf(screen),
    ...inside,
    ...entities.flatMap((one) => behindData(compiled, one)),
  ]);
}

/** All that answers about a kind of data come from: its doors, the names of what it points to, and the screens that show it. */
export function behindData({ tree }: Compiled, entity: Entity): AppElement[] {
  const named = entity.fields.flatMap(({ type }) => {
    const to = type.kind === 'record' ? tree.entityOf(type.entity) : undefined;
    return to ? [to.id, to.labelField] : [];
  });
  const screens = tree
    .screens()
    .filter(({ binds }) => binds?.record === 'existing' && binds.entity === entity.id);
  const ids = [entity, ...entity.fields, ...entity.actions, ...screens].map(({ id }) => id);
  return [...ids, ...named].flatMap((id) => tree.get(id) ?? []);
}

function containersOf({ container }: AppElement): AppElement[] {
  return container ? [container, ...containersOf(container)] : [];
}

const unique = <T>(all: readonly T[]): T[] => [...new Set(all)];

import type { Access } from '../access/deciding/access';
import type { Compiled } from '../access/deciding/compile';
import { answerOf, dependsOnRecord, levelOn, type Rule } from '../access/deciding/rule';
import type { KnownRecord } from '../access/sent/resolve';
import type { Id } from '../model/id';
import type { AppElement, Tree } from '../model/tree';

/** More than there are numbers of what decides at one element. */
const APART = 2 ** 26;

/** What was found out of a viewer: by the numbers of elements what decides, and by those of subjects who is spoken of. */
interface ViewerCoverage {
  readonly at: (readonly number[] | undefined)[];
  readonly spoken: (boolean | undefined)[];
}

/**
 * What has been asked already as somebody else. A topic is asked about again only as somebody of whom a line speaks at one
 * of the doors that its answers come from that spoke of nobody who was asked before, or whom a door gives what it gave
 * nobody: other levels on the records that there are, be it on other ones of them. For all others the same lines have
 * been asked about at the same doors.
 */
export class Already {
  private readonly numbers = new Map<string, number>();
  private readonly rules = new WeakMap<Rule, string>();
  private readonly found = new WeakMap<Access, ViewerCoverage>();
  private readonly asked = new Map<string, { readonly of: Set<number>; readonly requests: number }>();
  private readonly records = new Map<Id, KnownRecord[]>();

  constructor(records: readonly KnownRecord[]) {
    for (const record of records) {
      const { id } = record.entity;
      this.records.set(id, [...(this.records.get(id) ?? []), record]);
    }
  }

  /**
   * What decides for the viewer at these elements, as numbers: each line that speaks of them, and what each gives; apart for
   * each thing that the main ones give, since what is closed in something open is not what is closed in something closed.
   */
  decidingAt(access: Access, main: readonly AppElement[], elements: readonly AppElement[]): number[] {
    const gives = main.map((element) => this.at(access, element)[0]);
    const apart = this.number(`main ${gives.join()}`) * APART;
    return [apart, ...elements.flatMap((element) => this.at(access, element).map((one) => apart + one))];
  }

  /** How many requests the topic took, if all of this has decided in it already. */
  took(topic: string, deciding: readonly number[]): number | undefined {
    const before = this.asked.get(topic);
    return before && deciding.every((one) => before.of.has(one)) ? before.requests : undefined;
  }

  /** The topic was asked about, with this deciding. */
  note(topic: string, deciding: readonly number[], requests: number): void {
    const of = this.asked.get(topic)?.of ?? new Set();
    for (const one of deciding) of.add(one);
    this.asked.set(topic, { of, requests });
  }

  private at(access: Access, element: AppElement): readonly number[] {
    let known = this.found.get(access);
    if (!known) this.found.set(access, (known = { at: [], spoken: [] }));
    let numbers = known.at[element.number];
    if (!numbers) {
      const { held, compiled } = access;
      const { spoken } = known;
      const own = compiled.tree.recordOf(element)?.id;
      const outer = access.outerRule(element);
      const gives = [
        this.given(access.rule(element), own),
        ...(outer ? [`outside ${this.given(outer, element.screen?.binds?.entity)}`] : []),
        ...(element.kind === 'data-field' ? [`new ${this.given(access.newFieldRule(element), own)}`] : []),
        ...(element.kind === 'list' ? [`carries ${this.given(access.carriedRule(element.node), own)}`] : []),
      ];
      const gate = compiled.gateAt(element.number);
      const speaking = (gate?.lines ?? []).filter(({ who }, n) => {
        const subject = gate?.subjects[n] ?? 0;
        return (spoken[subject] ??= held.isSpokenOf(who)('be true') !== false);
      });
      numbers = [...gives, ...speaking.map(({ id }) => `line ${id}`)].map((one) =>
        this.number(`${element.number} ${one}`),
      );
      known.at[element.number] = numbers;
    }
    return numbers;
  }

  /** Which levels the rule gives on the records that there are. */
  private given(rule: Rule, entity: Id | undefined): string {
    if (!dependsOnRecord(rule)) return String(answerOf(rule).most);
    let found = this.rules.get(rule);
    if (found === undefined) {
      const levels = (this.records.get(entity ?? '') ?? []).map((record) => levelOn(rule, record));
      this.rules.set(rule, (found = [...new Set(levels)].sort().join('')));
    }
    return found;
  }

  private number(text: string): number {
    let number = this.numbers.get(text);
    if (number === undefined) this.numbers.set(text, (number = this.numbers.size));
    return number;
  }
}

const behind = new WeakMap<Tree, Map<Id, readonly AppElement[]>>();

/** All that answers about a screen or a part of one, or about a kind of data, come from. */
export function behindTopic({ tree }: Compiled, id: Id): readonly AppElement[] {
  let known = behind.get(tree);
  if (!known) behind.set(tree, (known = new Map<Id, readonly AppElement[]>()));
  let found = known.get(id);
  if (!found) {
    const element = tree.get(id);
    found = [
      ...new Set(element && element.kind !== 'rows' ? behindPart(tree, element) : behindData(tree, id)),
    ];
    known.set(id, found);
  }
  return found;
}

/** What it is in, what is in it, and the data that it shows. */
function behindPart(tree: Tree, part: AppElement): AppElement[] {
  const inside = tree.within(part);
  const data = inside.flatMap((element) => tree.recordOf(element)?.id ?? []);
  return [...containersOf(part), ...inside, ...data.flatMap((id) => behindData(tree, id))];
}

/** Its doors, and the names of what it points to. */
function behindData(tree: Tree, id: Id): AppElement[] {
  const entity = tree.entityOf(id);
  if (!entity) return [];
  const named = entity.fields.flatMap(({ type }) => {
    const to = type.kind === 'record' ? tree.entityOf(type.entity) : undefined;
    return to ? [to.id, to.labelField] : [];
  });
  const own = [entity, ...entity.fields, ...entity.actions].map((one) => one.id);
  return [...own, ...named].flatMap((one) => tree.get(one) ?? []);
}

function containersOf({ container }: AppElement): AppElement[] {
  return container ? [container, ...containersOf(container)] : [];
}

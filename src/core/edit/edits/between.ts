import type { Definition, MenuItem } from '../../model/definition';
import type { Gate } from '../../model/gate';
import type { Id } from '../../model/id';
import { sameJson } from '../../model/same-json';
import { SETTINGS } from '../../model/schema';
import {
  heldIn,
  idsIn,
  ownOf,
  placedIn,
  placeOf,
  SLOTS,
  type ElementNode,
  type Placed,
  type Slot,
} from '../../model/slots';
import { treeOf } from '../../model/tree';
import { applyUnchecked } from './apply';
import { NAMED_LISTS, type Edit } from './edit';
import { within } from './elements';
import { editLines } from './make';
import { movedAmong } from './moved';

/**
 * The edit that makes one definition into another of the same application: each thing that differs is one small edit
 * of its own, known by its id. Undefined where nothing differs.
 */
export function editBetween(before: Definition, after: Definition): Edit | undefined {
  if (before.id !== after.id || before.menu.id !== after.menu.id || framesMoved(before, after))
    return { do: 'replace', from: before, to: after };
  const steps = new Steps(before, after);
  steps.settings();
  steps.named();
  steps.elements();
  steps.gates();
  const [only, ...more] = steps.edits;
  return more.length > 0 ? { do: 'together', edits: steps.edits } : only;
}

/** Does a frame stand in another area? Two cannot change places, since each area has room for one only. */
function framesMoved(before: Definition, after: Definition): boolean {
  const areaOf = new Map(before.areas.flatMap(({ id, frame }) => (frame ? [[frame.id, id] as const] : [])));
  return after.areas.some(({ id, frame }) => frame && (areaOf.get(frame.id) ?? id) !== id);
}

type Keys = Readonly<Record<string, unknown>>;

/** Goes from one definition to another, edit by edit. */
class Steps {
  readonly edits: Edit[] = [];
  private now: Definition;

  constructor(
    private readonly before: Definition,
    private readonly after: Definition,
  ) {
    this.now = before;
  }

  private make(edit: Edit): void {
    const made = applyUnchecked(this.now, edit);
    if (!made.ok)
      throw new Error(`The changes do not produce the new definition: ${made.problems[0]?.message}`);
    this.now = made.value;
    this.edits.push(edit);
  }

  settings(): void {
    const changed = changedKeys(
      this.before as unknown as Keys,
      this.after as unknown as Keys,
      Object.keys(SETTINGS),
    );
    if (changed) this.make({ do: 'changeSettings', ...changed });
  }

  /** Roles, groups and the like: those that are gone, new, another way, and in another order. */
  named(): void {
    for (const list of NAMED_LISTS) {
      const [was, is] = [this.before[list], this.after[list]] as readonly (readonly { readonly id: Id }[])[];
      if (!was || !is || sameJson(was, is)) continue;
      const has = (all: readonly { readonly id: Id }[], id: Id) => all.find((one) => one.id === id);
      was.forEach((item) => {
        const to = has(is, item.id);
        const at = this.now[list].findIndex((one) => one.id === item.id);
        if (!to) this.make({ do: 'removeItem', list, at, item } as Edit);
        else if (!sameJson(item, to)) this.make({ do: 'changeItem', list, from: item, to } as Edit);
      });
      is.forEach((item, at) => {
        if (!has(was, item.id)) this.make({ do: 'addItem', list, at, item } as Edit);
      });
      this.inOrder(
        () => this.now[list],
        is,
        (id, from, to) => this.make({ do: 'moveItem', list, id, from, to }),
      );
    }
  }

  /** Elements that are new, that stand elsewhere, that are gone, in another order, and that are another way. */
  elements(): void {
    if (treeOf(this.before) === treeOf(this.after)) return;
    const old = new Map([...placedIn(this.before)].map((one) => [one.node.id, one]));
    const wanted = [...placedIn(this.after)];
    const kept = new Set(wanted.map(({ node }) => node.id).filter((id) => old.has(id)));
    this.emptyFrames(kept);
    // Containers come before their contents, so what one is put in is there already, and in its place.
    for (const one of wanted) {
      const was = old.get(one.node.id);
      if (!was) {
        if (!this.isThere(one.node.id)) this.add(one, kept);
      } else if (!sameSlot(was.slot, one.slot)) this.move(one.node.id, one);
    }
    for (const { node, slot } of old.values())
      if (
        this.isThere(node.id) &&
        !kept.has(node.id) &&
        (slot.in === null || slot.in === this.now.menu.id || kept.has(slot.in))
      )
        this.remove(node.id);
    const holders: [Id | null, Keys][] = [
      [null, this.after as unknown as Keys],
      [this.after.menu.id, this.after.menu as unknown as Keys],
      ...wanted.map(({ node }): [Id, Keys] => [node.id, node]),
    ];
    for (const [id, holder] of holders)
      for (const list of SLOTS) {
        const wantedHere = holder[list] as readonly { readonly id: Id }[] | undefined;
        if (!Array.isArray(wantedHere) || wantedHere.length < 2) continue;
        const slot: Slot = { in: id, list };
        this.inOrder(
          () => this.heldIn(slot),
          wantedHere,
          (moved, from, to) =>
            this.make({ do: 'moveElement', id: moved, from: { ...slot, at: from }, to: { ...slot, at: to } }),
        );
      }
    for (const { node } of wanted) {
      const was = old.get(node.id);
      const changed = was && changedKeys(ownOf(was.node), ownOf(node));
      if (changed) this.make({ do: 'changeElement', id: node.id, ...changed });
    }
  }

  /** Frames that go make room before others come; what is kept of their items waits in the menu until then. */
  private emptyFrames(kept: ReadonlySet<Id>): void {
    for (const { frame } of this.before.areas) {
      if (!frame || kept.has(frame.id)) continue;
      const waiting = function* (items: readonly MenuItem[]): Generator<Id> {
        for (const one of items)
          if (kept.has(one.id)) yield one.id;
          else yield* waiting(one.items);
      };
      for (const id of waiting(frame.items))
        this.move(id, { slot: { in: this.before.menu.id, list: 'items' }, at: this.now.menu.items.length });
      this.remove(frame.id);
    }
  }

  private isThere(id: Id): boolean {
    return placeOf(this.now, id) !== undefined;
  }

  private heldIn({ in: holder, list }: Slot): readonly ElementNode[] {
    const found =
      holder === null
        ? this.now
        : holder === this.now.menu.id
          ? this.now.menu
          : placeOf(this.now, holder)?.node;
    return (found && heldIn(found as unknown as Keys, list)) ?? [];
  }

  /** What was there before is not in it: it is moved in afterwards. */
  private add({ node, slot, at }: Placed, kept: ReadonlySet<Id>): void {
    const fresh = withoutKept(node, kept);
    const ids = [...idsIn(fresh)];
    const gates = within(this.after.gates, ids);
    const closed = within(this.after.closed, ids);
    this.make({ do: 'addElement', into: slot, at, node: fresh, gates, closed });
  }

  private move(id: Id, { slot, at }: Pick<Placed, 'slot' | 'at'>): void {
    const place = placeOf(this.now, id);
    if (!place) return;
    const from = { ...place.slot, at: place.at };
    this.make({ do: 'moveElement', id, from, to: { ...slot, at } });
  }

  private remove(id: Id): void {
    const place = placeOf(this.now, id);
    if (!place) return;
    const { node, slot, at } = place;
    const ids = [...idsIn(node)];
    const gates = within(this.now.gates, ids);
    const closed = within(this.now.closed, ids);
    this.make({ do: 'removeElement', into: slot, at, node, gates, closed });
  }

  /** As few moves as bring a list into the wanted order. */
  private inOrder(
    held: () => readonly { readonly id: Id }[],
    wanted: readonly { readonly id: Id }[],
    move: (id: Id, from: number, to: number) => void,
  ): void {
    const moved = movedAmong(held(), wanted);
    wanted.forEach(({ id }, to) => {
      if (!moved.has(id)) return;
      const from = held().findIndex((one) => one.id === id);
      // It comes behind the one that it is to follow; that one has its place already.
      const before = wanted[to - 1]?.id;
      const behind = held().findIndex((one) => one.id === before) + 1;
      const at = from < behind ? behind - 1 : behind;
      if (at !== from) move(id, from, at);
    });
  }

  /** The gates of what was there before, and what is shown of it when closed. */
  gates(): void {
    if (this.now.gates !== this.after.gates)
      for (const id of new Set([...Object.keys(this.now.gates), ...Object.keys(this.after.gates)])) {
        const [was, is] = [own(this.now.gates, id), own(this.after.gates, id)];
        if (was === is) continue;
        const edit = gateEdit(id, was, is);
        if (edit) this.make(edit);
      }
    for (const id of new Set([...Object.keys(this.now.closed), ...Object.keys(this.after.closed)])) {
      const [from, to] = [own(this.now.closed, id), own(this.after.closed, id)];
      if (!sameJson(from, to))
        this.make({ do: 'changeClosed', element: id, ...(from && { from }), ...(to && { to }) });
    }
  }
}

function own<T>(all: Readonly<Record<Id, T>>, id: Id): T | undefined {
  return Object.hasOwn(all, id) ? all[id] : undefined;
}

function gateEdit(gate: Id, was: Gate | undefined, is: Gate | undefined): Edit | undefined {
  if (!is) return was && { do: 'follow', gate, lines: was.lines };
  const edit = editLines(gate, was?.lines, is.lines);
  return edit.do === 'together' && edit.edits.length === 0 ? undefined : edit;
}

/** The keys in which two things differ, with what each has there: null where it lacks one. */
function changedKeys(
  before: Keys,
  after: Keys,
  among: readonly string[] = [...new Set([...Object.keys(before), ...Object.keys(after)])],
): { readonly from: Record<string, never>; readonly to: Record<string, never> } | undefined {
  const changed = among.filter((key) => !sameJson(before[key], after[key]));
  if (changed.length === 0) return undefined;
  const of = (side: Keys) => Object.fromEntries(changed.map((key) => [key, (side[key] ?? null) as never]));
  return { from: of(before), to: of(after) };
}

const sameSlot = (a: Slot, b: Slot): boolean => a.in === b.in && a.list === b.list;

/** The element without those in it that were there before. */
function withoutKept(node: ElementNode, kept: ReadonlySet<Id>): ElementNode {
  const left = (list: Slot['list']) =>
    (heldIn(node, list) ?? []).filter(({ id }) => !kept.has(id)).map((one) => withoutKept(one, kept));
  const lists = SLOTS.filter((list) => list in node && list !== 'frame');
  const { frame: _, ...rest } = node;
  const [frame] = left('frame');
  return {
    ...rest,
    ...(frame && { frame }),
    ...Object.fromEntries(lists.map((list) => [list, left(list)])),
  };
}

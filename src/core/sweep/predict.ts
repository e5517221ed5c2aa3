import type { Access } from '../access/deciding/access';
import { EDIT, NONE } from '../access/deciding/level';
import {
  addressOf,
  bulkChanges,
  type KnownRecord,
  labelOf,
  resolve,
  resolveRow,
  shownClosed,
  showField,
} from '../access/sent/resolve';
import { readAddress } from '../access/sent/address';
import { frameAround } from '../access/sent/frame';
import { landingOf, screenShowing, sentTo } from '../access/sent/landing';
import { listed } from '../access/sent/listed';
import { tester } from '../condition/formula';
import type { Chart, Entity, List } from '../model/definition';
import type { Id } from '../model/id';
import type { AppElement } from '../model/tree';
import { type Mark, type MarkFinder, recordMark } from './marks';

/** What one answer should be. */
export interface Predicted {
  readonly is: 'open' | 'sent' | 'refused' | 'not-there' | 'sign-in';
  /** Where it sends to. */
  readonly to?: string;
  /** The marks that have to be in it, by their keys. */
  readonly marks: ReadonlyMap<string, Mark>;
  /** How many records its lists say that there are. */
  readonly totals: readonly number[];
  /** Its charts. */
  readonly charts: readonly ChartSum[];
}

interface ChartSum {
  readonly chart: Id;
  /** The field of which it shows sums or averages: a point may come to what one record holds. */
  readonly of?: Id | undefined;
  /** What its points come to together; undefined where that says nothing, as of averages. */
  readonly sum: number | undefined;
}

/** What a viewer's answers are worked out from. */
interface Known {
  readonly access: Access;
  readonly records: readonly KnownRecord[];
  readonly finder: MarkFinder;
  readonly signedOut: boolean;
  /** The people whose names they may be told, by their places in the copy. */
  readonly people: ReadonlySet<number>;
  /** Do they stand in for others? */
  readonly standsIn: boolean;
}

/**
 * What one viewer should be sent, worked out by the core alone from the records of the sweep: the other side of what the
 * server answers.
 */
export class Predictor {
  private readonly access: Access;
  private readonly records: readonly KnownRecord[];
  private readonly byId: ReadonlyMap<Id, KnownRecord>;
  private readonly finder: MarkFinder;
  private readonly signedOut: boolean;

  constructor(private readonly known: Known) {
    this.byId = new Map(known.records.map((one) => [one.id, one]));
    ({ access: this.access, records: this.records, finder: this.finder, signedOut: this.signedOut } = known);
  }

  get standsIn(): boolean {
    return this.known.standsIn;
  }

  /** What the same viewer is sent once these records have become others, or are gone. */
  after(become: ReadonlyMap<Id, KnownRecord | undefined>): Predictor {
    const now = (one: KnownRecord): KnownRecord | undefined =>
      become.has(one.id) ? become.get(one.id) : one;
    // What points to them finds them as they are now.
    const lookUp = (entity: Id, id: Id) => {
      const record = become.has(id) ? become.get(id) : this.byId.get(id);
      return record?.entity.id === entity ? record.values : undefined;
    };
    const records = this.records.flatMap((one) => {
      const record = now(one);
      return record ? [{ ...record, lookUp }] : [];
    });
    return new Predictor({ ...this.known, records });
  }

  /** What the same viewer is sent with another access, and once they are told the names of these too. */
  with(access: Access, ...people: readonly number[]): Predictor {
    return new Predictor({ ...this.known, access, people: new Set([...this.known.people, ...people]) });
  }

  /** The application's own address: where the viewer lands. */
  first(): Predicted {
    const screen = landingOf(this.access);
    if (screen) return { ...this.bare('sent'), to: addressOf(screen) };
    return this.bare(this.signedOut ? 'sign-in' : 'open');
  }

  page(address: string, face?: Id): Predicted {
    const { access } = this;
    const { tree } = access.compiled;
    const destination = readAddress(tree, address);
    const not = this.closedAs('not-there');
    if (!destination) return not;
    const { screen } = destination;
    if (access.level(access.element(screen.id), undefined) === NONE) {
      if (access.compiled.closed(screen.id)?.show === 'secret') return not;
      const elsewhere = sentTo(access, screen);
      if (elsewhere && !this.signedOut) return { ...this.bare('sent'), to: addressOf(elsewhere) };
      return this.closedAs('refused');
    }
    const record = destination.record === undefined ? undefined : this.open(destination.record);
    if (destination.record !== undefined && (!record || record.entity.id !== screen.binds?.entity))
      return not;
    const shown = resolve(access, screen, record, face);
    if (!shown) return not;
    const parts = shown.sections.flatMap((section) => section.parts);
    const lists = parts
      .filter((part) => part.kind === 'list')
      .map(({ id }) => this.rows(tree.need(id, 'list').node, record));
    const text = JSON.stringify([shown, lists, frameAround(access, screen), access.compiled.definition.name]);
    return {
      is: 'open',
      marks: this.finder.find(text),
      totals: lists.map((rows) => rows.length),
      charts: parts
        .filter(({ kind }) => kind === 'chart')
        .map(({ id }) => this.summed(tree.need(id, 'chart').node, record)),
    };
  }

  /** All records of a kind, as the API lists them; undefined where it answers as if there were no such kind. */
  all(entity: Entity, only: (record: KnownRecord) => boolean = () => true): Predicted {
    if (this.access.level(this.access.element(entity.id), undefined) === NONE) return this.bare('not-there');
    const found = this.visible(entity.id).filter(only);
    return {
      is: 'open',
      marks: this.finder.find(JSON.stringify(found.map((record) => this.sent(record)))),
      totals: [found.length],
      charts: [],
    };
  }

  one({ id }: KnownRecord): Predicted {
    // As it is known here: it may point to itself.
    const record = this.open(id);
    if (!record) return this.bare('not-there');
    return { ...this.bare('open'), marks: this.finder.find(JSON.stringify(this.sent(record))) };
  }

  /** A list as a file; `not-there` where it may not be taken out. */
  export(list: List, on: KnownRecord | undefined): Predicted {
    const carried = this.carried(list, 'export', on);
    if (!carried) return this.bare('not-there');
    const cells = carried.map((one) => Object.values(resolveRow(this.access, list, one).cells));
    return { ...this.bare('open'), marks: this.finder.find(JSON.stringify(cells)) };
  }

  /** What can be chosen of a list for changing many at once; `not-there` where that may not be done. */
  choices(list: List, on: KnownRecord | undefined): Predicted {
    const carried = this.carried(list, 'bulk', on);
    if (!carried) return this.bare('not-there');
    const { access } = this;
    const fields = access.compiled.tree.need(list.entity, 'rows').node.fields.map(({ id }) => id);
    const rows = carried.map((one) => [one.id, bulkChanges(access, list, one, fields)]);
    return { ...this.bare('open'), marks: this.finder.find(JSON.stringify(rows)) };
  }

  /** The records of a list that an action on the whole of it is about; undefined where the viewer has no such list or action. */
  carried(list: List, kind: 'export' | 'bulk', on: KnownRecord | undefined): KnownRecord[] | undefined {
    const { access } = this;
    const { tree } = access.compiled;
    const action = tree.optionalAction(tree.need(list.entity, 'rows').node, kind);
    const { screen } = access.element(list.id);
    const record = on && this.open(on.id);
    const faces = [undefined, ...(screen?.faces ?? []).map(({ id }) => id)];
    const shown = faces
      .flatMap((face) => (screen && resolve(access, screen, record, face)?.sections) ?? [])
      .some(({ parts }) => parts.some(({ id }) => id === list.id));
    if (!shown || !action || access.level(access.element(action.id), undefined) === NONE) return undefined;
    return this.listed(list, record).filter((one) => access.level(access.element(action.id), one) === EDIT);
  }

  /** The people who are looked after, as the API lists them. */
  people(there: readonly number[]): Predicted {
    return { ...this.bare('open'), totals: [there.length] };
  }

  /** May this mark be anywhere in an answer to this viewer? Asked of the doors alone, apart from what a page shows. */
  mayKnow(mark: Mark, fieldAt: (number: number) => Id | undefined): boolean {
    const { access } = this;
    const { tree } = access.compiled;
    if (mark.of === 'element') {
      const element = tree.elements[mark.number];
      if (!element) return false;
      return [element, ...tellingOf(access, element)].some(
        (one) => access.answer(one).most > NONE || shownClosed(access, one) !== undefined,
      );
    }
    if (mark.of === 'person') return this.known.people.has(mark.person);
    const record = this.open(recordMark(mark.record));
    if (!record) return false;
    if (mark.of === 'record') return true;
    const field = fieldAt(mark.field);
    return field !== undefined && access.level(access.element(field), record) > NONE;
  }

  private visible(entity: Id): KnownRecord[] {
    return this.records.filter((one) => one.entity.id === entity && this.open(one.id));
  }

  private open(id: Id): KnownRecord | undefined {
    const record = this.byId.get(id);
    return record && this.access.level(this.access.element(record.entity.id), record) > NONE
      ? record
      : undefined;
  }

  private listed(list: List, on: KnownRecord | undefined): KnownRecord[] {
    return this.visible(list.entity).filter(tester(listed(this.access, list, on?.id)));
  }

  private rows(list: List, on: KnownRecord | undefined) {
    return this.listed(list, on).map((one) => resolveRow(this.access, list, one, on));
  }

  private summed({ id: chart, list, by, of, shows }: Chart, on: KnownRecord | undefined): ChartSum {
    const { access } = this;
    const asked = [by, ...(of === undefined ? [] : [of])].map((id) => access.element(id));
    const counted = this.listed(access.compiled.tree.need(list, 'list').node, on).filter((record) =>
      asked.every((field) => access.level(field, record) > NONE),
    );
    const added = counted.reduce((sum, { values }) => sum + Number(values[of ?? ''] ?? 0), 0);
    return { chart, of, sum: { count: counted.length, sum: added, average: undefined }[shows] };
  }

  /** A record as the API sends it. */
  private sent(record: KnownRecord): unknown {
    const { access } = this;
    const values = record.entity.fields
      .filter((field) => access.level(access.element(field.id), record) > NONE)
      .map((field) => showField(access, field, record.values[field.id] ?? null, record.lookUp));
    const screen = screenShowing(access, record);
    return [record.id, values, labelOf(access, record), screen && addressOf(screen, record.id)];
  }

  private closedAs(is: Predicted['is']): Predicted {
    return this.bare(this.signedOut ? 'sign-in' : is);
  }

  private bare(is: Predicted['is']): Predicted {
    return { ...NOT_THERE, is };
  }
}

/**
 * What else tells of an element: of a field's name the fields and columns that show it; of which kind of data it is each
 * screen and list about it; and of a list's id the buttons for the whole of it.
 */
function tellingOf({ compiled }: Access, element: AppElement): readonly AppElement[] {
  if (element.kind === 'data-field')
    return compiled.handles.handlesOf(element).map((id) => compiled.tree.get(id) ?? element);
  if (element.kind !== 'rows' && element.kind !== 'list') return [];
  const found = about.get(element) ?? compiled.tree.elements.filter((one) => isAbout(one, element.id));
  about.set(element, found);
  return found;
}

const about = new WeakMap<AppElement, readonly AppElement[]>();

function isAbout({ kind, node }: AppElement, id: Id): boolean {
  if (kind === 'screen') return node.binds?.entity === id;
  if (kind === 'list') return node.entity === id;
  return kind === 'button' && 'list' in node.effect && node.effect.list === id;
}

/** What comes of an address at which there is nothing. */
export const NOT_THERE: Predicted = { is: 'not-there', marks: new Map(), totals: [], charts: [] };

/** The marks that one has and the other has not. */
export const lacking = (has: ReadonlyMap<string, Mark>, other: ReadonlyMap<string, Mark>): Mark[] =>
  [...has].filter(([key]) => !other.has(key)).map(([, mark]) => mark);

import type { Access } from '../access/deciding/access';
import { EDIT, NONE } from '../access/deciding/level';
import {
  addressOf,
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
import type { Action, Entity, List } from '../model/definition';
import type { Id } from '../model/id';
import type { Mark, MarkFinder } from './marks';

/** What one answer should be. */
export interface Predicted {
  readonly is: 'open' | 'sent' | 'refused' | 'not-there' | 'sign-in';
  /** Where it sends to. */
  readonly to?: string;
  /** The marks that have to be in it, by their keys. */
  readonly marks: ReadonlyMap<string, Mark>;
  /** How many records its lists say that there are. */
  readonly totals: readonly number[];
}

/**
 * What one viewer should be sent, worked out by the core alone from the records of the sweep: the other side of what the
 * server answers.
 */
export class Predictor {
  constructor(
    private readonly access: Access,
    private readonly records: readonly KnownRecord[],
    private readonly finder: MarkFinder,
    private readonly signedOut: boolean,
  ) {}

  /** Where the viewer lands. */
  landing(): string | undefined {
    const screen = landingOf(this.access);
    return screen && addressOf(screen);
  }

  page(address: string): Predicted {
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
    const shown = resolve(access, screen, record);
    if (!shown) return not;
    const lists = shown.sections
      .flatMap(({ parts }) => parts)
      .filter((part) => part.kind === 'list')
      .map(({ id }) => this.rows(tree.need(id, 'list').node, record));
    const text = JSON.stringify([
      shown,
      lists.map(({ rows }) => rows),
      frameAround(access, screen),
      access.compiled.definition.name,
    ]);
    return {
      is: 'open',
      marks: this.finder.find(text),
      totals: lists.map(({ rows }) => rows.length),
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
    };
  }

  one(record: KnownRecord): Predicted {
    if (!this.open(record.id)) return this.bare('not-there');
    return { is: 'open', marks: this.finder.find(JSON.stringify(this.sent(record))), totals: [] };
  }

  /** A list as a file; `not-there` where it may not be taken out. */
  export(list: List, record: KnownRecord | undefined): Predicted {
    const { access } = this;
    const { tree } = access.compiled;
    const action = tree.optionalAction(tree.need(list.entity, 'rows').node, 'export');
    const { screen } = access.element(list.id);
    const on = record && this.open(record.id);
    const faces = [undefined, ...(screen?.faces ?? []).map(({ id }) => id)];
    const shown = faces
      .flatMap((face) => (screen && resolve(access, screen, on, face)?.sections) ?? [])
      .some(({ parts }) => parts.some(({ id }) => id === list.id));
    const may = action && access.level(access.element(action.id), undefined) > NONE;
    if (!may || !shown) return this.bare('not-there');
    const { rows } = this.rows(list, on, action);
    return {
      is: 'open',
      marks: this.finder.find(JSON.stringify(rows.map(({ cells }) => cells))),
      totals: [],
    };
  }

  /** May this mark be anywhere in an answer to this viewer? Asked of the doors alone, apart from what a page shows. */
  mayKnow(mark: Mark, fieldAt: (number: number) => Id | undefined): boolean {
    const { access } = this;
    const { tree } = access.compiled;
    if (mark.of === 'element') {
      const element = tree.elements[mark.number];
      if (!element) return false;
      // A field's name is also that of the fields and columns that show it, which may be shown closed.
      const handles = element.kind === 'data-field' ? access.compiled.handles.handlesOf(element) : [];
      return [element, ...handles.map((id) => access.element(id))].some(
        (one) => access.answer(one).most > NONE || shownClosed(access, one) !== undefined,
      );
    }
    const record = this.records[mark.record];
    if (!record || !this.open(record.id)) return false;
    if (mark.of === 'record') return true;
    const field = fieldAt(mark.field);
    return field !== undefined && access.level(access.element(field), record) > NONE;
  }

  private visible(entity: Id): KnownRecord[] {
    return this.records.filter((one) => one.entity.id === entity && this.open(one.id));
  }

  private open(id: Id): KnownRecord | undefined {
    const record = this.records.find((one) => one.id === id);
    return record && this.access.level(this.access.element(record.entity.id), record) > NONE
      ? record
      : undefined;
  }

  private rows(list: List, screenRecord: KnownRecord | undefined, action?: Action) {
    const { access } = this;
    const passes = tester(listed(access, list, screenRecord?.id));
    const rows = this.visible(list.entity)
      .filter(passes)
      .filter((one) => !action || access.level(access.element(action.id), one) === EDIT)
      .map((one) => resolveRow(access, list, one, screenRecord));
    return { rows };
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
    return { is, marks: new Map(), totals: [] };
  }
}

/** The marks that one has and the other has not. */
export const lacking = (has: ReadonlyMap<string, Mark>, other: ReadonlyMap<string, Mark>): Mark[] =>
  [...has].filter(([key]) => !other.has(key)).map(([, mark]) => mark);

'use client';

import {
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type MouseEvent,
} from 'react';
import type { Level } from '@/core/access';
import type { AppElement } from '@/core/model';
import { plural } from '@/core/edit';
import { useTell } from '../../parts/toasts';
import { useBench, type RailViewer } from '../frame/bench';
import { CopyWindow, type CopyFrom } from './copy-window';
import type { Range } from './grid-block';
import { GridBody } from './grid-body';
import { FOCUSED } from './grid-row';
import { EVERYTHING, gridRows, type GridFilter } from './grid-rows';
import { GridTools } from './grid-tools';
import { ExpectWindow, type ToExpect } from '../shared/expect-window';
import { workOf } from './keys';
import { ROW } from './mark-sheet';
import { cellAt, placeOf } from './places';
import { useAnswers } from './use-answers';
import { useBulk } from './use-bulk';
import { WhyCard, type Place } from './why-card';

interface Props {
  /** The columns: login states, roles, groups and pinned people. */
  readonly columns: readonly RailViewer[];
  /** Chooses another form of the bench. */
  readonly forms: React.ReactNode;
  /** Sets the level of one cell, with the fewest lines; asks first where others would change too. */
  readonly onSet: (level: Level) => void;
}

/**
 * The whole access of the application as a grid: elements down, viewers across. Of a large application it is worked out
 * in a second or more: first it is told that it is.
 */
export function Grid(props: Props) {
  const [told, setTold] = useState(false);
  useEffect(() => {
    // After the next frame the words are there.
    const frame = requestAnimationFrame(() => setTimeout(() => setTold(true)));
    return () => cancelAnimationFrame(frame);
  }, []);
  if (told) return <WholeGrid {...props} />;
  return (
    <p role="status" className="p-6 text-quiet">
      Working out who can see and edit what…
    </p>
  );
}

function WholeGrid({ columns, forms, onSet }: Props) {
  const { compiled, definition, selected, select, viewer, look, accessFor, mayChange } = useBench();
  const tell = useTell();
  const [filter, setFilter] = useState<GridFilter>(EVERYTHING);
  const [unfolded, setUnfolded] = useState<ReadonlySet<string>>(() => firstUnfolded(definition.areas));
  const [anchor, setAnchor] = useState<Place>();
  const [copying, setCopying] = useState<CopyFrom>();
  const [source, setSource] = useState<Place>();
  const [card, setCard] = useState<Place>();
  const scroller = useRef<HTMLDivElement>(null);
  const hover = useRef<ReturnType<typeof setTimeout>>(undefined);

  const { answer, cell, among } = useAnswers(columns);
  const { rows, hits, of } = useMemo(
    () => gridRows(compiled, filter, unfolded, columns.length, answer),
    [compiled, filter, unfolded, columns.length, answer],
  );
  const at: Place = {
    row: Math.max(
      0,
      rows.findIndex(({ element }) => element.id === selected.id),
    ),
    column: columns.findIndex((one) => one.key === viewer.key),
  };
  const from = anchor ?? at;
  const range: Range = {
    top: Math.min(from.row, at.row),
    bottom: Math.max(from.row, at.row),
    left: Math.max(0, Math.min(from.column, at.column)),
    right: Math.max(from.column, at.column),
  };
  const many = range.top !== range.bottom || range.left !== range.right;
  const shown = useSame(many ? range : undefined);
  const bulk = useBulk(
    rows.slice(range.top, range.bottom + 1).map(({ element }) => element),
    columns.slice(range.left, range.right + 1),
    columns,
  );

  const fold = useCallback(
    (id: string, folded: boolean): void =>
      setUnfolded((now) => new Set(folded ? [...now].filter((one) => one !== id) : [...now, id])),
    [],
  );
  const [expecting, setExpecting] = useState<{ readonly name: string; readonly of: readonly ToExpect[] }>();
  const goTo = (place: Place, extend: boolean): void => {
    const row = Math.max(0, Math.min(rows.length - 1, place.row));
    const column = Math.max(-1, Math.min(columns.length - 1, place.column));
    setAnchor(extend ? (anchor ?? at) : undefined);
    setCard(undefined);
    const element = rows[row]?.element;
    if (element && element.id !== selected.id) select(element.id);
    const next = columns[column];
    if (next && next.key !== viewer.key) look(next.key);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const work = workOf(event, {
      row: rows[at.row],
      atHead: at.column < 0,
      atFirst: at.column <= 0,
      page: Math.max(1, Math.floor((scroller.current?.clientHeight ?? 600) / ROW) - 6),
      columns: columns.length,
    });
    if (!work) return;
    if ('changes' in work && !mayChange) return;
    event.preventDefault();
    event.stopPropagation();
    switch (work.do) {
      case 'go':
        return goTo({ row: at.row + work.rows, column: at.column + work.columns }, event.shiftKey);
      case 'fold':
        return fold(work.element, work.folded);
      case 'why':
        return setCard(card ? undefined : at);
      case 'leave':
        setCard(undefined);
        return setAnchor(undefined);
      case 'copy':
        setSource(at);
        return tell('Copied. Go to another row or column and press Ctrl+V.');
      case 'paste':
        return source && setCopying(copyFrom(source, at));
      case 'expect':
        return expect();
      case 'follow':
        return bulk.follow();
      case 'set':
        return many ? bulk.set(work.level) : onSet(work.level);
      case 'nothing':
        break;
    }
  };
  /** All cells of the range, and of one that is on a row's name the whole row. */
  const expect = (): void => {
    const those = columns.slice(Math.max(0, range.left), range.right < 0 ? undefined : range.right + 1);
    const elements = rows.slice(range.top, range.bottom + 1).map(({ element }) => element);
    const who = plural(those.length, those[0]?.name ?? '', `${those.length} viewers`);
    const what = plural(elements.length, elements[0]?.name ?? '', `${elements.length} elements`);
    setExpecting({
      name: `${what} for ${who}`,
      of: elements.flatMap(({ id }) => those.map(({ key }) => ({ viewer: key, element: id }))),
    });
  };
  const copyFrom = (one: Place, other: Place): CopyFrom => ({
    elements: [rows[one.row]?.element, rows[other.row]?.element],
    viewers: [columns[one.column], columns[other.column]],
    rows: rows.filter(({ hit }) => hit).map(({ element }) => element.id),
  });
  const onMouseDown = (event: MouseEvent): void => {
    const place = placeOf(event.target);
    if (!place || event.button !== 0) return;
    goTo(place, event.shiftKey);
  };
  const onMouseOver = (event: MouseEvent): void => {
    clearTimeout(hover.current);
    const place = placeOf(event.target);
    if (place && event.buttons === 1 && (place.row !== at.row || place.column !== at.column))
      return goTo(place, true);
    if (place && place.column >= 0) hover.current = setTimeout(() => setCard(place), 600);
  };
  // The selected row may be folded away: then it is unfolded.
  const [shownFor, setShownFor] = useState<AppElement>();
  if (shownFor !== selected) {
    setShownFor(selected);
    const above: string[] = [];
    for (let one = selected.container; one; one = one.container) above.push(one.id);
    if (!above.every((id) => unfolded.has(id))) setUnfolded(new Set([...unfolded, ...above]));
  }

  const anchorOf = useCallback((place: Place) => cellAt(scroller.current, place), []);
  const cardRow = card && rows[card.row];
  const cardViewer = card && columns[card.column];
  return (
    <section aria-label="Grid" className="col-span-2 flex min-h-0 min-w-0 flex-col bg-paper">
      <GridTools
        forms={forms}
        filter={filter}
        onFilter={setFilter}
        columns={columns}
        hits={hits}
        of={of}
        onFoldAll={(folded) =>
          setUnfolded(folded ? new Set() : new Set(compiled.tree.elements.map(({ id }) => id)))
        }
        onCopy={() => setCopying(copyFrom(at, at))}
        onExpect={expect}
      />
      <div
        ref={scroller}
        role="treegrid"
        aria-label="Access overview"
        aria-rowcount={rows.length + 1}
        aria-colcount={columns.length + 1}
        aria-multiselectable
        aria-activedescendant={FOCUSED}
        tabIndex={0}
        onKeyDown={onKeyDown}
        onMouseDown={onMouseDown}
        onMouseOver={onMouseOver}
        onMouseLeave={() => {
          clearTimeout(hover.current);
          setCard(undefined);
        }}
        className="grid-scroller"
      >
        <GridBody
          scroller={scroller}
          rows={rows}
          columns={columns}
          cell={cell}
          among={among}
          row={at.row}
          column={at.column}
          range={shown}
          onFold={fold}
        />
      </div>
      {card && cardRow && cardViewer && (
        <WhyCard
          element={cardRow.element}
          viewer={cardViewer}
          access={accessFor(cardViewer)}
          among={among(card.column, cardRow.element)}
          place={card}
          anchor={anchorOf}
        />
      )}
      {copying && <CopyWindow from={copying} columns={columns} onClose={() => setCopying(undefined)} />}
      {expecting && <ExpectWindow {...expecting} onClose={() => setExpecting(undefined)} />}
      {bulk.dialog}
    </section>
  );
}

/** The same object for as long as the range is the same. */
function useSame(range: Range | undefined): Range | undefined {
  const { top = 0, bottom = 0, left = 0, right = 0 } = range ?? {};
  const none = range === undefined;
  return useMemo(() => (none ? undefined : { top, bottom, left, right }), [none, top, bottom, left, right]);
}

/** At first the areas are open, down to their screens. */
const firstUnfolded = (areas: readonly { readonly id: string }[]): ReadonlySet<string> =>
  new Set(areas.length > 40 ? [] : areas.map(({ id }) => id));

'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import {
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type MouseEvent,
} from 'react';
import { cellOf, type Cell } from '@/core/access/cells';
import type { Level } from '@/core/access/level';
import type { Element } from '@/core/model/tree';
import { useTell } from '../../parts/toasts';
import { useBench, type RailViewer } from '../bench';
import { isTyping } from '../draft-tools';
import { CopyWindow, type CopyFrom } from './copy-window';
import { COLUMN, GridRowView, HEAD, ROW, type DrawnColumn } from './grid-row';
import { EVERYTHING, gridRows, type GridFilter } from './grid-rows';
import { GridTools } from './grid-tools';
import { useBulk } from './use-bulk';
import { WhyCard } from './why-card';

const HEADING = 104;

interface Place {
  readonly row: number;
  readonly column: number;
}

interface Props {
  /** The columns: login states, roles, groups and pinned people. */
  readonly columns: readonly RailViewer[];
  /** Chooses another form of the bench. */
  readonly forms: React.ReactNode;
  /** Sets the level of one cell, with the fewest lines; asks first where others would change too. */
  readonly onSet: (level: Level) => void;
}

/** The whole access of the application as a grid: elements down, viewers across. */
export function Grid({ columns, forms, onSet }: Props) {
  const { compiled, definition, selected, select, viewer, look, accessOf, circumstances, mayChange } =
    useBench();
  const tell = useTell();
  const [filter, setFilter] = useState<GridFilter>(EVERYTHING);
  const [unfolded, setUnfolded] = useState<ReadonlySet<string>>(() => firstUnfolded(definition.areas));
  const [anchor, setAnchor] = useState<Place>();
  const [copying, setCopying] = useState<CopyFrom>();
  const [source, setSource] = useState<Place>();
  const [card, setCard] = useState<Place>();
  const scroller = useRef<HTMLDivElement>(null);
  const hover = useRef<ReturnType<typeof setTimeout>>(undefined);

  const accesses = useMemo(
    () => columns.map((one) => compiled.access(one.viewer, circumstances)),
    [columns, compiled, circumstances],
  );
  const cell = useMemo(() => {
    const known = accesses.map((): (Cell | undefined)[] => []);
    return (column: number, element: Element): Cell => {
      const mine = known[column] as (Cell | undefined)[];
      return (mine[element.number] ??= cellOf(accesses[column] as (typeof accesses)[number], element));
    };
  }, [accesses]);
  const { rows, hits, of } = useMemo(
    () =>
      gridRows(compiled, filter, unfolded, columns.length, (column, element) => cell(column, element).answer),
    [compiled, filter, unfolded, columns.length, cell],
  );
  const at: Place = {
    row: Math.max(
      0,
      rows.findIndex(({ element }) => element.id === selected.id),
    ),
    column: columns.findIndex((one) => one.key === viewer.key),
  };
  const from = anchor ?? at;
  const range = {
    top: Math.min(from.row, at.row),
    bottom: Math.max(from.row, at.row),
    left: Math.max(0, Math.min(from.column, at.column)),
    right: Math.max(from.column, at.column),
  };
  const many = range.top !== range.bottom || range.left !== range.right;
  const bulk = useBulk(
    rows.slice(range.top, range.bottom + 1).map(({ element }) => element),
    columns.slice(range.left, range.right + 1),
  );

  const down = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 12,
    scrollMargin: 0,
    paddingStart: HEADING,
    scrollPaddingStart: HEADING,
  });
  const across = useVirtualizer({
    horizontal: true,
    count: columns.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => COLUMN,
    // Wide: columns that come into view would draw every row anew.
    overscan: 16,
    paddingStart: HEAD,
    scrollPaddingStart: HEAD,
  });
  const inView = across.getVirtualItems();
  const [firstInView, lastInView] = [inView[0]?.index ?? 0, inView.at(-1)?.index ?? -1];
  const drawn = useMemo(
    () =>
      columns
        .slice(firstInView, lastInView + 1)
        .map(({ name }, n): DrawnColumn => ({ index: firstInView + n, name })),
    [columns, firstInView, lastInView],
  );

  const fold = useCallback(
    (id: string, folded: boolean): void =>
      setUnfolded((now) => new Set(folded ? [...now].filter((one) => one !== id) : [...now, id])),
    [],
  );
  const goTo = (place: Place, extend: boolean): void => {
    const row = Math.max(0, Math.min(rows.length - 1, place.row));
    const column = Math.max(-1, Math.min(columns.length - 1, place.column));
    setAnchor(extend ? (anchor ?? at) : undefined);
    setCard(undefined);
    const element = rows[row]?.element;
    if (element && element.id !== selected.id) select(element.id);
    const next = columns[column];
    if (next && next.key !== viewer.key) look(next.key);
    down.scrollToIndex(row);
    if (column >= 0) across.scrollToIndex(column);
  };
  const placeOf = (target: EventTarget): Place | undefined => {
    const found = target instanceof HTMLElement ? target.closest<HTMLElement>('[data-row]') : null;
    if (!found) return undefined;
    return { row: Number(found.dataset['row']), column: Number(found.dataset['column']) };
  };

  const onKeyDown = (event: KeyboardEvent): void => {
    if (isTyping(event.target as HTMLElement)) return;
    const row = rows[at.row];
    const page = Math.max(1, Math.floor((scroller.current?.clientHeight ?? 600) / ROW) - 6);
    const done = (): void => {
      event.preventDefault();
      event.stopPropagation();
    };
    const by = (rowsDown: number, columnsOn: number): void => {
      done();
      goTo({ row: at.row + rowsDown, column: at.column + columnsOn }, event.shiftKey);
    };
    const control = event.ctrlKey || event.metaKey;
    if (control && event.key.toLowerCase() === 'c') {
      done();
      setSource(at);
      return tell('Copied. Go to another row or column and press Ctrl V.');
    }
    if (control && event.key.toLowerCase() === 'v' && source && mayChange) {
      done();
      return setCopying(copyFrom(source, at));
    }
    if (control || event.altKey) return;
    switch (event.key) {
      case 'ArrowDown':
        return by(1, 0);
      case 'ArrowUp':
        return by(-1, 0);
      case 'PageDown':
        return by(page, 0);
      case 'PageUp':
        return by(-page, 0);
      case 'Home':
        return by(0, -columns.length);
      case 'End':
        return by(0, columns.length);
      case 'ArrowRight':
        if (at.column < 0 && row?.hasContents && row.folded) {
          done();
          return fold(row.element.id, false);
        }
        return by(0, 1);
      case 'ArrowLeft':
        if (at.column <= 0 && row?.hasContents && !row.folded && !event.shiftKey) {
          done();
          return fold(row.element.id, true);
        }
        return by(0, at.column <= 0 ? 0 : -1);
      case ' ':
        done();
        if (row?.hasContents) fold(row.element.id, !row.folded);
        return;
      case 'Enter':
        done();
        return setCard(card ? undefined : at);
      case 'Escape':
        setCard(undefined);
        return setAnchor(undefined);
      case 'Delete':
      case 'Backspace':
        if (!mayChange) return;
        done();
        return bulk.follow();
      case '0':
      case '1':
      case '2': {
        if (!mayChange) return;
        done();
        const level = Number(event.key) as Level;
        return many ? bulk.set(level) : onSet(level);
      }
    }
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
  useEffect(() => {
    const above: string[] = [];
    for (let one = selected.container; one; one = one.container) above.push(one.id);
    setUnfolded((now) => (above.every((id) => now.has(id)) ? now : new Set([...now, ...above])));
  }, [selected]);

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
      />
      <div
        ref={scroller}
        role="treegrid"
        aria-label="Who gets what"
        aria-rowcount={rows.length + 1}
        aria-colcount={columns.length + 1}
        aria-multiselectable
        aria-activedescendant={`cell-${at.row}-${at.column}`}
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
        <div
          className="relative"
          style={{ height: HEADING + rows.length * ROW, width: HEAD + columns.length * COLUMN + 8 }}
        >
          <div role="row" aria-rowindex={1} className="grid-heading" style={{ height: HEADING }}>
            <div role="columnheader" aria-colindex={1} className="grid-corner" style={{ width: HEAD }}>
              <Legend />
            </div>
            {drawn.map(({ index, name }) => (
              <div
                key={index}
                role="columnheader"
                aria-colindex={index + 2}
                className={`grid-column-name ${index === at.column ? 'font-semibold text-ink' : ''} ${columns[index]?.group !== columns[index - 1]?.group ? 'border-l border-edge' : ''}`}
                style={{ left: HEAD + index * COLUMN, width: COLUMN, height: HEADING }}
              >
                <span>{name}</span>
              </div>
            ))}
          </div>
          <div className="absolute left-0" style={{ top: HEADING, width: '100%' }}>
            {down.getVirtualItems().map(({ index }) => {
              const row = rows[index];
              if (!row) return null;
              const inRange = many && index >= range.top && index <= range.bottom;
              return (
                <GridRowView
                  key={row.element.id}
                  row={row}
                  index={index}
                  columns={drawn}
                  cell={cell}
                  focused={index === at.row ? at.column : -2}
                  from={inRange ? range.left : -1}
                  to={inRange ? range.right : -2}
                  onFold={fold}
                />
              );
            })}
          </div>
        </div>
      </div>
      {card && cardRow && cardViewer && (
        <WhyCard
          element={cardRow.element}
          viewer={cardViewer}
          access={accessOf(cardViewer)}
          anchor={`cell-${card.row}-${card.column}`}
        />
      )}
      {copying && <CopyWindow from={copying} columns={columns} onClose={() => setCopying(undefined)} />}
      {bulk.dialog}
    </section>
  );
}

/** At first the areas are open, down to their screens. */
const firstUnfolded = (areas: readonly { readonly id: string }[]): ReadonlySet<string> =>
  new Set(areas.length > 40 ? [] : areas.map(({ id }) => id));

/** What the marks mean. */
function Legend() {
  const marks = [
    ['cell-none', 'none'],
    ['cell-see', 'see'],
    ['cell-edit', 'edit'],
    ['cell-depends', 'depends'],
    ['cell-own', 'own lines'],
    ['cell-container', 'container limits'],
    ['cell-door', 'door limits'],
  ] as const;
  return (
    <ul aria-label="Legend" className="flex flex-wrap content-end gap-x-2 gap-y-0.5 p-1.5 text-[12px]">
      {marks.map(([kind, name]) => (
        <li key={kind} className="flex items-center">
          <span
            aria-hidden
            className={`cell relative! ${kind.startsWith('cell-n') || kind === 'cell-see' || kind === 'cell-edit' || kind === 'cell-depends' ? '' : 'cell-edit '}${kind}`}
          />
          {name}
        </li>
      ))}
    </ul>
  );
}

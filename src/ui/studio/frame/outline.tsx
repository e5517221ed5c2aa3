'use client';

import { useVirtualizer, defaultRangeExtractor } from '@tanstack/react-virtual';
import { useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import type { AppElement } from '@/core/model';
import { useBench } from './bench';
import { enterRegion } from '../shell/regions';
import { outlineRows, type OutlineRow, ROW } from './outline-rows';
import { stripOf, Row } from './outline-row';

const HEADING = 30;

interface Props {
  readonly forms?: ReactNode;
  /** What Enter goes to: the panel at the right, by its name. */
  readonly enters: 'gate' | 'settings';
  /** Of the application and what stands in it, which to show; else all. It stays the same function. */
  readonly only?: (top: AppElement) => boolean;
  /** Draws a row; else as one that only can be chosen. */
  readonly RowView?: typeof Row;
}

/** The application's tree. Every row ends in its reach strip. Only rows in view, and the selected one, are drawn. */
export function Outline({ forms, enters, only, RowView = Row }: Props) {
  const { compiled, selected, select, viewers, viewer } = useBench();
  const [from, until] = stripOf(viewers.length, viewers.indexOf(viewer));
  const [unfolded, setUnfolded] = useState<ReadonlySet<string>>(new Set());
  const [words, setWords] = useState('');
  const search = useRef<HTMLInputElement>(null);
  const tree = useRef<HTMLDivElement>(null);
  const rows = useMemo(() => outlineRows(compiled, unfolded, words, only), [compiled, unfolded, words, only]);

  useEffect(() => {
    const above: string[] = [];
    for (let one = selected.container; one; one = one.container) above.push(one.id);
    setUnfolded((now) => (above.every((id) => now.has(id)) ? now : new Set([...now, ...above])));
  }, [selected]);
  const at = rows.findIndex(({ element }) => element.id === selected.id);
  const view = useVirtualizer({
    count: rows.length,
    getScrollElement: () => tree.current,
    estimateSize: (n) => ROW + (rows[n]?.heading ? HEADING : 0),
    getItemKey: (n) => rows[n]?.element.id ?? n,
    overscan: 8,
    // What the keyboard is on is always there to be named.
    rangeExtractor: useCallback(
      (range: Parameters<typeof defaultRangeExtractor>[0]) => {
        const inView = defaultRangeExtractor(range);
        return at < 0 || inView.includes(at) ? inView : [...inView, at].sort((a, b) => a - b);
      },
      [at],
    ),
  });
  const drawn = view.getVirtualItems();
  useEffect(() => view.measure(), [view, rows]);
  useEffect(() => {
    if (at >= 0) view.scrollToIndex(at);
  }, [view, at]);
  useEffect(() => {
    const onKey = (event: globalThis.KeyboardEvent): void => {
      if (
        event.key !== '/' ||
        event.target instanceof HTMLInputElement ||
        event.target instanceof HTMLTextAreaElement
      )
        return;
      event.preventDefault();
      search.current?.focus();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);

  const fold = (id: string, folded: boolean): void =>
    setUnfolded((now) => new Set(folded ? [...now].filter((one) => one !== id) : [...now, id]));
  const onKeyDown = (event: KeyboardEvent): void => {
    const row = rows[at];
    const goTo = (next: AppElement | undefined): void => {
      if (!next) return;
      event.preventDefault();
      select(next.id);
    };
    if (event.key === 'ArrowDown') goTo(rows[Math.min(at + 1, rows.length - 1)]?.element);
    if (event.key === 'ArrowUp') goTo(rows[Math.max(at - 1, 0)]?.element);
    if (event.key === 'Home') goTo(rows[0]?.element);
    if (event.key === 'End') goTo(rows.at(-1)?.element);
    if (event.key === 'Enter') {
      event.preventDefault();
      enterRegion('gate');
    }
    if (event.key === 'Escape' && words !== '') {
      event.preventDefault();
      setWords('');
    }
    if (!row || (event.key !== 'ArrowRight' && event.key !== 'ArrowLeft')) return;
    event.preventDefault();
    if (event.key === 'ArrowRight') {
      if (row.hasContents && row.folded) fold(row.element.id, false);
      else if (row.hasContents) goTo(row.element.contents[0]);
    } else if (row.hasContents && !row.folded) fold(row.element.id, true);
    else if (row.depth > 0) goTo(row.element.container);
  };
  return (
    <section
      aria-label="Outline"
      data-region="work"
      tabIndex={-1}
      className="flex min-h-0 flex-col border-r border-rule bg-plate"
    >
      {forms && <div className="px-3 pt-2">{forms}</div>}
      <div className="relative px-3 pt-2 pb-2">
        <input
          ref={search}
          type="search"
          aria-label="Search the outline"
          placeholder="Find a screen, field or button"
          className="field-box pr-7"
          value={words}
          onChange={(event) => setWords(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Escape') {
              if (words === '') tree.current?.focus();
              setWords('');
            }
            const hit = rows.find(({ element }) => element.name.toLowerCase().includes(words.toLowerCase()));
            if ((event.key !== 'Enter' && event.key !== 'ArrowDown') || !hit) return;
            // On to what was found: there the arrows walk, Enter goes to the gate, and 0, 1 and 2 set.
            event.preventDefault();
            select(hit.element.id);
            tree.current?.focus();
          }}
        />
        {!words && <kbd className="key absolute top-4 right-5">/</kbd>}
      </div>
      <div className="flex justify-between px-3 pb-1 text-[12px] text-quiet">
        <span
          title={`Press Enter for the ${enters} and Escape to return. F6 moves between areas, F8 moves to the viewers.`}
        >
          Outline <kbd className="key px-1 text-[11px]">Enter</kbd> {enters}
        </span>
        <span title={`Columns: ${viewers[from]?.name ?? ''} to ${viewers[until - 1]?.name ?? ''}`}>
          {until - from < viewers.length ? `viewers ${from + 1}–${until} of ${viewers.length}` : 'access'}
        </span>
      </div>
      <div
        ref={tree}
        role="tree"
        data-enter
        aria-label="The application"
        aria-activedescendant={drawn.some(({ index }) => index === at) ? `outline-${selected.id}` : undefined}
        tabIndex={0}
        onKeyDown={onKeyDown}
        className="min-h-0 flex-1 overflow-y-auto pb-3 -outline-offset-2 [contain:strict]"
      >
        <div role="presentation" className="relative" style={{ height: view.getTotalSize() }}>
          {drawn.map(({ key, index, start }) => {
            const row = rows[index] as OutlineRow;
            return (
              <div key={key} role="presentation" className="absolute inset-x-0" style={{ top: start }}>
                {row.heading && (
                  <div
                    role="presentation"
                    className="flex items-end border-t border-rule px-3 pb-1 text-[12px] text-quiet"
                    style={{ height: HEADING }}
                  >
                    {row.heading}
                  </div>
                )}
                <RowView row={row} onFold={fold} />
              </div>
            );
          })}
        </div>
        {rows.length === 0 && <p className="px-3 py-2 text-quiet">No elements match this search.</p>}
      </div>
    </section>
  );
}

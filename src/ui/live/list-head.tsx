'use client';

import { ArrowDown, ArrowUp, Search } from 'lucide-react';
import { useState } from 'react';
import type { DrawnList } from './drawn';
import { ghostClass, ghostWords } from './ghost';

export function Heading({
  column,
  sort,
  onSort,
}: {
  column: DrawnList['columns'][number];
  sort: string;
  onSort: (sort: string) => void;
}) {
  const up = sort === column.field;
  const down = sort === `-${column.field}`;
  const align = column.align === 'end' ? 'justify-end' : '';
  if (column.ghost)
    return (
      <th
        data-element={column.id}
        title={ghostWords(column.label, column.ghost)}
        className={`${ghostClass(column.ghost)} px-2 py-1 font-normal`}
      >
        {column.label}
        <span className="sr-only">
          {column.ghost === 'some' ? ', for some of them' : ', not for this viewer'}
        </span>
      </th>
    );
  return (
    <th
      data-element={column.id}
      aria-sort={up ? 'ascending' : down ? 'descending' : 'none'}
      className="px-2 py-1 font-medium"
    >
      <button
        type="button"
        className={`flex w-full items-center gap-1 ${align}`}
        onClick={() => onSort(up ? `-${column.field}` : column.field)}
      >
        {column.label}
        {up && <ArrowUp size={13} aria-hidden />}
        {down && <ArrowDown size={13} aria-hidden />}
      </button>
    </th>
  );
}

export function ListSearch({
  name,
  q,
  onSearch,
}: {
  name: string;
  q: string;
  onSearch: (q: string) => void;
}) {
  const [text, setText] = useState(q);
  return (
    <span className="flex items-center gap-1.5 rounded-sm border border-edge px-2 focus-within:outline-2 focus-within:outline-open">
      <Search size={14} aria-hidden className="text-quiet" />
      <input
        type="search"
        aria-label={`Search in ${name}`}
        placeholder="Search"
        className="w-44 bg-transparent py-1 outline-none"
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => text !== q && onSearch(text)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter') return;
          event.preventDefault();
          onSearch(text);
        }}
      />
    </span>
  );
}

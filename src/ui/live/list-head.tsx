'use client';

import { Search } from 'lucide-react';
import { useState } from 'react';
import type { DrawnList } from './drawn';
import { ghostClass, ghostWords } from './ghost';

type Column = DrawnList['columns'][number];

/** What stands at the head of a column; a ghost says whose it is not. */
export function Heading({ column: { label, ghost } }: { column: Column }) {
  if (!ghost) return label;
  return (
    <>
      {label}
      <span className="sr-only">
        {ghost === 'some' ? ', only for some of these people' : ', hidden from this viewer'}
      </span>
    </>
  );
}

/** How the head of a column looks. */
export const headOf = ({ id, label, ghost }: Column) => ({
  'data-element': id,
  ...(ghost && { title: ghostWords(label, ghost), className: `${ghostClass(ghost)} font-normal` }),
});

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
        aria-label={`Search ${name}`}
        placeholder="Search"
        className="w-44 bg-transparent py-1 outline-none"
        value={text}
        onChange={(event) => setText(event.target.value)}
        // What stands there, also where it was written before this page could hear.
        onBlur={({ target: { value } }) => value !== q && onSearch(value)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter') return;
          event.preventDefault();
          onSearch(event.currentTarget.value);
        }}
      />
    </span>
  );
}

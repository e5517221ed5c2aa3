'use client';

import { ListFilter as FilterIcon } from 'lucide-react';
import dynamic from 'next/dynamic';
import { useState } from 'react';
import type { ShownRows } from '@/core/access';

/** Only who filters loads it. */
const FilterForm = dynamic(() => import('./filter-form').then((part) => part.FilterForm));

/** Narrows a list by any field that the viewer may see: picked, or written as conditions are. */
export function ListFilter({ rows, onFilter }: { rows: ShownRows; onFilter: (filter: string) => void }) {
  const [open, setOpen] = useState(false);
  if (rows.filters.length === 0) return null;
  return (
    <>
      <button type="button" className="button" aria-expanded={open} onClick={() => setOpen(!open)}>
        <FilterIcon size={14} aria-hidden />
        Filter
      </button>
      {(open || rows.filter || rows.problem) && (
        <div className="flex basis-full flex-wrap items-center gap-2 border-t border-sheet pt-2">
          {open && (
            <FilterForm
              fields={rows.filters}
              onAdd={(added) => onFilter([rows.filter, added].filter(Boolean).join(' and '))}
            />
          )}
          {rows.filter && (
            <span className="flex min-w-0 items-center gap-2">
              <code className="truncate font-mono text-[13px]" title={rows.filter}>
                {rows.filter}
              </code>
              <button type="button" className="link" onClick={() => onFilter('')}>
                Clear
              </button>
            </span>
          )}
          {rows.problem && (
            <p role="alert" className="basis-full border-l-4 border-ink bg-sheet px-3 py-1">
              {rows.problem}
            </p>
          )}
        </div>
      )}
    </>
  );
}

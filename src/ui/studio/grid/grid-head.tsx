'use client';

import { ChevronDown, ChevronRight } from 'lucide-react';
import { memo } from 'react';
import { kindInWords } from '@/core/edit';
import type { GridRow } from './grid-rows';

interface Props {
  readonly row: GridRow;
  readonly index: number;
  /** Is the keyboard on it? */
  readonly focused: boolean;
  readonly onFold: (id: string, folded: boolean) => void;
}

/**
 * What is seen of a row's head. All of them stand in one frozen layer, since a layer for each costs half the
 * time of scrolling; screen readers find it in the row.
 */
export const GridHead = memo(function GridHead({ row, index, focused, onFold }: Props) {
  const { element, depth, hasContents, folded, hit } = row;
  const Chevron = folded ? ChevronRight : ChevronDown;
  return (
    <div
      data-head={index}
      title={`${element.name}: ${kindInWords(element.kind)}`}
      className={`grid-head ${focused ? 'cell-focused' : ''} ${hit ? '' : 'text-quiet'} ${depth === 0 ? 'font-medium' : ''}`}
      style={{ paddingLeft: 4 + depth * 12 }}
    >
      <span
        className="flex w-4 shrink-0 justify-center"
        onMouseDown={(event) => {
          if (!hasContents) return;
          event.stopPropagation();
          onFold(element.id, !folded);
        }}
      >
        {hasContents && <Chevron size={13} aria-hidden className="text-quiet" />}
      </span>
      <span className="truncate">{element.name}</span>
      <span className="ml-auto shrink-0 pr-2 pl-1 text-[11px] text-quiet">{kindInWords(element.kind)}</span>
    </div>
  );
});

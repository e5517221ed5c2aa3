'use client';

import { useLayoutEffect, useRef } from 'react';
import type { Cell } from '@/core/access';
import { COLUMN, markOf, ROW, type MarkSheet } from './mark-sheet';

/**
 * The marks of some rows of cells, copied from the sheet into one picture. A drawing, or a picture, for each
 * cell would cost more than all else when thousands of them scroll.
 */
export function CellMarks({
  rows,
  sheet,
}: {
  rows: readonly (readonly Cell[])[];
  sheet: MarkSheet | undefined;
}) {
  const ref = useRef<HTMLCanvasElement>(null);
  const across = rows[0]?.length ?? 0;
  useLayoutEffect(() => {
    const pen = ref.current?.getContext('2d', { willReadFrequently: true });
    if (!pen || !sheet) return;
    const { picture, width, height } = sheet;
    pen.clearRect(0, 0, pen.canvas.width, pen.canvas.height);
    rows.forEach((cells, y) =>
      cells.forEach((cell, x) => {
        const from = markOf(cell) * width;
        pen.drawImage(picture, from, 0, width, height, x * width, y * height, width, height);
      }),
    );
  });
  return (
    <canvas
      ref={ref}
      aria-hidden
      width={across * (sheet?.width ?? 0)}
      height={rows.length * (sheet?.height ?? 0)}
      className="pointer-events-none"
      style={{ width: across * COLUMN, height: rows.length * ROW }}
    />
  );
}

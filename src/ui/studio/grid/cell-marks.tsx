import type { Cell } from '@/core/access/cells';
import { LevelShapes } from '../level-mark';

/** A cell's width and height. */
export const COLUMN = 34;
export const ROW = 24;

const SIZE = 11.5;
const LEFT = (COLUMN - SIZE) / 2;
const TOP = (ROW - SIZE) / 2;

/**
 * The marks of cells side by side, in one drawing: each level by its shape; a stroke under it for own lines, one
 * over it where its container limits it, one at its side where its door does.
 */
export function CellMarks({ cells }: { cells: readonly Cell[] }) {
  const strokes = cells
    .map(({ own, byContainer, byDoor }, n) => {
      const x = n * COLUMN;
      return [
        own ? `M${x + LEFT} ${ROW - 3}h${SIZE}v2h${-SIZE}z` : '',
        byContainer ? `M${x + LEFT} 1h${SIZE}v2h${-SIZE}z` : '',
        byDoor ? `M${x + LEFT + SIZE + 3} ${TOP}h2v${SIZE}h-2z` : '',
      ].join('');
    })
    .join('');
  return (
    <svg aria-hidden width={cells.length * COLUMN} height={ROW} className="pointer-events-none">
      <LevelShapes
        answers={cells.map(({ answer }) => answer)}
        placeOf={(n) => n * COLUMN + LEFT}
        top={TOP}
        width={SIZE}
        height={SIZE}
      />
      {strokes && <path className="fill-ink" d={strokes} />}
    </svg>
  );
}

import type { Answer } from '@/core/access';
import { DASHES, LEVEL_SHAPES, levelPaths, shapeOf, type Box, type LevelShape } from './level-paths';

/**
 * A level by its shape: empty with a stroke, half filled, filled, and hatched where it depends on the
 * record. Its word stands beside it, or in `label`.
 */
export function LevelMark({ answer, label, size = 13 }: { answer: Answer; label?: string; size?: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 13 13"
      className="shrink-0"
      {...(label === undefined ? { 'aria-hidden': true } : { role: 'img', 'aria-label': label })}
    >
      <Shapes shape={shapeOf(answer)} boxes={[{ left: 0.75, top: 0.75, width: 11.5, height: 11.5 }]} />
    </svg>
  );
}

/** The levels of all viewers in the rail, side by side: a row of the access matrix. */
export function ReachStrip({ answers, label }: { answers: readonly Answer[]; label: string }) {
  const width = answers.length * 8;
  const shapes = answers.map(shapeOf);
  const boxes = shapes.map((_, n): Box => ({
    left: n * 8 + 0.75,
    top: 0.75,
    width: 5.5,
    height: 12.5,
    narrow: true,
  }));
  return (
    <svg
      width={width}
      height={14}
      viewBox={`0 0 ${width} 14`}
      className="shrink-0"
      role="img"
      aria-label={label}
    >
      {/* One drawing for all of a level, wherever they stand: there are hundreds of strips. */}
      {LEVEL_SHAPES.filter((shape) => shapes.includes(shape)).map((shape) => (
        <Shapes key={shape} shape={shape} boxes={boxes.filter((_, n) => shapes[n] === shape)} />
      ))}
    </svg>
  );
}

function Shapes({ shape, boxes }: { shape: LevelShape; boxes: readonly Box[] }) {
  const paths = boxes.map((box) => levelPaths(shape, box));
  const [frame, fill, hatch] = (['frame', 'fill', 'hatch'] as const).map((part) =>
    paths.map((one) => one[part]).join(''),
  );
  return (
    <g className={`level level-${shape}`}>
      <path
        className="level-frame"
        d={frame}
        strokeDasharray={shape === 'depends' ? DASHES.join(' ') : undefined}
      />
      {fill && <path className="level-fill" d={fill} />}
      {hatch && <path className="level-hatch" d={hatch} />}
    </g>
  );
}

import type { Answer } from '@/core/access/level';

const look = ({ least, most }: Answer): (typeof SHAPES)[number] =>
  least !== most ? 'depends' : most === 0 ? 'none' : most === 1 ? 'see' : 'edit';

/**
 * A level by its shape: empty with a stroke, half filled, filled, and hatched where it depends on the
 * record. Its word stands beside it, or in `label`.
 */
export function LevelMark({ answer, label, size = 13 }: { answer: Answer; label?: string; size?: number }) {
  const shape = look(answer);
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 13 13"
      className={`level level-${shape} shrink-0`}
      {...(label === undefined ? { 'aria-hidden': true } : { role: 'img', 'aria-label': label })}
    >
      <Shape shape={shape} at={[0.75]} top={0.75} width={11.5} height={11.5} />
    </svg>
  );
}

/** The levels of all viewers in the rail, side by side: a row of the access matrix. */
export function ReachStrip({ answers, label }: { answers: readonly Answer[]; label: string }) {
  const width = answers.length * 8;
  return (
    <svg
      width={width}
      height={14}
      viewBox={`0 0 ${width} 14`}
      className="shrink-0"
      role="img"
      aria-label={label}
    >
      <LevelShapes
        answers={answers}
        placeOf={(n) => n * 8 + 0.75}
        top={0.75}
        width={5.5}
        height={12.5}
        narrow
      />
    </svg>
  );
}

const SHAPES = ['none', 'see', 'edit', 'depends'] as const;

/** The marks of many answers, for within a drawing: one path for all of a level, wherever they stand. */
export function LevelShapes({
  answers,
  placeOf,
  ...size
}: {
  answers: readonly Answer[];
  placeOf: (n: number) => number;
  top: number;
  width: number;
  height: number;
  narrow?: boolean;
}) {
  const shapes = answers.map(look);
  return SHAPES.filter((shape) => shapes.includes(shape)).map((shape) => (
    <g key={shape} className={`level level-${shape}`}>
      <Shape shape={shape} at={shapes.flatMap((one, n) => (one === shape ? [placeOf(n)] : []))} {...size} />
    </g>
  ));
}

/** Marks of one level, at each of these places. */
function Shape({
  shape,
  at,
  top,
  width,
  height,
  narrow = false,
}: {
  shape: (typeof SHAPES)[number];
  at: readonly number[];
  top: number;
  width: number;
  height: number;
  narrow?: boolean;
}) {
  const half = height / 2;
  const each = (draw: (x: number) => string): string => at.map(draw).join('');
  const box = (from: number, tall: number): string =>
    each((x) => `M${x} ${from}h${width}v${tall}h${-width}z`);
  return (
    <>
      <path
        className="level-frame"
        d={box(top, height)}
        strokeDasharray={shape === 'depends' ? '2 1.4' : undefined}
      />
      {shape === 'edit' && <path className="level-fill" d={box(top, height)} />}
      {shape === 'see' && <path className="level-fill" d={box(top + half, half)} />}
      {shape === 'none' && !narrow && (
        <path className="level-frame" d={each((x) => `M${x} ${top + height}l${width} ${-height}`)} />
      )}
      {shape === 'depends' && (
        <path
          className="level-hatch"
          d={each(
            (x) =>
              `M${x} ${top + half}l${width * 0.55} ${-half}M${x} ${top + height}l${width} ${height * -0.9}M${x + half} ${top + height}l${half} ${height * -0.45}`,
          )}
        />
      )}
    </>
  );
}

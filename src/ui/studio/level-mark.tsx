import type { Answer } from '@/core/access/level';

const look = ({ least, most }: Answer): 'none' | 'see' | 'edit' | 'depends' =>
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
      <Shape shape={shape} x={0.75} width={11.5} height={11.5} />
    </svg>
  );
}

/** The levels of all viewers in the rail, side by side: a row of the access matrix. */
export function ReachStrip({ answers, label }: { answers: readonly Answer[]; label: string }) {
  return (
    <svg
      width={answers.length * 8}
      height={14}
      viewBox={`0 0 ${answers.length * 8} 14`}
      className="shrink-0"
      role="img"
      aria-label={label}
    >
      {answers.map((answer, n) => {
        const shape = look(answer);
        return (
          <g key={n} className={`level level-${shape}`}>
            <Shape shape={shape} x={n * 8 + 0.75} width={5.5} height={12.5} narrow />
          </g>
        );
      })}
    </svg>
  );
}

function Shape({
  shape,
  x,
  width,
  height,
  narrow = false,
}: {
  shape: string;
  x: number;
  width: number;
  height: number;
  narrow?: boolean;
}) {
  const y = 0.75;
  const half = height / 2;
  return (
    <>
      <rect
        className="level-frame"
        x={x}
        y={y}
        width={width}
        height={height}
        strokeDasharray={shape === 'depends' ? '2 1.4' : undefined}
      />
      {shape === 'edit' && <rect className="level-fill" x={x} y={y} width={width} height={height} />}
      {shape === 'see' && <rect className="level-fill" x={x} y={y + half} width={width} height={half} />}
      {shape === 'none' && !narrow && (
        <line className="level-frame" x1={x} y1={y + height} x2={x + width} y2={y} />
      )}
      {shape === 'depends' && (
        <path
          className="level-hatch"
          d={`M${x} ${y + height * 0.5}L${x + width * 0.55} ${y}M${x} ${y + height}L${x + width} ${y + height * 0.1}M${x + width * 0.5} ${y + height}L${x + width} ${y + height * 0.55}`}
        />
      )}
    </>
  );
}

'use client';

import { Bar, BarChart, CartesianGrid, Line, LineChart, XAxis, YAxis } from 'recharts';
import type { ChartPoint, ShownPart } from '@/core/access';
import { ChartFigure } from '../parts/chart-figure';

type Chart = Extract<ShownPart, { kind: 'chart' }>;

const INK = 'var(--color-open)';

/** A chart of the records that a list beside it shows. */
export function ChartView({ chart, points }: { chart: Chart; points: readonly ChartPoint[] }) {
  const around = {
    data: points.map(({ label, value }) => ({ label, value })),
    margin: { top: 8, right: 8, bottom: 0, left: 0 },
  };
  const inside = (
    <>
      <CartesianGrid vertical={false} stroke="var(--color-rule)" />
      <XAxis dataKey="label" tick={{ fontSize: 12 }} />
      <YAxis width={56} tick={{ fontSize: 12 }} />
    </>
  );
  return (
    <ChartFigure
      title={chart.name}
      note={chart.shows}
      height={200}
      head={[chart.by, chart.shows]}
      rows={points.map(({ label, text }) => [label, text])}
      empty={points.length === 0 ? 'No data to show.' : undefined}
      element={chart.id}
    >
      {chart.as === 'bars' ? (
        <BarChart {...around}>
          {inside}
          <Bar dataKey="value" fill={INK} maxBarSize={64} isAnimationActive={false} />
        </BarChart>
      ) : (
        <LineChart {...around}>
          {inside}
          <Line dataKey="value" stroke={INK} strokeWidth={2} isAnimationActive={false} />
        </LineChart>
      )}
    </ChartFigure>
  );
}

'use client';

import { Bar, BarChart, CartesianGrid, Line, LineChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { ChartPoint, ShownPart } from '@/core/access';

type Chart = Extract<ShownPart, { kind: 'chart' }>;

const HEIGHT = 200;
const INK = 'var(--color-open)';

/** A chart, and the same as a table for those who cannot see it, or want the numbers. */
export function ChartView({ chart, points }: { chart: Chart; points: readonly ChartPoint[] }) {
  const data = points.map(({ label, value }) => ({ label, value }));
  const around = { data, margin: { top: 8, right: 8, bottom: 0, left: 0 } };
  const inside = (
    <>
      <CartesianGrid vertical={false} stroke="var(--color-rule)" />
      <XAxis dataKey="label" tick={{ fontSize: 12 }} />
      <YAxis width={56} tick={{ fontSize: 12 }} />
    </>
  );
  return (
    <figure data-element={chart.id} className="border-t-2 border-ink bg-paper px-4 pt-2 pb-3">
      <figcaption className="mb-1 font-semibold">
        {chart.name} <span className="font-normal text-quiet">{chart.shows}</span>
      </figcaption>
      {points.length === 0 ? (
        <p className="text-quiet">No data to show.</p>
      ) : (
        <>
          <div aria-hidden style={{ height: HEIGHT }}>
            <ResponsiveContainer width="100%" height="100%">
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
            </ResponsiveContainer>
          </div>
          <details className="mt-1">
            <summary className="text-quiet">Show as a table</summary>
            <table className="mt-1">
              <thead>
                <tr className="text-left">
                  <th className="py-0.5 pr-8 font-medium">{chart.by}</th>
                  <th className="py-0.5 text-right font-medium">{chart.shows}</th>
                </tr>
              </thead>
              <tbody>
                {points.map(({ label, text }) => (
                  <tr key={label} className="border-t border-sheet">
                    <td className="py-0.5 pr-8">{label}</td>
                    <td className="py-0.5 text-right tabular-nums">{text}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </details>
        </>
      )}
    </figure>
  );
}

'use client';

import type { ReactElement, ReactNode } from 'react';
import { ResponsiveContainer } from 'recharts';

interface Props {
  readonly title: string;
  /** What is counted, beside the title. */
  readonly note?: ReactNode;
  /** Of the chart, in pixels. */
  readonly height: number;
  readonly head: readonly string[];
  readonly rows: readonly (readonly [label: string | number, ...numbers: (string | number)[]])[];
  /** What is said in place of a chart that would show nothing. */
  readonly empty?: string | undefined;
  /** The element that a part of a released page is. */
  readonly element?: string;
  readonly children: ReactElement;
}

/** A chart, and the same as a table for those who cannot see it, or want the numbers. */
export function ChartFigure({ title, note, height, head, rows, empty, element, children }: Props) {
  return (
    <figure data-element={element} className="border-t-2 border-ink bg-paper px-3.5 pt-2 pb-3">
      <figcaption className="mb-1 flex flex-wrap items-baseline gap-x-4">
        <span className="font-semibold">{title}</span>
        <span className="text-quiet">{note}</span>
      </figcaption>
      {empty !== undefined ? (
        <p className="text-quiet">{empty}</p>
      ) : (
        <>
          <div aria-hidden style={{ height }}>
            <ResponsiveContainer width="100%" height="100%">
              {children}
            </ResponsiveContainer>
          </div>
          <details className="mt-1">
            <summary className="text-quiet">Show as a table</summary>
            <table className="mt-1" aria-label={title}>
              <thead>
                <tr>
                  {head.map((name, n) => (
                    <th
                      key={name}
                      className={`py-0.5 font-medium ${n === 0 ? 'text-left' : 'pl-8 text-right'}`}
                    >
                      {name}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {rows.map(([label, ...numbers]) => (
                  <tr key={label} className="border-t border-sheet">
                    <td className="py-0.5">{label}</td>
                    {numbers.map((number, n) => (
                      <td key={head[n + 1]} className="py-0.5 pl-8 text-right tabular-nums">
                        {number}
                      </td>
                    ))}
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

'use client';

import { CartesianGrid, Legend, Line, LineChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { proofOverReleases } from '@/contract/studio/proving';
import { useAsked } from '@/ui/client/queries';
import { counted } from '@/core/edit';
import { useStudio } from '../shell/studio-work';

const HEIGHT = 150;
const LINES = [
  { key: 'findings', name: 'Findings', stroke: 'var(--color-amber)', dash: '' },
  { key: 'letIn', name: 'Of these, access risks', stroke: 'var(--color-ink)', dash: '2 3' },
  { key: 'broken', name: 'Broken expectations', stroke: 'var(--color-open)', dash: '7 3' },
] as const;

/** How many findings and broken expectations each release had. */
export function OverReleases() {
  const { app } = useStudio();
  const { data } = useAsked(proofOverReleases, { app });
  const rows = data?.releases ?? [];
  return (
    <figure className="mt-4 border-t-2 border-ink bg-paper px-3.5 pt-2 pb-3">
      <figcaption className="mb-1 font-semibold">Findings and broken expectations by release</figcaption>
      {rows.length < 2 ? (
        <p className="text-[13px] text-quiet">
          {rows[0]
            ? `Release ${rows[0].release} had ${counted(rows[0].findings, 'finding')} and ${counted(rows[0].broken, 'broken expectation')}. A chart appears after the next release.`
            : 'After the first release, this chart shows the findings and broken expectations of each release.'}
        </p>
      ) : (
        <>
          <div aria-hidden style={{ height: HEIGHT }}>
            <ResponsiveContainer width="100%" height="100%">
              <LineChart data={rows} margin={{ top: 8, right: 12, bottom: 0, left: 0 }}>
                <CartesianGrid vertical={false} stroke="var(--color-rule)" />
                <XAxis dataKey="release" tick={{ fontSize: 12 }} />
                <YAxis width={32} allowDecimals={false} tick={{ fontSize: 12 }} />
                <Legend iconType="plainline" wrapperStyle={{ fontSize: 12 }} />
                {LINES.map(({ key, name, stroke, dash }) => (
                  <Line
                    key={key}
                    dataKey={key}
                    name={name}
                    stroke={stroke}
                    strokeWidth={2}
                    strokeDasharray={dash}
                    isAnimationActive={false}
                  />
                ))}
              </LineChart>
            </ResponsiveContainer>
          </div>
          <details className="mt-1">
            <summary className="text-[13px] text-quiet">Show as a table</summary>
            <table className="mt-1 text-left">
              <thead>
                <tr>
                  {['Release', ...LINES.map(({ name }) => name)].map((one) => (
                    <th key={one} className="py-0.5 pr-8 font-medium">
                      {one}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {rows.map((row) => (
                  <tr key={row.release} className="border-t border-sheet tabular-nums">
                    <td className="py-0.5 pr-8">{row.release}</td>
                    {LINES.map(({ key }) => (
                      <td key={key} className="py-0.5 pr-8">
                        {row[key]}
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

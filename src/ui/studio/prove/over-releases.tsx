'use client';

import { CartesianGrid, Legend, Line, LineChart, XAxis, YAxis } from 'recharts';
import { proofOverReleases } from '@/contract/studio/proving';
import { useAsked } from '@/ui/client/queries';
import { counted } from '@/core/edit';
import { ChartFigure } from '@/ui/parts/chart-figure';
import { useStudio } from '../shell/studio-work';

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
  const [first] = rows;
  const few = first
    ? `Release ${first.release} had ${counted(first.findings, 'finding')} and ${counted(first.broken, 'broken expectation')}. A chart appears after the next release.`
    : 'After the first release, this chart shows the findings and broken expectations of each release.';
  return (
    <ChartFigure
      title="Findings and broken expectations by release"
      height={150}
      head={['Release', ...LINES.map(({ name }) => name)]}
      rows={rows.map((row) => [row.release, ...LINES.map(({ key }) => row[key])])}
      empty={rows.length < 2 ? few : undefined}
    >
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
    </ChartFigure>
  );
}

'use client';

import { useMemo } from 'react';
import { Bar, BarChart, LabelList, XAxis, YAxis } from 'recharts';
import { compile, matrixOf } from '@/core';
import { EDIT, keyedRoles, NONE, rightNow, SIGNED_OUT_STATE, unpacked } from '@/core/access';
import type { Definition } from '@/core/model';
import { ChartFigure } from '@/ui/parts/chart-figure';
import { useDraft } from '../shell/studio-work';

interface Reach {
  readonly name: string;
  readonly edit: number;
  readonly see: number;
  readonly text: string;
}

const COUNTED: readonly string[] = ['screen', 'field', 'column', 'button'];
const ROW = 22;

/** How many screens, fields and buttons each role gets to work with, and to see. */
export function ReachChart() {
  const { definition } = useDraft();
  const { rows, of } = useMemo(() => reachOf(definition), [definition]);
  return (
    <ChartFigure
      title="Access of each role"
      note={`out of ${of} screens, fields and buttons`}
      height={rows.length * ROW + 4}
      head={['Viewer', 'Edit', 'See']}
      rows={rows.map(({ name, edit, see }) => [name, edit, see])}
    >
      <BarChart
        layout="vertical"
        data={rows}
        margin={{ top: 0, right: 150, bottom: 0, left: 0 }}
        barCategoryGap={5}
      >
        <XAxis type="number" domain={[0, of]} hide />
        <YAxis
          type="category"
          dataKey="name"
          width={150}
          tickLine={false}
          axisLine={false}
          interval={0}
          tick={<NameTick />}
        />
        <Bar dataKey="edit" stackId="reach" fill="var(--color-open)" isAnimationActive={false} />
        <Bar dataKey="see" stackId="reach" fill="var(--color-open-bright)" isAnimationActive={false}>
          <LabelList dataKey="text" position="right" style={{ fill: 'var(--color-quiet)', fontSize: 12 }} />
        </Bar>
      </BarChart>
    </ChartFigure>
  );
}

const MOST_LETTERS = 22;

/** A name at the left edge, cut where it is long. */
function NameTick({ y = 0, payload }: { y?: number; payload?: { value: string } }) {
  const name = payload?.value ?? '';
  return (
    <text x={0} y={y} dy={4} fontSize={13} fill="var(--color-ink)">
      {name.length > MOST_LETTERS ? `${name.slice(0, MOST_LETTERS - 1)}…` : name}
    </text>
  );
}

/** What each gets at most, now. */
function reachOf(definition: Definition): { readonly rows: readonly Reach[]; readonly of: number } {
  const compiled = compile(definition);
  const viewers = [SIGNED_OUT_STATE, ...keyedRoles(definition)];
  const matrix = matrixOf(
    compiled,
    viewers.map(({ viewer }) => viewer),
    rightNow(),
  );
  const { elements } = compiled.tree;
  const counted = elements.filter(({ kind }) => COUNTED.includes(kind));
  const rows = viewers.map(({ name }, row) => {
    const got = counted.map(({ number }) => unpacked(matrix[row * elements.length + number] ?? 0).most);
    const edit = got.filter((one) => one === EDIT).length;
    const see = got.filter((one) => one > NONE).length - edit;
    return { name, edit, see, text: `${edit} edit, ${see} see` };
  });
  return { rows, of: counted.length };
}

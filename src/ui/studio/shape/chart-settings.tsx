'use client';

import { countedBy } from '@/core/edit';
import { kindOf, type Chart, type ChartShows } from '@/core/model';
import { useBench } from '../frame/bench';
import { Choice } from './choice';
import { useChange } from './use-change';

const SHOWS: readonly (readonly [ChartShows, string])[] = [
  ['count', 'Count'],
  ['sum', 'Sum'],
  ['average', 'Average'],
];

const DRAWN: readonly (readonly [Chart['as'], string])[] = [
  ['bars', 'Bars'],
  ['line', 'Line'],
];

/** What a chart counts, by what, and how it is drawn. */
export function ChartSettings({ chart }: { chart: Chart }) {
  const { compiled } = useBench();
  const change = useChange();
  const list = compiled.tree.need(chart.list, 'list');
  const entity = compiled.tree.entityOf(list.node.entity);
  const measured = entity?.fields.filter(({ type }) => kindOf(type).measured) ?? [];
  const by = countedBy(entity).map(
    ({ id, name, type }) => [id, type.kind === 'date' ? `${name}, by month` : name] as const,
  );
  return (
    <>
      <p className="mb-2 text-quiet">
        The chart counts the records that {list.name} shows, including its search and filter. It never
        includes data the viewer cannot see.
      </p>
      <Choice label="Group by" value={chart.by} options={by} onChoose={(id) => change({ by: id })} />
      <Choice
        label="Measure"
        value={chart.shows}
        options={SHOWS.filter(([key]) => key === 'count' || measured.length > 0)}
        onChoose={(shows) =>
          change({ shows, of: shows === 'count' ? null : (chart.of ?? measured[0]?.id ?? null) })
        }
      />
      {chart.of !== undefined && (
        <Choice
          label="Field"
          value={chart.of}
          options={measured.map(({ id, name }) => [id, name] as const)}
          onChoose={(of) => change({ of })}
        />
      )}
      <Choice label="Chart type" value={chart.as} options={DRAWN} onChoose={(as) => change({ as })} />
    </>
  );
}

'use client';

import { countedBy } from '@/core/edit';
import type { Chart, ChartShows } from '@/core/model';
import { useBench } from '../frame/bench';
import { Choice } from './choice';
import { useChange } from './use-change';

const SHOWS: readonly (readonly [ChartShows, string])[] = [
  ['count', 'How many there are'],
  ['sum', 'The sum of'],
  ['average', 'The average of'],
];

const DRAWN: readonly (readonly [Chart['as'], string])[] = [
  ['bars', 'Bars'],
  ['line', 'A line'],
];

/** What a chart counts, by what, and how it is drawn. */
export function ChartSettings({ chart }: { chart: Chart }) {
  const { compiled } = useBench();
  const change = useChange();
  const list = compiled.tree.need(chart.list, 'list');
  const entity = compiled.tree.entityOf(list.node.entity);
  const measured = entity?.fields.filter(({ type }) => ['number', 'money'].includes(type.kind)) ?? [];
  const by = countedBy(entity).map(
    ({ id, name, type }) => [id, type.kind === 'date' ? `${name}, by month` : name] as const,
  );
  return (
    <>
      <p className="mb-2 text-quiet">
        It counts what {list.name} shows, as it is searched and filtered, and nothing that its reader may not
        see.
      </p>
      <Choice label="Counts by" value={chart.by} options={by} onChoose={(id) => change({ by: id })} />
      <Choice
        label="Shows"
        value={chart.shows}
        options={SHOWS.filter(([key]) => key === 'count' || measured.length > 0)}
        onChoose={(shows) =>
          change({ shows, of: shows === 'count' ? null : (chart.of ?? measured[0]?.id ?? null) })
        }
      />
      {chart.of !== undefined && (
        <Choice
          label="Of"
          value={chart.of}
          options={measured.map(({ id, name }) => [id, name] as const)}
          onChoose={(of) => change({ of })}
        />
      )}
      <Choice label="Drawn as" value={chart.as} options={DRAWN} onChoose={(as) => change({ as })} />
    </>
  );
}

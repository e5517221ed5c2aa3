'use client';

import { countedBy } from '@/core/edit';
import type { Chart, ChartShows } from '@/core/model';
import { useBench } from '../gates/bench';
import { Labelled } from './labelled';
import { useChange } from './use-change';

const SHOWS: readonly (readonly [ChartShows, string])[] = [
  ['count', 'How many there are'],
  ['sum', 'The sum of'],
  ['average', 'The average of'],
];

/** What a chart counts, by what, and how it is drawn. */
export function ChartSettings({ chart }: { chart: Chart }) {
  const { compiled, mayChange } = useBench();
  const change = useChange();
  const list = compiled.tree.need(chart.list, 'list');
  const entity = compiled.tree.entityOf(list.node.entity);
  const measured = entity?.fields.filter(({ type }) => ['number', 'money'].includes(type.kind)) ?? [];
  const by = countedBy(entity);
  return (
    <>
      <p className="mb-2 text-quiet">
        It counts what {list.name} shows, as it is searched and filtered, and nothing that its reader may not
        see.
      </p>
      <Labelled label="Counts by">
        <select
          className="field-box"
          disabled={!mayChange}
          value={chart.by}
          onChange={(event) => change({ by: event.target.value })}
        >
          {by.map(({ id, name, type }) => (
            <option key={id} value={id}>
              {name}
              {type.kind === 'date' && ', by month'}
            </option>
          ))}
        </select>
      </Labelled>
      <Labelled label="Shows">
        <select
          className="field-box"
          disabled={!mayChange}
          value={chart.shows}
          onChange={(event) => {
            const shows = event.target.value;
            change({ shows, of: shows === 'count' ? null : (chart.of ?? measured[0]?.id ?? null) });
          }}
        >
          {SHOWS.filter(([key]) => key === 'count' || measured.length > 0).map(([key, says]) => (
            <option key={key} value={key}>
              {says}
            </option>
          ))}
        </select>
      </Labelled>
      {chart.of !== undefined && (
        <Labelled label="Of">
          <select
            className="field-box"
            disabled={!mayChange}
            value={chart.of}
            onChange={(event) => change({ of: event.target.value })}
          >
            {measured.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </Labelled>
      )}
      <Labelled label="Drawn as">
        <select
          className="field-box"
          disabled={!mayChange}
          value={chart.as}
          onChange={(event) => change({ as: event.target.value })}
        >
          <option value="bars">Bars</option>
          <option value="line">A line</option>
        </select>
      </Labelled>
    </>
  );
}

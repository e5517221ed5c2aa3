'use client';

import type { ShownButton } from '@/core/access';
import { ButtonView } from './button-view';
import { ClosedView } from './closed-view';
import type { DrawnPart, DrawnSection } from './drawn';
import { FieldView } from './field-view';
import { Ghost } from './ghost';
import { ListView } from './list-view';
import dynamic from 'next/dynamic';
import type { DrawnPage } from './drawn-page';

/** Only screens with such a part load what it takes. */
const PeopleView = dynamic(() => import('./people-view').then((part) => part.PeopleView));
const ChartView = dynamic(() => import('./chart-view').then((part) => part.ChartView));

interface Drawing {
  readonly page: DrawnPage;
  readonly busy: boolean;
  readonly run: (button: ShownButton) => Promise<void>;
}

export function SectionView({ section, page, busy, run }: Drawing & { section: DrawnSection }) {
  const isButton = (part: DrawnPart): boolean =>
    part.kind === 'button' || (part.kind === 'ghost' && part.of === 'button');
  const record = page.screen.binds?.record;
  // Only on the canvas: nothing empty is sent.
  if (section.parts.length === 0)
    return (
      <section
        data-element={section.id}
        aria-label={section.name}
        className="mb-4 border-t-2 border-edge bg-paper px-4 py-2"
      >
        <h2 className="font-semibold">{section.name}</h2>
        <p className="text-quiet">This section is empty.</p>
      </section>
    );
  const onlyButtons = section.parts.every(isButton);
  const buttons = section.parts.filter(isButton);
  const rest = section.parts.filter((part) => !isButton(part));
  const fields = rest.some((part) => part.kind === 'field' || (part.kind === 'ghost' && part.of === 'field'));
  // Buttons stand before a list, which may be long, and after all else.
  const listed = rest.some((part) => part.kind === 'list');
  const titled = fields && section.name !== page.screen.heading;
  return (
    <section
      data-element={section.id}
      aria-label={section.name}
      className={`mb-4 ${fields ? 'border-t-2 border-ink bg-paper px-4 pt-2 pb-4' : ''}`}
    >
      {titled && <h2 className="mb-2 font-semibold">{section.name}</h2>}
      {onlyButtons && <Buttons parts={buttons} busy={busy} run={run} record={record} />}
      {!onlyButtons && (
        <div className={fields ? 'grid grid-cols-2 gap-x-5 gap-y-3' : 'grid grid-cols-[minmax(0,1fr)] gap-3'}>
          {buttons.length > 0 && listed && <Buttons parts={buttons} busy={busy} run={run} record={record} />}
          {rest.map((part) => (
            <PartView key={part.id} part={part} page={page} />
          ))}
          {buttons.length > 0 && !listed && <Buttons parts={buttons} busy={busy} run={run} record={record} />}
        </div>
      )}
    </section>
  );
}

/** What a whole list is asked with: as it stands on the page. */
export function queryOfList({ lists, screen }: DrawnPage, list: string): string {
  const { q = '', filter = '', sort = '' } = lists[list] ?? {};
  const query = new URLSearchParams();
  for (const [key, value] of Object.entries({ q, filter, sort }))
    if (value) query.set(`${list}.${key}`, value);
  if (screen.binds?.record) query.set('record', screen.binds.record);
  return query.toString();
}

function Buttons({
  parts,
  busy,
  run,
  record,
}: {
  parts: readonly DrawnPart[];
  busy: boolean;
  run: Drawing['run'];
  record: string | undefined;
}) {
  return (
    <div className="flex flex-wrap gap-2">
      {parts.map((part) => {
        if (part.kind === 'ghost')
          return (
            <Ghost key={part.id} id={part.id} name={part.name} ghost={part.ghost} className="px-3 py-1" />
          );
        if (part.kind === 'closed')
          return (
            <ClosedView
              key={part.id}
              id={part.id}
              name={part.name}
              closed={part.closed}
              record={record}
              className="px-3 py-1"
            />
          );
        if (part.kind !== 'button') return null;
        return <ButtonView key={part.id} button={part} busy={busy} run={run} record={record} />;
      })}
    </div>
  );
}

function PartView({ part, page }: { part: DrawnPart; page: DrawnPage }) {
  switch (part.kind) {
    case 'field':
      return <FieldView field={part} />;
    case 'text':
      return (
        <p data-element={part.id} className="max-w-prose">
          {part.text}
        </p>
      );
    case 'list':
      return (
        <ListView
          list={part}
          rows={page.lists[part.id]}
          address={page.address}
          query={queryOfList(page, part.id)}
        />
      );
    case 'closed':
      return (
        <div>
          <ClosedView id={part.id} name={part.name} closed={part.closed} record={page.screen.binds?.record} />
        </div>
      );
    case 'chart':
      return (
        <div className="col-span-2 min-w-0">
          <ChartView chart={part} points={page.charts?.[part.id] ?? []} />
        </div>
      );
    case 'people':
      return <PeopleView part={part} />;
    case 'ghost':
      return part.of === 'field' ? (
        <div data-element={part.id}>
          <div className="text-quiet">{part.name}</div>
          <Ghost name={part.name} ghost={part.ghost} className="px-2 py-1 italic">
            {part.ghost === 'not' && 'the value is not sent to the browser'}
          </Ghost>
        </div>
      ) : (
        <Ghost id={part.id} name={part.name} ghost={part.ghost} className="col-span-2 p-4" />
      );
    case 'button':
      return null;
  }
}

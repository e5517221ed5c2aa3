import { FromFile } from './from-file';
import { FromNothing } from './from-nothing';
import { FromSheets } from './from-sheets';

const WAYS = [
  ['csv', 'From CSV files'],
  ['postgres', 'From PostgreSQL'],
  ['file', 'From a definition file'],
  ['nothing', 'Empty'],
] as const;
export type SourceKind = (typeof WAYS)[number][0];
export const isWay = (one: unknown): one is SourceKind => WAYS.some(([way]) => way === one);

/** Makes an application in one of the ways that there are. */
export function Making({ from }: { from: SourceKind }) {
  return (
    <>
      <h1 className="mb-3 text-xl font-semibold">New application</h1>
      <nav aria-label="Source" className="mb-5 flex gap-5 border-b border-rule">
        {WAYS.map(([way, name]) => (
          <a
            key={way}
            href={`/studio/new?from=${way}`}
            aria-current={way === from ? 'page' : undefined}
            className="-mb-px border-b-2 border-transparent py-1.5 aria-[current]:border-open aria-[current]:font-semibold"
          >
            {name}
          </a>
        ))}
      </nav>
      {from === 'csv' && <FromSheets of="files" />}
      {from === 'postgres' && <FromSheets of="tables" />}
      {from === 'file' && <FromFile />}
      {from === 'nothing' && <FromNothing />}
    </>
  );
}

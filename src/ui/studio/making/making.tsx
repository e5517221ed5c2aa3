import { FromFile } from './from-file';
import { FromNothing } from './from-nothing';
import { FromSheets } from './from-sheets';

const WAYS = [
  ['csv', 'From CSV files'],
  ['postgres', 'From PostgreSQL'],
  ['file', 'From a definition file'],
  ['nothing', 'Empty'],
] as const;
export type Way = (typeof WAYS)[number][0];
export const isWay = (one: unknown): one is Way => WAYS.some(([way]) => way === one);

/** Makes an application in one of the ways that there are. */
export function Making({ from }: { from: Way }) {
  return (
    <>
      <h1 className="mb-3 text-xl font-semibold">Make an application</h1>
      <nav aria-label="From what" className="mb-5 flex gap-5 border-b border-rule">
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

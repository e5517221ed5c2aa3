import type { DataChange } from '@/core/edit';

/** Changes to live records by a release. */
export function DataChanges({ changes }: { changes: readonly DataChange[] }) {
  return (
    <section aria-labelledby="data" className="mt-4 border-l-4 border-ink bg-paper px-4 py-3">
      <h2 id="data" className="font-semibold">
        Changes to live records
      </h2>
      <ul className="mt-1 grid gap-2">
        {changes.map(({ about, said, examples }) => (
          <li key={about}>
            <strong className="font-medium" dir="auto">
              {about}
            </strong>
            : {said.join(' ')}
            {examples.length > 0 && (
              <span className="text-quiet">
                {' '}
                For example {examples.map(({ record, value }) => `${record}: “${value}”`).join('; ')}.
              </span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

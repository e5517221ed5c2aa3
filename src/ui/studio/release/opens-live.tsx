import type { Review } from '@/core/edit';
import { Names } from './review-tables';

const LIST = new Intl.ListFormat('en-GB');

/** What of the live records a release opens, and to whom: told before all else. */
export function OpensLive({ opens }: { opens: Review['opens'] }) {
  return (
    <section aria-labelledby="opens" className="mt-4 border-l-4 border-open bg-paper px-4 py-3">
      <h2 id="opens" className="font-semibold">
        Opens live records
      </h2>
      <ul className="mt-1 grid gap-1.5">
        {opens.map(({ about, what, kinds, names, more }) => (
          <li key={[about, ...kinds, ...names, ...what].join(' ')}>
            <strong className="font-medium">{about}</strong>{' '}
            {kinds.length > 0 ? `to ${LIST.format(kinds)}` : 'to people'}: {LIST.format(what)}
            {names.length > 0 && (
              <span className="text-quiet">
                {' '}
                <Names names={names} more={more} />
              </span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

interface PrintedRow {
  readonly id: string;
  readonly name: string;
  readonly depth: number;
  readonly kind: string;
  readonly cells: readonly { readonly word: string; readonly own: boolean; readonly limited: boolean }[];
}

interface Signed {
  readonly title: string;
  readonly by: string;
  readonly at: Date;
  readonly release: number | null;
  readonly sha256: string;
  /** Is it still what that SHA-256 was taken of? */
  readonly isWhole: boolean;
  readonly people: readonly { readonly name: string; readonly roles: string }[];
}

interface Props {
  readonly name: string;
  readonly language: string;
  readonly timeZone: string;
  readonly revision: number;
  readonly release: { readonly number: number; readonly at: Date; readonly same: boolean } | undefined;
  /** Where it was signed off: as what, by whom and when. */
  readonly signed?: Signed;
  readonly printedAt: Date;
  readonly printedBy: string;
  readonly columns: readonly string[];
  readonly rows: readonly PrintedRow[];
  readonly part: {
    readonly number: number;
    readonly of: number;
    readonly from: number;
    readonly elements: number;
  };
}

/** So many viewers fit beside each other on a sheet. */
const ACROSS = 12;

/** Who gets what, on paper: with release, date, legend and a place to sign. The pages are numbered by the printer's margins. */
export function PrintedGrid(props: Props) {
  const { name, language, timeZone, signed, release, revision, printedAt, printedBy, columns, rows, part } =
    props;
  const day = new Intl.DateTimeFormat(language, { dateStyle: 'long', timeStyle: 'short', timeZone });
  const parts = Array.from({ length: Math.ceil(columns.length / ACROSS) }, (_, n) => n * ACROSS);
  return (
    <main className="printed bg-paper p-8">
      <h1 className="text-xl font-semibold">{name}: access overview</h1>
      <dl className="mt-2 grid grid-cols-[9rem_1fr] gap-x-3">
        {signed && (
          <>
            <dt>Signed off</dt>
            <dd>
              “{signed.title}”, {day.format(signed.at)}, by {signed.by}
            </dd>
            <dt>SHA-256</dt>
            <dd className="font-mono text-[11px] break-all">
              {signed.sha256}
              {!signed.isWhole && ' (the content no longer matches the sign-off)'}
            </dd>
          </>
        )}
        <dt>Release</dt>
        <dd>
          {signed && (signed.release === null ? 'none' : signed.release)}
          {signed
            ? `, revision ${revision}`
            : release
              ? `${release.number}, in force since ${day.format(release.at)}`
              : 'never released'}
          {!signed &&
            release &&
            !release.same &&
            `. This document shows draft revision ${revision}, which has not been released`}
        </dd>
        <dt>Printed</dt>
        <dd>
          {day.format(printedAt)}, by {printedBy}
        </dd>
        <dt>Legend</dt>
        <dd>
          None or Closed, See or Read-only, Edit or Use: the viewer’s level. Depends: the level differs from
          record to record or depends on a condition. <strong>Bold</strong>: the element has its own lines;
          otherwise it follows its container. An asterisk (*) means that its container or door gives less than
          its own lines.
        </dd>
        <dt>Elements</dt>
        <dd>
          {part.elements}, for {columns.length} viewers
        </dd>
        {part.of > 1 && (
          <>
            <dt>Part</dt>
            <dd>
              {part.number} of {part.of}: elements {part.from} to {part.from + rows.length - 1}. Print each
              part separately.{' '}
              <span className="print:hidden">
                {Array.from({ length: part.of }, (_, n) => n + 1)
                  .filter((n) => n !== part.number)
                  .map((n) => (
                    <a key={n} className="link mr-2" href={`?part=${n}`}>
                      Part {n}
                    </a>
                  ))}
              </span>
            </dd>
          </>
        )}
      </dl>
      {parts.map((from) => (
        <table
          key={from}
          aria-label="Access overview"
          className="mt-5 w-full border-collapse text-left text-[10px]"
        >
          <thead>
            <tr>
              <th scope="col">Element</th>
              {columns.slice(from, from + ACROSS).map((column) => (
                <th key={column} scope="col">
                  {column}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.id}>
                <th scope="row" className="font-normal" style={{ paddingLeft: 2 + row.depth * 8 }}>
                  {row.name} <span className="text-quiet">{row.kind}</span>
                </th>
                {row.cells.slice(from, from + ACROSS).map((cell, n) => (
                  <td key={n} className={cell.own ? 'font-bold' : ''}>
                    {cell.word}
                    {cell.limited && '*'}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      ))}
      {signed && (
        <section className="mt-6">
          <h2 className="text-base font-semibold">Roles assigned at the time</h2>
          <ul className="mt-1 columns-3 text-[11px]">
            {signed.people.map(({ name: who, roles }, n) => (
              <li key={n} className="break-inside-avoid">
                {who}: {roles}
              </li>
            ))}
          </ul>
        </section>
      )}
      <section className="mt-10 grid grid-cols-3 gap-8 break-inside-avoid">
        {['Name', 'Date', 'Signature'].map((what) => (
          <p key={what} className="border-t border-ink pt-1">
            {what}
          </p>
        ))}
      </section>
    </main>
  );
}

'use client';

interface Props {
  readonly says: string;
  readonly done?: number;
  readonly of?: number;
  readonly onStop: () => void;
}

/** What is going on, how far it is, and a way to stop it. */
export function Progress({ says, done, of, onStop }: Props) {
  return (
    <div
      role="status"
      className="flex max-w-3xl items-center gap-3 border-l-4 border-open bg-paper px-3 py-2"
    >
      <span>{says}</span>
      {done !== undefined && of !== undefined && of > 0 && (
        <>
          <progress aria-label="Progress" value={done} max={of} className="w-32 grow" />
          <span className="whitespace-nowrap tabular-nums">
            {done.toLocaleString('en')} of {of.toLocaleString('en')}
          </span>
        </>
      )}
      <button type="button" className="button ml-auto" onClick={onStop}>
        Stop
      </button>
    </div>
  );
}

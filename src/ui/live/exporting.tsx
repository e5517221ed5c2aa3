'use client';

import { useRef, useState, type ReactNode } from 'react';
import { useHost } from './host';

/** A list on its way as a file. `of` is 0 until it is known. */
interface OnItsWay {
  readonly rows: number;
  readonly of: number;
}

const QUOTE = '"'.charCodeAt(0);
const LINE_FEED = '\n'.charCodeAt(0);

/**
 * Fetches a list as a file, tells how many rows have come, and saves it once it is whole; `view` tells of it, with a way
 * to stop. What is refused or breaks off is told, and leaves no file.
 */
export function useExporting(): {
  readonly begin: (href: string) => Promise<void>;
  readonly view: ReactNode;
} {
  const { tell } = useHost();
  const [onItsWay, setOnItsWay] = useState<OnItsWay>();
  const stop = useRef<AbortController>(undefined);
  const begin = async (href: string): Promise<void> => {
    if (onItsWay) return tell('An export is already running.');
    const { signal } = (stop.current = new AbortController());
    setOnItsWay({ rows: 0, of: 0 });
    try {
      const response = await fetch(href, { signal });
      if (!response.ok || !response.body) {
        const { detail } = (await response.json().catch(() => ({}))) as { detail?: string };
        return tell(detail ?? 'The server rejected the request.');
      }
      const of = Number(response.headers.get('Zinc-Rows') ?? 0);
      const parts = await readParts(response.body, (rows) => setOnItsWay({ rows, of }));
      save(new Blob(parts, { type: 'text/csv' }), 'list.csv');
    } catch {
      tell(
        signal.aborted
          ? 'The export was stopped. No file was saved.'
          : 'The download broke off. Nothing was saved; try again.',
      );
    } finally {
      setOnItsWay(undefined);
    }
  };
  const view = onItsWay && (
    <div
      role="group"
      aria-label="Export"
      className="mb-4 flex items-center gap-3 border-l-4 border-open bg-sheet px-3 py-2"
    >
      <progress
        aria-label="Rows so far"
        className="w-48"
        {...(onItsWay.of > 0 && { value: onItsWay.rows, max: onItsWay.of })}
      />
      <span className="tabular-nums">
        {onItsWay.of === 0
          ? 'Preparing the list…'
          : `${onItsWay.rows.toLocaleString('en')} of ${onItsWay.of.toLocaleString('en')} rows`}
      </span>
      <button type="button" className="button ml-auto" onClick={() => stop.current?.abort()}>
        Stop
      </button>
    </div>
  );
  return { begin, view };
}

/** The parts of a CSV as they come; tells how many rows after the first line have ended by then. */
async function readParts(
  body: ReadableStream<Uint8Array<ArrayBuffer>>,
  tell: (rows: number) => void,
): Promise<BlobPart[]> {
  const parts: BlobPart[] = [];
  let lines = 0;
  let isQuoted = false;
  const reader = body.getReader();
  for (let read = await reader.read(); !read.done; read = await reader.read()) {
    for (const byte of read.value) {
      if (byte === QUOTE) isQuoted = !isQuoted;
      else if (byte === LINE_FEED && !isQuoted) lines++;
    }
    parts.push(read.value);
    tell(Math.max(0, lines - 1));
  }
  return parts;
}

function save(file: Blob, name: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(file);
  link.download = name;
  link.click();
  // The browser has begun to save it by then.
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
}

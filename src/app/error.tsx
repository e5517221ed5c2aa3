'use client';

/** What is shown where a page broke in the browser: what to do, and nothing of what went wrong. */
export default function Broken({ reset }: { reset: () => void }) {
  return (
    <main className="mx-auto max-w-xl px-6 py-16">
      <h1 className="text-xl font-semibold">Something went wrong on this page</h1>
      <p className="mt-2">Your saved changes are safe. Try again, or reload the page.</p>
      <button type="button" className="button button-main mt-4" onClick={reset}>
        Try again
      </button>
    </main>
  );
}

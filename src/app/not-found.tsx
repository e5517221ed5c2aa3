'use client';

/** For addresses that are nobody's. */
export default function NotFound() {
  return (
    <main className="mx-auto max-w-md p-10">
      <h1 className="text-xl font-semibold">Page not found</h1>
      <p className="mt-2 text-quiet">Check the address, or go back to the previous page.</p>
    </main>
  );
}

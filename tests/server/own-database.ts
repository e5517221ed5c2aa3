/** Files run side by side: each worker works in a database of its own, so that none empties another's. */
const url = new URL(process.env['DATABASE_URL'] ?? '');
url.pathname = url.pathname.replace(/\d+$/, process.env['VITEST_POOL_ID'] ?? '1');
process.env['DATABASE_URL'] = url.href;

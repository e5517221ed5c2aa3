import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

/** `bin/test` makes as many databases. */
const WORKERS = 2;

/** Two projects: what needs nothing (`unit`), and what asks a database (`server`). `bin/test` runs either, or both. */
export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: {
    // Generous: a slow machine is no failure.
    testTimeout: 400_000,
    hookTimeout: 120_000,
    // Also where there are two cores: by itself it would leave one to others.
    maxWorkers: WORKERS,
    projects: [
      {
        extends: true,
        test: { name: 'unit', include: ['tests/core/**/*.test.ts', 'tests/ui/**/*.test.ts'] },
      },
      {
        extends: true,
        test: {
          name: 'server',
          include: ['tests/server/**/*.test.ts', 'tests/cli/**/*.test.ts'],
          setupFiles: 'tests/server/own-database.ts',
        },
      },
    ],
  },
});

import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

/** Two projects: what needs nothing (`unit`), and what asks a database (`server`). `bin/test` runs either, or both. */
export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: {
    // Generous: a slow machine is no failure.
    testTimeout: 400_000,
    hookTimeout: 120_000,
    // Also where there are two cores: by itself it would leave one to others.
    maxWorkers: 2,
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
          // They share one database.
          fileParallelism: false,
        },
      },
    ],
  },
});

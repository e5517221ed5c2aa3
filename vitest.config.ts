import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: {
    include: [
      'tests/core/**/*.test.ts',
      'tests/server/**/*.test.ts',
      'tests/ui/**/*.test.ts',
      'tests/cli/**/*.test.ts',
    ],
    // Generous: a slow machine is no failure.
    testTimeout: 400_000,
    hookTimeout: 120_000,
    // The integration tests share one database.
    fileParallelism: false,
  },
});

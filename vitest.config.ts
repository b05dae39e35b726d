import { defineConfig } from 'vitest/config';

export default defineConfig({
  // packages are tested from their sources, so that a test needs no build but the kernels'
  resolve: { conditions: ['source'] },
  ssr: { resolve: { conditions: ['source', 'node', 'import'] } },
  test: {
    include: [
      'packages/*/src/**/*.test.ts',
      'apps/cli/src/**/*.test.ts',
      'apps/web/src/**/*.test.{ts,tsx}',
      'apps/web/server/**/*.test.mjs',
      'scripts/**/*.test.ts',
    ],
    testTimeout: 60000,
  },
});

import { defineConfig } from 'vitest/config';

// packages are tested from their sources, so that a test needs no build but the kernels'
const sources = {
  resolve: { conditions: ['source'] },
  ssr: { resolve: { conditions: ['source', 'node', 'import'] } },
};

/** Tests of what is one for the whole page: its state, its database, its workers. */
const WITH_STATE = ['actions', 'compute', 'state', 'storage', 'stages', 'start', 'workbench'].map(
  (room) => `apps/web/src/${room}/**/*.test.ts`,
);

export default defineConfig({
  test: {
    // one fewer than there are processors would be the default: half of them on a small machine
    maxWorkers: '100%',
    projects: [
      {
        ...sources,
        test: {
          name: 'computation',
          include: [
            'packages/*/src/**/*.test.ts',
            'apps/cli/src/**/*.test.ts',
            'apps/web/server/**/*.test.mjs',
            'scripts/**/*.test.ts',
          ],
          testTimeout: 60000,
          hookTimeout: 60000,
          // nothing here keeps a state between files, and reading the sources once instead of for each file saves minutes
          isolate: false,
        },
      },
      {
        ...sources,
        test: {
          name: 'parts of the page',
          include: ['apps/web/src/**/*.test.ts'],
          exclude: WITH_STATE,
          testTimeout: 60000,
          hookTimeout: 60000,
          isolate: false,
        },
      },
      {
        ...sources,
        test: {
          name: 'page',
          // a file has a page, a database and workers of its own
          include: ['apps/web/src/**/*.test.tsx', ...WITH_STATE],
          testTimeout: 60000,
          hookTimeout: 60000,
        },
      },
    ],
  },
});

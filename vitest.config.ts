import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';

// Long, so that a machine at work on something else fails nothing: how quick things are is the bench's matter.
const testTimeout = 60_000;

export default defineConfig({
  test: {
    // One would be the default on two cores.
    maxWorkers: Math.max(2, availableParallelism() - 1),
    projects: [
      {
        // Core keeps no state: its modules are loaded once, not for every file anew.
        test: {
          name: 'core',
          root: 'core',
          include: ['src/**/*.test.ts'],
          environment: 'node',
          testTimeout,
          isolate: false,
        },
      },
      { test: { name: 'demo', root: 'demo', include: ['**/*.test.ts'], environment: 'node', testTimeout } },
      { test: { name: 'hard', root: 'hard', include: ['**/*.test.ts'], environment: 'node', testTimeout } },
      'app/vitest.config.ts',
    ],
  },
});

import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      { test: { name: 'core', root: 'core', include: ['src/**/*.test.ts'], environment: 'node' } },
      { test: { name: 'demo', root: 'demo', include: ['**/*.test.ts'], environment: 'node' } },
      'app/vitest.config.ts',
    ],
  },
});

import { svelte } from '@sveltejs/vite-plugin-svelte';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

// What of the application needs no browser: the server, the desk's state, what presses and keys do.
export default defineConfig({
  plugins: [svelte({ configFile: false, compilerOptions: { runes: true } })],
  resolve: { alias: { $lib: fileURLToPath(new URL('src/lib', import.meta.url)) } },
  test: { name: 'app', include: ['src/**/*.test.ts'], environment: 'node', testTimeout: 60_000 },
});

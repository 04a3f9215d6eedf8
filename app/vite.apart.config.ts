import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

const at = (name: string): string =>
  fileURLToPath(new URL(`src/lib/server/apart/${name}.ts`, import.meta.url));

// What the server runs apart from itself (src/lib/server/apart): scripts of their own beside it.
export default defineConfig({
  configFile: false,
  build: {
    ssr: true,
    outDir: 'build/apart',
    emptyOutDir: true,
    target: 'node20',
    rolldownOptions: {
      input: Object.fromEntries(
        ['bundle', 'cut-out', 'draw-svg', 'growth', 'lines', 'proof', 'read-drawing', 'straighten'].map(
          (name) => [name, at(name)],
        ),
      ),
    },
  },
  ssr: {
    noExternal: ['@mirrot/core', 'mutative', 'zod', 'flatbush', 'flatqueue', 'fflate'],
    // paper.js looks for a file beside itself.
    external: ['sharp', 'paper', 'fast-xml-parser', 'css-tree', 'culori'],
  },
} as Parameters<typeof defineConfig>[0]);

import adapter from '@sveltejs/adapter-node';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';

/** @type {import('@sveltejs/kit').Config} */
export default {
  preprocess: vitePreprocess(),
  compilerOptions: { runes: true },
  kit: {
    adapter: adapter({ precompress: true }),
    // The parts' own few rules come with the page, not as two dozen files.
    inlineStyleThreshold: 4096,
    // One page for all addresses: kept by the service worker, it opens any of them while the server is away.
    paths: { relative: false },
    // Scripts carry a nonce; none is inline without one. Origins are checked in hooks.server.ts for every method.
    csrf: { trustedOrigins: ['*'] },
    csp: {
      mode: 'nonce',
      directives: {
        'default-src': ['none'],
        'script-src': ['self'],
        'style-src': ['self'],
        'style-src-attr': ['unsafe-inline'],
        'img-src': ['self', 'blob:', 'data:'],
        'font-src': ['self'],
        'connect-src': ['self'],
        'worker-src': ['self'],
        'manifest-src': ['self'],
        'base-uri': ['none'],
        'form-action': ['none'],
        'frame-ancestors': ['none'],
      },
    },
  },
};

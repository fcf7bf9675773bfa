import adapter from '@sveltejs/adapter-node';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';

/** @type {import('@sveltejs/kit').Config} */
export default {
  preprocess: vitePreprocess(),
  kit: {
    adapter: adapter({ out: 'build' }),
    alias: { $core: 'src/core' },
    // Only the session page asks for it.
    serviceWorker: { register: false },
    csp: {
      // Of what stands in the page, not of each answer: a page may serve several who open it at once.
      mode: 'hash',
      // The engraver is WebAssembly; everything else is plain and comes from here. Carbon and the engraving set inline styles.
      directives: {
        'default-src': ['self'],
        'script-src': ['self', 'wasm-unsafe-eval'],
        // Tone.js keeps its clock in a worker that it makes from text.
        'worker-src': ['self', 'blob:'],
        'style-src': ['self', 'unsafe-inline'],
        'img-src': ['self', 'data:'],
        'font-src': ['self', 'data:'],
        'connect-src': ['self'],
        'object-src': ['none'],
        'base-uri': ['self'],
        'form-action': ['self'],
        'frame-ancestors': ['none']
      }
    }
  }
};

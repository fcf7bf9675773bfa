import { sveltekit } from '@sveltejs/kit/vite';
import { defineConfig, type Plugin } from 'vite';

/** Carbon's ready-made CSS names fonts on a remote host; those rules are left out, nothing is fetched at run time. */
const withoutRemoteFonts: Plugin = {
  name: 'without-remote-fonts',
  enforce: 'pre',
  transform(code, id) {
    if (!/carbon-components-svelte\/css\/.*\.css/.test(id)) return null;
    return { code: code.replace(/@font-face\s*\{[^}]*\}/g, ''), map: null };
  }
};

export default defineConfig({
  plugins: [withoutRemoteFonts, sveltekit()],
  worker: { format: 'es' },
  // Given by the build, so that stored studies are those of this very engine.
  define: process.env.NUVELO_ENGINE ? { __NUVELO_ENGINE__: JSON.stringify(process.env.NUVELO_ENGINE) } : {},
  build: { chunkSizeWarningLimit: 9000 },
  server: { fs: { allow: ['src', 'node_modules'] } }
});

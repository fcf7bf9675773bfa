import { sveltekit } from '@sveltejs/kit/vite';
import { defineConfig } from 'vite';
import { onlyUsedCarbon, withoutFontsAndThemes } from './scripts/carbon-css.ts';

export default defineConfig({
  plugins: [withoutFontsAndThemes, sveltekit(), onlyUsedCarbon],
  worker: { format: 'es' },
  // Given by the build, so that stored studies are those of this very engine.
  define: process.env.NUVELO_ENGINE ? { __NUVELO_ENGINE__: JSON.stringify(process.env.NUVELO_ENGINE) } : {},
  build: {
    chunkSizeWarningLimit: 9000,
    // Browsers ask for six files at a time: what several rooms share comes in few.
    rolldownOptions: {
      output: { codeSplitting: { groups: [{ name: 'shared', minShareCount: 3, test: /src|node_modules.(svelte|carbon)/ }] } }
    }
  },
  server: { fs: { allow: ['src', 'node_modules'] } }
});

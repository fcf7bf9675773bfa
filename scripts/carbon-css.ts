import { PurgeCSS } from 'purgecss';
import type { Plugin } from 'vite';

/** Carbon's ready-made CSS names fonts on a remote host and carries four themes that are not used: nothing is fetched at run time, and Nuvelo has its own tokens. */
const NOT_OURS = /@font-face\s*\{[^}]*\}|:root\[theme=["']?\w+["']?\]\s*\{[^}]*\}/g;

export const withoutFontsAndThemes: Plugin = {
  name: 'without-fonts-and-themes',
  enforce: 'pre',
  transform(code, id) {
    return /carbon-components-svelte\/css\/.*\.css/.test(id) ? { code: code.replace(NOT_OURS, ''), map: null } : null;
  }
};

/** A class of Carbon's as it stands in code; one that ends with a hyphen is put together when it runs. */
const CLASS = /bx--[\w-]+/g;

/** Only the rules of those parts of Carbon stay whose classes stand in the code that is shipped. */
export const onlyUsedCarbon: Plugin = {
  name: 'only-used-carbon',
  apply: 'build',
  enforce: 'post',
  async generateBundle(_, bundle) {
    const files = Object.values(bundle);
    const code = files.flatMap((f) => (f.type === 'chunk' ? [f.code] : []));
    const classes = [...new Set(code.flatMap((c) => c.match(CLASS) ?? []))];
    const begun = classes.filter((c) => c.endsWith('-')).map((c) => new RegExp(`^${c}`));
    for (const file of files) {
      if (file.type !== 'asset' || !file.fileName.endsWith('.css')) continue;
      const [purged] = await new PurgeCSS().purge({
        content: [{ raw: classes.join(' '), extension: 'txt' }],
        css: [{ raw: String(file.source) }],
        defaultExtractor: (text) => text.split(' '),
        safelist: { standard: [/^(?!bx--)/, ...begun], deep: [], greedy: [], keyframes: [], variables: [] }
      });
      file.source = purged.css;
    }
  }
};

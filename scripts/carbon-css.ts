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

/** Shapes of Carbon's parts that stand in their shared code and that no screen here shows: icons with tooltips, tall tabs, rows that sort, batch and expand. */
const NEVER_SHOWN = [
  /^bx--(tooltip|btn--icon-only|icon-tooltip)/,
  /^bx--(parent-row|expandable-row|table-sort|table-expand|table-header|batch|action-list|toolbar|pagination|skeleton)/,
  /^bx--data-table--(?!compact)/,
  /^bx--data-table_(?!_)/,
  /^bx--tabs--(container|tall|full-width|dismissible|icon-only|light)/,
  /^bx--tabs__icon/,
  /^bx--(select|text-input|text-area|radio-button-wrapper|modal|popover)--(light|fluid|warning|warn|slug|label-left|inline|high-contrast|caret|xl)/,
  /^bx--(password|text-input--password|number|list-box|form--fluid|fieldset--readonly|text-input__readonly)/,
  /^flatpickr/
];

/** Tokens of Carbon that no rule uses. */
function withoutUnusedTokens(css: string): string {
  let result = css;
  for (let before = -1; before !== result.length;) {
    before = result.length;
    const used = new Set(result.match(/var\(\s*--cds-[\w-]+/g)?.map((v) => v.replace(/var\(\s*/, '')));
    result = result.replace(/(--cds-[\w-]+)\s*:[^;}]*;?/g, (definition, name: string) => (used.has(name) ? definition : ''));
  }
  return result;
}

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
        blocklist: NEVER_SHOWN,
        safelist: { standard: [/^(?!bx--|flatpickr)/, ...begun], deep: [], greedy: [], keyframes: [], variables: [] }
      });
      file.source = withoutUnusedTokens(purged.css);
    }
  }
};

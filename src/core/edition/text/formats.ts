import type { Inline } from '../../reading/rich-text.ts';
import { escapeXml } from '../../score/musicxml/escape.ts';
import type { TextBlock, TextPart } from './blocks.ts';

const bold = (i: Inline): boolean => i.type === 'text' && Boolean(i.marks?.some((m) => m.type === 'bold'));
const italic = (i: Inline): boolean => i.type === 'text' && Boolean(i.marks?.some((m) => m.type === 'italic'));

function inlineHtml(content: readonly Inline[] | undefined): string {
  return (content ?? [])
    .map((i) => {
      if (i.type === 'hardBreak') return '<br>';
      const text = escapeXml(i.text);
      const leaning = italic(i) ? `<em>${text}</em>` : text;
      return bold(i) ? `<strong>${leaning}</strong>` : leaning;
    })
    .join('');
}

function blockHtml(block: TextBlock): string {
  switch (block.type) {
    case 'paragraph':
      return `<p>${inlineHtml(block.content)}</p>`;
    case 'heading':
      return `<h${block.attrs.level + 1}>${inlineHtml(block.content)}</h${block.attrs.level + 1}>`;
    case 'blockquote':
      return `<blockquote>${block.content.map(blockHtml).join('')}</blockquote>`;
    case 'table': {
      const row = (cells: readonly string[], tag: string) => `<tr>${cells.map((c) => `<${tag}>${escapeXml(c)}</${tag}>`).join('')}</tr>`;
      return `<table>${block.head.length ? row(block.head, 'th') : ''}${block.rows.map((r) => row(r, 'td')).join('')}</table>`;
    }
    default: {
      const tag = block.type === 'orderedList' ? 'ol' : 'ul';
      return `<${tag}>${block.content.map((item) => `<li>${item.content.map(blockHtml).join('')}</li>`).join('')}</${tag}>`;
    }
  }
}

/** The text of an edition as one HTML document, with nothing in it that could run. */
export function textAsHtml(title: string, composer: string, parts: readonly TextPart[]): string {
  const body = parts.map((p) => `<section><h2>${escapeXml(p.title)}</h2>${p.blocks.map(blockHtml).join('\n')}</section>`).join('\n');
  return `<!doctype html>\n<html lang="en"><head><meta charset="utf-8"><title>${escapeXml(title)}</title></head>\n<body><h1>${escapeXml(title)}</h1>${composer ? `<p>${escapeXml(composer)}</p>` : ''}\n${body}\n</body></html>\n`;
}

/** Signs that Markdown would take for form stand with a backslash. CommonMark 0.31, 2.4. */
const markdownText = (text: string): string => text.replace(/[\\`*_[\]<>#|~]/g, '\\$&').replace(/\n/g, ' ');
/** A line must not begin like a list or a heading. */
const atStart = (text: string): string => text.replace(/^(\s*)(\d+)([.)])/, '$1$2\\$3').replace(/^(\s*)([-+])(\s)/, '$1\\$2$3');

function inlineMarkdown(content: readonly Inline[] | undefined): string {
  return (content ?? [])
    .map((i) => {
      if (i.type === 'hardBreak') return '  \n';
      // Blanks at the edges stay outside of the signs, which would not count beside them.
      const [, start, text, end] = /^(\s*)([\s\S]*?)(\s*)$/.exec(i.text)!;
      if (!text) return start + end;
      const sign = bold(i) && italic(i) ? '***' : bold(i) ? '**' : italic(i) ? '*' : '';
      return start + sign + markdownText(text) + sign + end;
    })
    .join('');
}

function blockMarkdown(block: TextBlock): string {
  switch (block.type) {
    case 'paragraph':
      return atStart(inlineMarkdown(block.content));
    case 'heading':
      return `${'#'.repeat(block.attrs.level + 1)} ${inlineMarkdown(block.content)}`;
    case 'blockquote':
      return block.content
        .map(blockMarkdown)
        .join('\n\n')
        .split('\n')
        .map((l) => `> ${l}`)
        .join('\n');
    case 'table': {
      const row = (cells: readonly string[]) => `| ${cells.map(markdownText).join(' | ')} |`;
      // A table of GFM needs a head, if an empty one.
      const head = block.head.length ? block.head : block.widths.map(() => '');
      return [row(head), `|${head.map(() => ' --- ').join('|')}|`, ...block.rows.map(row)].join('\n');
    }
    default:
      return block.content
        .map((item, k) => {
          const sign = block.type === 'orderedList' ? `${k + 1}. ` : '- ';
          return (
            sign +
            item.content
              .map(blockMarkdown)
              .join('\n\n')
              .split('\n')
              .join(`\n${' '.repeat(sign.length)}`)
          );
        })
        .join('\n');
  }
}

/** The text of an edition as Markdown (CommonMark; tables as in GFM). */
export const textAsMarkdown = (title: string, composer: string, parts: readonly TextPart[]): string =>
  `${[`# ${markdownText(title)}`, ...(composer ? [markdownText(composer)] : []), ...parts.flatMap((p) => [`## ${markdownText(p.title)}`, ...p.blocks.map(blockMarkdown)])].join('\n\n')}\n`;

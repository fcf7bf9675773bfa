/**
 * Text with a little form: paragraphs, headings, lists, quotations, bold and italic. Plain records in the shape that
 * the editor keeps; never markup, so that nothing in it can run.
 */
export interface TextSpan {
  type: 'text';
  text: string;
  marks?: { type: 'bold' | 'italic' }[];
}

export type Inline = TextSpan | { type: 'hardBreak' };

export interface ListItem {
  type: 'listItem';
  content: RichBlock[];
}

export type RichBlock =
  | { type: 'paragraph'; content?: Inline[] }
  | { type: 'heading'; attrs: { level: 2 | 3 }; content?: Inline[] }
  | { type: 'bulletList' | 'orderedList'; content: ListItem[] }
  | { type: 'blockquote'; content: RichBlock[] };

export interface RichText {
  type: 'doc';
  content: RichBlock[];
}

const inline = (text: string | Inline[]): Inline[] => (typeof text === 'string' ? (text ? [{ type: 'text', text }] : []) : text);

export const span = (text: string, ...marks: ('bold' | 'italic')[]): TextSpan =>
  marks.length ? { type: 'text', text, marks: marks.map((type) => ({ type })) } : { type: 'text', text };
export const paragraph = (text: string | Inline[]): RichBlock => ({ type: 'paragraph', content: inline(text) });
export const heading = (text: string, level: 2 | 3 = 2): RichBlock => ({ type: 'heading', attrs: { level }, content: inline(text) });
export const bullets = (items: readonly (string | Inline[])[]): RichBlock => ({
  type: 'bulletList',
  content: items.map((text) => ({ type: 'listItem', content: [paragraph(text)] }))
});

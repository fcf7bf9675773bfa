import type { AnySchema, ObjectSchema } from 'joi';
import type { SchemaKit } from '../schema-kit.ts';

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

/** Lists and quotations in each other, at most so deep. Set by hand: a preface needs two. */
const DEEPEST = 4;
const MOST_BLOCKS = 2000;

/** Schema of a text: only these kinds of blocks, so that nothing else is ever kept or shown. */
export function richTextSchema({ joi, oneOf, list, record }: SchemaKit): ObjectSchema<RichText> {
  const text = record(
    { type: oneOf(['text']), text: joi.string().max(20_000) },
    { marks: list(record({ type: oneOf(['bold', 'italic']) }), 2) }
  );
  const inlines = list(
    joi.alternatives().conditional('.type', { is: 'text', then: text, otherwise: record({ type: oneOf(['hardBreak']) }) }),
    MOST_BLOCKS
  );
  const blocks = (depth: number): AnySchema => {
    const of = (type: string, required: Record<string, AnySchema>, optional: Record<string, AnySchema> = {}) => ({
      is: type,
      then: record({ type: oneOf([type]), ...required }, optional)
    });
    const kinds = [
      of('paragraph', {}, { content: inlines }),
      of('heading', { attrs: record({ level: joi.number().valid(2, 3) }) }, { content: inlines })
    ];
    if (depth < DEEPEST) {
      const inner = blocks(depth + 1);
      const items = list(record({ type: oneOf(['listItem']), content: inner }), MOST_BLOCKS);
      kinds.push(of('bulletList', { content: items }), of('orderedList', { content: items }), of('blockquote', { content: inner }));
    }
    const otherwise = record({ type: oneOf(kinds.map((k) => k.is)) }).unknown();
    return list(joi.alternatives().conditional('.type', { switch: kinds, otherwise }), MOST_BLOCKS);
  };
  return record({ type: oneOf(['doc']), content: blocks(1) });
}

import type { RichBlock } from '../../../src/core/reading/rich-text.ts';

/** A block's text without its form. */
export const plainBlock = (block: RichBlock): string =>
  block.type === 'paragraph' || block.type === 'heading'
    ? (block.content ?? []).map((i) => (i.type === 'text' ? i.text : '\n')).join('')
    : block.content.map((b) => (b.type === 'listItem' ? b.content.map(plainBlock).join(' ') : plainBlock(b))).join('\n');

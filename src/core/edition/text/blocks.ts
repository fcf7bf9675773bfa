import type { RichBlock } from '../../reading/rich-text.ts';

/** A table as it stands in a critical report. */
export interface TableBlock {
  type: 'table';
  /** Empty where the columns need no names. */
  head: string[];
  rows: string[][];
  /** Shares of the width, summing to 1. */
  widths: number[];
}

export type TextBlock = RichBlock | TableBlock;

/** A part of an edition's text under its own title. */
export interface TextPart {
  title: string;
  blocks: TextBlock[];
}

/**
 * The page model: what stands where on a page, in points from its upper left corner. PDF, SVG and the preview are
 * drawn from the same pages, so that they agree.
 */
export type Face = 'roman' | 'italic' | 'bold' | 'bolditalic';

/** Width of a text in points. */
export type Measure = (text: string, face: Face | 'music', size: number) => number;

/** Something drawn: an outline with its stroke, a sign of the music font, or words. Lengths in the picture's own units. */
export type Stroke =
  | { kind: 'outline'; d: string; at: Matrix; fill: boolean; width: number; dash?: string; cap?: string; join?: string; editorial?: true }
  /** A sign by its code; its outline is among the picture's glyphs. */
  | { kind: 'glyph'; glyph: string; at: Matrix; editorial?: true }
  | { kind: 'words'; x: number; y: number; anchor: 'start' | 'middle' | 'end'; runs: WordRun[]; editorial?: true };

export interface WordRun {
  text: string;
  size: number;
  face: Face | 'music';
  /** Extra room after each sign. */
  spacing: number;
}

/** As in SVG: a b c d e f. */
export type Matrix = readonly [number, number, number, number, number, number];

/** An engraved system, footnote or sign. */
export interface Picture {
  /** In its own units. */
  width: number;
  height: number;
  /** How far to the right something is drawn. */
  drawn: number;
  strokes: Stroke[];
}

/** Outlines of the music font by code, as SVG paths with y upwards. */
export type Glyphs = Map<string, string>;

export type PageItem =
  | { kind: 'text'; x: number; y: number; text: string; face: Face; size: number; quiet?: true }
  /** `scale` is points to a unit of the picture. */
  | { kind: 'picture'; x: number; y: number; scale: number; picture: Picture }
  | { kind: 'rule'; x: number; y: number; width: number };

export interface Page {
  /** From 1. */
  number: number;
  width: number;
  height: number;
  items: PageItem[];
  /** Entries of the table of contents that begin on this page; level 0 or 1. */
  entries: { title: string; level: 0 | 1 }[];
}

import type { Marking } from '../markings/marking.ts';
import { ScoreError } from '../score/model.ts';
import { inflectionsOver } from './inflections.ts';
import { ossiaDocument, ossiaText, type Ossia } from '../reading/ossia.ts';
import { ossiaMei, type OssiaMei } from './ossia-mei.ts';
import { editionMei, staffNumber, type Frame, type RowEntry } from './mei.ts';
import { breakSystems, type SetChunk } from './systems.ts';

/** What is used of the engraver, wherever it runs. */
export interface Toolkit {
  setOptions(options: Record<string, unknown>): void;
  loadData(data: string): boolean;
  getMEI(): string;
  renderToSVG(page: number): string;
}

/** How music is engraved everywhere: on the screen, in the preview, in print and in the PDF. Lengths in the engraver's pixels. */
const ALWAYS = {
  pageHeight: 60_000,
  adjustPageHeight: true,
  header: 'none',
  footer: 'none',
  svgViewBox: true,
  pageMarginLeft: 50,
  pageMarginRight: 0
};

/** What differs between pictures. */
export interface Look {
  /** Width of the line in the engraver's units (pixels at scale 100). */
  pageWidth: number;
  /** Percent. */
  scale: number;
  /** Above and below the music. */
  margin: number;
  /** Share of the line that a last system must fill to be spread over it; 0 spreads it always. */
  lastFills: number;
  /** Transposing parts are drawn as they sound. */
  sounding?: boolean;
  /** Drawn again by our own drawer (paper) instead of being shown (screen). */
  raw?: boolean;
  /** The music font goes with the picture. */
  font?: 'embedded' | 'none';
  /** Where lines are broken: as the text says, where they are full, or nowhere. */
  breaks?: 'encoded' | 'auto' | 'none';
}

/** Share of a line from which its last system is spread over it; less stays short. Common practice. */
export const LAST_FILLS = 0.55;

/** Ossias whose encoding is remembered. */
const MOST_OSSIAS = 50;

/** One engraver and the one way from score and markings to pictures. */
export class Engraving {
  private readonly knownOssias = new Map<string, string>();

  constructor(private readonly toolkit: Toolkit) {}

  /** The MEI of a MusicXML document, without laying it out. @throws ScoreError when it cannot be read */
  mei(document: string): string {
    this.toolkit.setOptions({ ...ALWAYS, breaks: 'none', transposeToSoundingPitch: false });
    if (!this.toolkit.loadData(document)) throw new ScoreError('The engraver could not read this score');
    return this.toolkit.getMEI();
  }

  /**
   * Takes in the MEI of a chunk with markings and rows of analysis.
   * @param apart each system is a picture of its own
   * @returns draws the k-th picture, from 1, as SVG; good until something else is taken in
   */
  chunk(
    mei: string,
    frame: Frame,
    chunk: SetChunk,
    markings: readonly Marking[],
    rows: readonly RowEntry[],
    look: Look,
    apart: boolean,
    ossias: readonly Ossia[] = []
  ): (picture: number) => string {
    // Only a piece may end with a short line, not a chunk in its middle.
    const lastFills = chunk.to < frame.measures.length ? 0 : look.lastFills;
    const over = this.ossias(
      ossias.filter((o) => o.printed && o.from < chunk.to && o.to >= chunk.from && frame.parts.some((p) => p.index === o.part)),
      frame
    );
    const edited = editionMei(breakSystems(mei, chunk, apart ? 'pb' : 'sb'), frame, chunk, markings, rows, false, over);
    const draw = this.take(edited, { ...look, lastFills, pageWidth: look.pageWidth * (chunk.needs ?? 1) });
    const inflected = inflectionsOver(edited);
    return (picture) => inflected(draw(picture));
  }

  /** Ossias as they stand over their bars; each is looked at by the engraver once. */
  ossias(ossias: readonly Ossia[], frame: Frame): OssiaMei[] {
    return ossias.map((o) => {
      const text = ossiaText(o);
      const known = this.knownOssias.get(text) ?? this.mei(ossiaDocument(o));
      if (this.knownOssias.size >= MOST_OSSIAS) this.knownOssias.clear();
      this.knownOssias.set(text, known);
      return ossiaMei(known, { ...o, staff: staffNumber(frame, o.part, o.staff) });
    });
  }

  /** Takes in a document or MEI as it is. */
  take(
    data: string,
    { pageWidth, scale, margin, lastFills, sounding = false, raw = false, font, breaks = 'encoded' }: Look
  ): (picture: number) => string {
    this.toolkit.setOptions({
      ...ALWAYS,
      pageWidth: Math.round(pageWidth),
      scale,
      breaks,
      pageMarginTop: margin,
      pageMarginBottom: margin,
      minLastJustification: lastFills,
      transposeToSoundingPitch: sounding,
      svgFormatRaw: raw,
      ...(font ? { smuflTextFont: font } : {})
    });
    this.toolkit.loadData(data);
    return (picture) => this.toolkit.renderToSVG(picture);
  }
}

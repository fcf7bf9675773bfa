import createVerovioModule from 'verovio/wasm';
import { enableLog, LOG_OFF, VerovioToolkit } from 'verovio/esm';
import { decompress } from 'wawoff2';
import { chunkWriter } from '../../../../core/edition/chunk.ts';
import { editionMei, type RowEntry } from '../../../../core/edition/mei.ts';
import { breakSystems, planSystems } from '../../../../core/edition/systems.ts';
import type { Marking } from '../../../../core/reading/markings.ts';
import type { Score } from '../../../../core/score/model.ts';
import { measureAt } from '../../../../core/score/position.ts';

/** Engraver's pixels to a staff of four spaces at this scale (unit 9, eighteen units to a space). */
const SCALE = 40;
const STAFF_PIXELS = (4 * 18 * SCALE) / 100;
/** Note spaces that fit into 100 pixels of line, as on the screen. */
const SPACES_PER_100_PX = 5.4;

/** Some systems that stand together, as a picture. */
export interface EngravedBlock {
  svg: string;
  /** In points. */
  width: number;
  height: number;
  /** First measure, and the one after the last. */
  from: number;
  to: number;
}

/** What the engraver says in a stylesheet, said at the elements: a PDF knows no stylesheet. */
const withoutStylesheet = (svg: string): string =>
  svg
    .replace(/<style\b[\s\S]*?<\/style>/g, '')
    .replace(/ stroke-width="/g, ' stroke="#000000" stroke-width="')
    .replace(/<g ([^>]*class="(?:tempo|reh|ending|fing)\b)/g, '<g font-weight="bold" $1')
    .replace(/<g ([^>]*class="(?:dir|dynam|mNum)\b)/g, '<g font-style="italic" $1');

/**
 * A score with its editorial markings as systems of a width in points.
 * @param staff height of a staff in points
 * @returns the blocks, and the music font in which the engraver sets signs within words, as TrueType
 */
export async function engraveSystems(
  document: string,
  score: Score,
  markings: readonly Marking[],
  rows: readonly RowEntry[],
  phraseStarts: ReadonlySet<number>,
  width: number,
  staff: number,
  progress: (done: number, of: number) => void
): Promise<{ blocks: EngravedBlock[]; musicFont: Buffer | null }> {
  const module = await createVerovioModule();
  enableLog(LOG_OFF, module);
  const engraver = new VerovioToolkit(module);
  const perPixel = staff / STAFF_PIXELS;
  const pixels = width / perPixel;
  const chunks = planSystems(score, (pixels / 100) * SPACES_PER_100_PX, phraseStarts);
  const write = chunkWriter(document, score);
  const frame = { measures: score.measures, parts: score.parts.map(({ index, staves }) => ({ index, staves })) };
  const common = {
    pageWidth: Math.round((pixels * 100) / SCALE),
    pageHeight: 60_000,
    adjustPageHeight: true,
    scale: SCALE,
    breaks: 'encoded',
    header: 'none',
    footer: 'none',
    svgViewBox: true,
    pageMarginTop: 30,
    pageMarginBottom: 30,
    pageMarginLeft: 50,
    pageMarginRight: 0
  } as const;
  let musicFont: Buffer | null = null;
  const blocks = chunks.map((chunk) => {
    progress(chunk.from, score.measures.length);
    // Only the last line of the piece may stay short.
    engraver.setOptions({
      ...common,
      minLastJustification: chunk.to === score.measures.length ? 0.55 : 0,
      smuflTextFont: musicFont ? 'linked' : 'embedded'
    });
    engraver.loadData(write(chunk));
    const mei = engraver.getMEI();
    const within = (start: Marking['start']): boolean => {
      const { index } = measureAt(score, start);
      return index >= chunk.from && index < chunk.to;
    };
    engraver.loadData(
      editionMei(
        breakSystems(mei, chunk),
        frame,
        chunk,
        markings.filter((m) => within(m.start)),
        rows.filter((r) => within(r.start))
      )
    );
    const svg = engraver.renderToSVG(1);
    const font = musicFont ? null : /base64,([A-Za-z0-9+/=]+)/.exec(svg);
    if (font) musicFont = Buffer.from(font[1], 'base64');
    const box = /viewBox="0 0 ([\d.]+) ([\d.]+)"/.exec(svg)!;
    return {
      svg: withoutStylesheet(svg),
      width: Number(box[1]) * perPixel,
      height: Number(box[2]) * perPixel,
      from: chunk.from,
      to: chunk.to
    };
  });
  return { blocks, musicFont: musicFont && Buffer.from(await decompress(musicFont)) };
}

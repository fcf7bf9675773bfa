import createVerovioModule from 'verovio/wasm';
import { enableLog, LOG_OFF, VerovioToolkit } from 'verovio/esm';
import { Engraving, LAST_FILLS, type Look } from '../../../../core/edition/engraving.ts';
import type { Frame, RowEntry } from '../../../../core/edition/mei.ts';
import type { SetChunk } from '../../../../core/edition/systems.ts';
import type { Ossia } from '../../../../core/reading/ossia.ts';
import type { Marking } from '../../../../core/markings/marking.ts';

/** Engraver's pixels to a staff of four spaces at this scale (unit 9, eighteen units to a space). */
const SCALE = 40;
const STAFF_PIXELS = (4 * 18 * SCALE) / 100;
/** Note spaces that fit into 100 pixels of line, as on the screen. */
const SPACES_PER_100_PX = 5.4;
/** Units of the engraver's pictures to a pixel at scale 100. */
const UNITS = 10;
/** Room above and below a system on paper, where systems are set apart by the page. */
const MARGIN = 4;
/** A line that stands alone at the foot is spread only where it is nearly full. */
const ALONE_FILLS = 0.9;

/** The engraver, set for pictures of a line's width. */
export interface LineEngraver {
  /** Note spaces on a line. */
  capacity: number;
  /** Points to a unit of its pictures. */
  perUnit: number;
  /** The music font as WOFF2 in base64, once a picture has been drawn. */
  musicFont: () => string | null;
  /** The MEI of a MusicXML document, without laying it out. */
  mei: (document: string) => string;
  /** The systems of a chunk, each drawn by its number from 1. @param ragged the last line may stay short */
  systems: (
    mei: string,
    frame: Frame,
    chunk: SetChunk,
    markings: readonly Marking[],
    rows: readonly RowEntry[],
    ragged: boolean,
    ossias: readonly Ossia[]
  ) => (system: number) => string;
  /** A small document as one picture, its lines broken where they are full. */
  alone: (document: string) => string;
}

let started: Promise<Engraving> | null = null;

/** The engraver's tool, started once. */
export const openTool = (): Promise<Engraving> =>
  (started ??= createVerovioModule().then((module) => {
    enableLog(LOG_OFF, module);
    return new Engraving(new VerovioToolkit(module));
  }));

/** The MEI that the engraver makes of a MusicXML document. @throws ScoreError when it cannot read it. */
export const meiOf = async (document: string): Promise<string> => (await openTool()).mei(document);

/** The music font that a picture brings along, as WOFF2 in base64. */
const fontIn = (svg: string): string | null => /base64,([A-Za-z0-9+/=]+)/.exec(svg)?.[1] ?? null;

/** Starts the engraver; every line width that is asked for shares it. */
export async function openEngraver(): Promise<(width: number, staff: number) => LineEngraver> {
  const engraving = await openTool();
  let font: string | null = null;
  return (width, staff) => {
    const perPixel = staff / STAFF_PIXELS;
    const pixels = width / perPixel;
    const look: Look = { pageWidth: (pixels * 100) / SCALE, scale: SCALE, margin: MARGIN, lastFills: 0, raw: true, font: 'none' };
    return {
      capacity: (pixels / 100) * SPACES_PER_100_PX,
      perUnit: (perPixel * SCALE) / 100 / UNITS,
      musicFont: () => font,
      mei: (document) => engraving.mei(document),
      systems(mei, frame, chunk, markings, rows, ragged, ossias) {
        // The font comes with the first picture of all.
        const own: Look = { ...look, lastFills: ragged ? LAST_FILLS : 0, font: font ? 'none' : 'embedded' };
        const draw = engraving.chunk(mei, frame, chunk, markings, rows, own, true, ossias);
        return (system) => {
          const svg = draw(system);
          font ??= fontIn(svg);
          return svg;
        };
      },
      alone(document) {
        const svg = engraving.take(document, { ...look, breaks: 'auto', lastFills: ALONE_FILLS, font: font ? 'none' : 'embedded' })(1);
        font ??= fontIn(svg);
        return svg;
      }
    };
  };
}

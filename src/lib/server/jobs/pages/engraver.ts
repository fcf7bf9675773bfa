import createVerovioModule from 'verovio/wasm';
import { enableLog, LOG_OFF, VerovioToolkit } from 'verovio/esm';
import { ScoreError } from '../../../../core/score/model.ts';

/** Engraver's pixels to a staff of four spaces at this scale (unit 9, eighteen units to a space). */
const SCALE = 40;
const STAFF_PIXELS = (4 * 18 * SCALE) / 100;
/** Note spaces that fit into 100 pixels of line, as on the screen. */
const SPACES_PER_100_PX = 5.4;
/** Units of the engraver's pictures to a pixel at scale 100. */
const UNITS = 10;

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
  /** Loads MEI whose page breaks divide it into pictures. @param ragged the last line may stay short */
  load: (mei: string, ragged: boolean) => void;
  svg: (page: number) => string;
  /** A small document as one picture, its lines broken where they are full. */
  alone: (document: string) => string;
}

let started: Promise<VerovioToolkit> | null = null;

/** The engraver's tool, started once. */
const tool = (): Promise<VerovioToolkit> =>
  (started ??= createVerovioModule().then((module) => {
    enableLog(LOG_OFF, module);
    return new VerovioToolkit(module);
  }));

/** The MEI that the engraver makes of a MusicXML document. @throws ScoreError when it cannot read it. */
export async function meiOf(document: string): Promise<string> {
  const toolkit = await tool();
  toolkit.setOptions({ breaks: 'none' });
  if (!toolkit.loadData(document)) throw new ScoreError('The engraver could not read this score');
  return toolkit.getMEI();
}

/** Starts the engraver; every line width that is asked for shares it. */
export async function openEngraver(): Promise<(width: number, staff: number) => LineEngraver> {
  const toolkit = await tool();
  let font: string | null = null;
  return (width, staff) => {
    const perPixel = staff / STAFF_PIXELS;
    const pixels = width / perPixel;
    const set = (more: object): void =>
      toolkit.setOptions({
        pageWidth: Math.round((pixels * 100) / SCALE),
        pageHeight: 60_000,
        adjustPageHeight: true,
        scale: SCALE,
        header: 'none',
        footer: 'none',
        svgViewBox: true,
        svgFormatRaw: true,
        pageMarginTop: 4,
        pageMarginBottom: 4,
        pageMarginLeft: 50,
        pageMarginRight: 0,
        ...more
      });
    return {
      capacity: (pixels / 100) * SPACES_PER_100_PX,
      perUnit: (perPixel * SCALE) / 100 / UNITS,
      musicFont: () => font,
      mei(document) {
        set({ breaks: 'none' });
        toolkit.loadData(document);
        return toolkit.getMEI();
      },
      load(mei, ragged) {
        set({ breaks: 'encoded', minLastJustification: ragged ? 0.55 : 0, smuflTextFont: font ? 'none' : 'embedded' });
        toolkit.loadData(mei);
      },
      svg(page) {
        const svg = toolkit.renderToSVG(page);
        font ??= /base64,([A-Za-z0-9+/=]+)/.exec(svg)?.[1] ?? null;
        return svg;
      },
      alone(document) {
        set({ breaks: 'auto', minLastJustification: 0.9, smuflTextFont: 'none' });
        toolkit.loadData(document);
        return toolkit.renderToSVG(1);
      }
    };
  };
}

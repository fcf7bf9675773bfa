import createVerovioModule from 'verovio/wasm';
import { enableLog, LOG_OFF, VerovioToolkit } from 'verovio/esm';
import { editionMei, type Frame, type RowEntry } from '$core/edition/mei';
import { breakSystems, type SetChunk } from '$core/edition/systems';
import type { Marking } from '$core/markings/marking';

export interface EngraveOptions {
  /** Width of the line in the engraver's units (tenths of a staff space at scale 100). */
  pageWidth: number;
  scale: number;
  /** Transposing parts are drawn as they sound. */
  sounding: boolean;
  /** Counts the pictures of one score, so that what was drawn of an earlier one is drawn again. */
  version: number;
}

export type EngraverRequest =
  | { type: 'open'; frame: Frame }
  | {
      type: 'engrave';
      number: number;
      chunk: SetChunk;
      /** The chunk's MusicXML; only for the first time, afterwards its MEI is known here. */
      document: string | null;
      options: EngraveOptions;
      markings: Marking[];
      rows: RowEntry[];
    };

export type EngraverAnswer = { type: 'engraved'; number: number; svg: string } | { type: 'failed'; number: number; message: string };

let frame: Frame = { measures: [], parts: [] };
/** A few bars of two-staff music, engraved before anything is asked for: the first engraving of all is slow. */
function warmUp(engraver: VerovioToolkit): void {
  const note = (staff: number, k: number) =>
    `<note><pitch><step>${'CEGB'[k % 4]}</step><octave>${6 - staff}</octave></pitch><duration>1</duration><voice>${staff}</voice><type>16th</type><staff>${staff}</staff></note>`;
  const staff = (n: number) => Array.from({ length: 16 }, (_, k) => note(n, k)).join('');
  const bars = [1, 2, 3, 4].map(
    (n) =>
      `<measure number="${n}">${n === 1 ? '<attributes><divisions>4</divisions><staves>2</staves><clef number="1"><sign>G</sign><line>2</line></clef><clef number="2"><sign>F</sign><line>4</line></clef></attributes>' : ''}${staff(1)}<backup><duration>16</duration></backup>${staff(2)}</measure>`
  );
  engraver.loadData(
    `<score-partwise><part-list><score-part id="P1"><part-name/></score-part></part-list><part id="P1">${bars.join('')}</part></score-partwise>`
  );
  engraver.loadData(engraver.getMEI());
  engraver.renderToSVG(1);
}

const known = new Map<string, string>();
const toolkit = createVerovioModule().then((module) => {
  enableLog(LOG_OFF, module);
  const engraver = new VerovioToolkit(module);
  warmUp(engraver);
  return engraver;
});

self.onmessage = async ({ data }: MessageEvent<EngraverRequest>) => {
  if (data.type === 'open') {
    frame = data.frame;
    known.clear();
    return;
  }
  const { number, chunk, document, options, markings, rows } = data;
  try {
    const engraver = await toolkit;
    engraver.setOptions({
      pageWidth: options.pageWidth,
      pageHeight: 60000,
      adjustPageHeight: true,
      scale: options.scale,
      breaks: 'encoded',
      header: 'none',
      footer: 'none',
      svgViewBox: true,
      minLastJustification: 0.55,
      pageMarginTop: 30,
      pageMarginBottom: 30,
      pageMarginLeft: 50,
      pageMarginRight: 0
    });
    const key = `${chunk.from}-${chunk.to}`;
    if (document !== null) {
      engraver.setOptions({ transposeToSoundingPitch: false });
      engraver.loadData(document);
      known.set(key, engraver.getMEI());
    }
    engraver.setOptions({ transposeToSoundingPitch: options.sounding });
    engraver.loadData(editionMei(breakSystems(known.get(key)!, chunk), frame, chunk, markings, rows));
    answer({ type: 'engraved', number, svg: engraver.renderToSVG(1) });
  } catch (error) {
    answer({ type: 'failed', number, message: error instanceof Error ? error.message : String(error) });
  }
};

const answer = (message: EngraverAnswer) => self.postMessage(message);

import createVerovioModule from 'verovio/wasm';
import { enableLog, LOG_OFF, VerovioToolkit } from 'verovio/esm';
import { chunkWriter, type Chunk } from '$core/edition/chunk';
import { editionMei, type RowEntry } from '$core/edition/mei';
import { breakSystems, type SetChunk } from '$core/edition/systems';
import type { Marking } from '$core/reading/markings';
import type { Score } from '$core/score/model';
import { readMusicXml } from '$core/score/musicxml/read';

export interface EngraveOptions {
  /** Width of the line in the engraver's units (tenths of a staff space at scale 100). */
  pageWidth: number;
  scale: number;
}

export type EngraverRequest =
  | { type: 'open'; document: string }
  | { type: 'engrave'; number: number; chunk: SetChunk; options: EngraveOptions; markings: Marking[]; rows: RowEntry[] };

export type EngraverAnswer = { type: 'engraved'; number: number; svg: string } | { type: 'failed'; number: number; message: string };

let open: { score: Score; write: (chunk: Chunk) => string; mei: Map<string, string> } | null = null;
const toolkit = createVerovioModule().then((module) => {
  enableLog(LOG_OFF, module);
  return new VerovioToolkit(module);
});

self.onmessage = async ({ data }: MessageEvent<EngraverRequest>) => {
  if (data.type === 'open') {
    const score = readMusicXml(data.document);
    open = { score, write: chunkWriter(data.document, score), mei: new Map() };
    return;
  }
  const { number, chunk, options, markings, rows } = data;
  try {
    const engraver = await toolkit;
    if (!open) throw new Error('no score is open');
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
      pageMarginRight: 0,
      svgHtml5: false
    });
    const key = `${chunk.from}-${chunk.to}`;
    let mei = open.mei.get(key);
    if (mei === undefined) {
      engraver.loadData(open.write(chunk));
      mei = engraver.getMEI();
      open.mei.set(key, mei);
    }
    engraver.loadData(editionMei(breakSystems(mei, chunk), open.score, chunk, markings, rows));
    answer({ type: 'engraved', number, svg: engraver.renderToSVG(1) });
  } catch (error) {
    answer({ type: 'failed', number, message: error instanceof Error ? error.message : String(error) });
  }
};

const answer = (message: EngraverAnswer) => self.postMessage(message);

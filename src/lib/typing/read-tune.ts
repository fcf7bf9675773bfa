import { parseAbc } from '$core/score/abc/parse';
import { fromTune } from '$core/writing/from-tune';
import { barFaults } from '$core/writing/written';
import { readAbc } from '$core/score/abc/read';
import { ScoreError, type Score } from '$core/score/model';
import { readMusicXml } from '$core/score/musicxml/read';

export type TuneReading =
  | { ok: true; document: string; score: Score; /** Bars that do not add up, in sentences. */ faults: string[] }
  | {
      ok: false;
      message: string;
      /** Offset of the fault in the text, and the line it stands in; null when it has no place. */
      at: { offset: number; line: number; column: number; text: string } | null;
    };

/** Reads a typed tune; a fault comes with its character. */
export function readTune(text: string): TuneReading {
  try {
    const document = readAbc(text);
    const written = fromTune(parseAbc(text))?.written;
    const faults = written ? written.bars.flatMap((_, k) => barFaults(written, k)) : [];
    return { ok: true, document, score: readMusicXml(document), faults };
  } catch (error) {
    if (!(error instanceof ScoreError)) throw error;
    const { line, column } = error.place;
    if (!line) return { ok: false, message: error.message, at: null };
    const lines = text.split('\n');
    const offset = lines.slice(0, line - 1).reduce((sum, l) => sum + l.length + 1, 0) + (column ?? 1) - 1;
    return { ok: false, message: error.message, at: { offset, line, column: column ?? 1, text: lines[line - 1] ?? '' } };
  }
}

export const EXAMPLE = `X:1
T:Untitled étude
C:
M:4/4
L:1/8
Q:1/4=84
K:G
(G2 AB c2) d2 | (e3 d c2) B2 | !<(!(A2 Bc d2)!<)! e2 | d6 z2 |]
`;

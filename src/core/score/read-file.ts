import { readAbc } from './abc/read.ts';
import { decodeText } from './bytes.ts';
import { isZip, MAX_TEXT_BYTES, unpackMxl } from './container.ts';
import { ScoreError, type Score } from './model.ts';
import { readMusicXml } from './musicxml/read.ts';

export interface OpenedScore {
  /** The source's own document as text, in which all text spans of the score count. */
  text: string;
  /** "musicxml" is the file's own text; from "abc" the text was written by the reader. */
  format: 'musicxml' | 'abc';
  score: Score;
}

/**
 * The MusicXML document inside the bytes of a file: plain or compressed MusicXML, or ABC turned into it.
 * @throws ScoreError with one sentence saying what is wrong and where.
 */
export function documentOf(bytes: Uint8Array, fileName: string): { text: string; format: OpenedScore['format'] } {
  if (bytes.length === 0) throw new ScoreError('The file is empty');
  if (bytes.length > MAX_TEXT_BYTES) throw new ScoreError('The file is larger than any score needs');
  const text = decodeText(isZip(bytes) ? unpackMxl(bytes) : bytes);
  if (/^\s*</.test(text)) return { text, format: 'musicxml' };
  if (/\.abc$/i.test(fileName) || /^(%abc|X:\s*\d)/m.test(text)) return { text: readAbc(text), format: 'abc' };
  throw new ScoreError('This is neither MusicXML nor ABC');
}

/** Reads the bytes of a file into a score. @throws ScoreError */
export function openScore(bytes: Uint8Array, fileName: string): OpenedScore {
  const { text, format } = documentOf(bytes, fileName);
  return { text, format, score: readMusicXml(text) };
}

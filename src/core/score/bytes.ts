import { ScoreError } from './model.ts';

/** First bytes of files that are no scores, and what can be done with them. */
const OTHER_FILES: [string, string][] = [
  ['MThd', 'This is a MIDI file: bring it in under Write, where it can be looked at before it is taken'],
  ['%PDF', 'This is a PDF, a picture of a page: lay it beside you and write the score under Write'],
  ['\x89PNG', 'This is a picture: lay the page beside you and write the score under Write'],
  ['\xff\xd8\xff', 'This is a picture: lay the page beside you and write the score under Write']
];
const beginsWith = (bytes: Uint8Array, sign: string): boolean => [...sign].every((c, k) => bytes[k] === c.charCodeAt(0));

/**
 * Decodes the bytes of a text file. A byte-order mark outweighs the XML declaration; without either
 * the text is UTF-8. The mark itself is not part of the text.
 * @throws ScoreError when the declared encoding is unknown or the bytes are no text.
 */
export function decodeText(bytes: Uint8Array): string {
  for (const [sign, sentence] of OTHER_FILES) if (beginsWith(bytes, sign)) throw new ScoreError(sentence);
  const text = new TextDecoder(encodingOf(bytes), { ignoreBOM: false }).decode(bytes);
  if (text.includes('\0')) throw new ScoreError('This is not a score file: it holds binary data');
  return text;
}

function encodingOf(bytes: Uint8Array): string {
  const [a, b, c, d] = bytes;
  if (a === 0xef && b === 0xbb && c === 0xbf) return 'utf-8';
  if (a === 0xff && b === 0xfe) return 'utf-16le';
  if (a === 0xfe && b === 0xff) return 'utf-16be';
  if (a === 0x3c && b === 0 && d === 0) return 'utf-16le';
  if (a === 0 && b === 0x3c && c === 0) return 'utf-16be';
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 200));
  const declared = /^\s*<\?xml[^>]*?encoding\s*=\s*["']([\w.:-]+)["']/.exec(head)?.[1].toLowerCase();
  // The bytes were seen to be single-byte, so a declaration of UTF-16 is a leftover of a conversion.
  if (!declared || declared.startsWith('utf-16') || declared === 'utf-8') return isUtf8(bytes) ? 'utf-8' : 'windows-1252';
  try {
    return new TextDecoder(declared).encoding;
  } catch {
    throw new ScoreError(`The file says that it is encoded as "${declared}", which is not known here`, { line: 1 });
  }
}

function isUtf8(bytes: Uint8Array): boolean {
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return true;
  } catch {
    return false;
  }
}

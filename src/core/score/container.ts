import { Unzip, UnzipInflate, unzipSync, type UnzipFileInfo } from 'fflate';
import { ScoreError } from './model.ts';
import { decodeText } from './bytes.ts';

/** Largest score text that is unpacked; the largest real scores stay well below it. */
export const MAX_TEXT_BYTES = 64 * 1024 * 1024;

export const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;

/**
 * The score inside a compressed MusicXML file (.mxl): the first root file that its container names.
 * Nothing is written anywhere, so entry names cannot lead out of the archive.
 * @throws ScoreError when the archive is damaged, holds no score or unpacks to an absurd size.
 */
export function unpackMxl(bytes: Uint8Array): Uint8Array {
  const sizes = new Map<string, number>();
  const list = (file: UnzipFileInfo): boolean => {
    sizes.set(file.name, file.originalSize);
    return false;
  };
  damaged(() => unzipSync(bytes, { filter: list }));
  const names = [...sizes.keys()];
  const container = names.includes('META-INF/container.xml') ? extract(bytes, 'META-INF/container.xml') : null;
  const named = container ? /<rootfile\b[^>]*?full-path\s*=\s*["']([^"']+)["']/.exec(decodeText(container))?.[1] : undefined;
  if (named && /^\/|\\|(^|\/)\.\.(\/|$)/.test(named)) throw new ScoreError('The container of the compressed file points outside it');
  const fallback = names.find((n) => /\.(musicxml|xml)$/i.test(n) && !n.startsWith('META-INF/'));
  const root = named && names.includes(named) ? named : fallback;
  if (!root) throw new ScoreError('The compressed file holds no MusicXML score');
  if (sizes.get(root)! > MAX_TEXT_BYTES) throw new ScoreError(TOO_MUCH);
  return extract(bytes, root);
}

/** Bytes that are unpacked in one go: what they may grow to stays small. */
const STEP = 64 * 1024;

/** Unpacks one file as a stream, and no more of it than a score may have: its headers may say what they like. */
function extract(bytes: Uint8Array, name: string): Uint8Array {
  const parts: Uint8Array[] = [];
  let size = 0;
  let whole = false;
  const archive = new Unzip((file) => {
    if (file.name !== name || whole) return;
    file.ondata = (error, part, final) => {
      if (error) throw error;
      size += part.length;
      if (size > MAX_TEXT_BYTES) throw new ScoreError(TOO_MUCH);
      parts.push(part);
      whole ||= final;
    };
    file.start();
  });
  archive.register(UnzipInflate);
  damaged(() => {
    for (let at = 0; at < bytes.length && !whole; at += STEP) archive.push(bytes.subarray(at, at + STEP), at + STEP >= bytes.length);
  });
  if (!whole) throw new ScoreError(DAMAGED);
  const text = new Uint8Array(size);
  let at = 0;
  for (const part of parts) {
    text.set(part, at);
    at += part.length;
  }
  return text;
}

const TOO_MUCH = 'The compressed file unpacks to more than any score needs';
const DAMAGED = 'The compressed file is damaged and cannot be unpacked';

/** What the archive's reader stumbles over is damage. */
function damaged<T>(work: () => T): T {
  try {
    return work();
  } catch (error) {
    throw error instanceof ScoreError ? error : new ScoreError(DAMAGED);
  }
}

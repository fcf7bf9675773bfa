import { unzipSync, type UnzipFileInfo } from 'fflate';
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
  const names: string[] = [];
  const list = (file: UnzipFileInfo): boolean => {
    names.push(file.name);
    return false;
  };
  unzip(bytes, list);
  const container = names.includes('META-INF/container.xml') ? extract(bytes, 'META-INF/container.xml') : null;
  const named = container ? /<rootfile\b[^>]*?full-path\s*=\s*["']([^"']+)["']/.exec(decodeText(container))?.[1] : undefined;
  const fallback = names.find((n) => /\.(musicxml|xml)$/i.test(n) && !n.startsWith('META-INF/'));
  const root = named && names.includes(named) ? named : fallback;
  if (!root) throw new ScoreError('The compressed file holds no MusicXML score');
  return extract(bytes, root);
}

function extract(bytes: Uint8Array, name: string): Uint8Array {
  const files = unzip(bytes, (file) => {
    if (file.name !== name) return false;
    if (file.originalSize > MAX_TEXT_BYTES) throw new ScoreError('The compressed file unpacks to more than any score needs');
    return true;
  });
  return files[name];
}

function unzip(bytes: Uint8Array, filter: (file: UnzipFileInfo) => boolean): Record<string, Uint8Array> {
  try {
    return unzipSync(bytes, { filter });
  } catch (error) {
    if (error instanceof ScoreError) throw error;
    throw new ScoreError('The compressed file is damaged and cannot be unpacked');
  }
}

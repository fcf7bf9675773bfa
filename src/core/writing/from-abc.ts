import { parseAbc } from '../score/abc/parse.ts';
import { readMusicXml } from '../score/musicxml/read.ts';
import { fromTune, withIdsOf } from './from-tune.ts';
import type { Written } from './written.ts';

/**
 * A typed tune as a written score whose notes have the ids of its document.
 * @returns null where the writing room cannot hold it whole: several parts, more than two voices on a staff, chord symbols
 */
export function writtenFromAbc(bytes: Uint8Array, document: string): Written | null {
  const taken = fromTune(parseAbc(new TextDecoder().decode(bytes)));
  return taken && !taken.lost.length ? withIdsOf(taken.written, readMusicXml(document)) : null;
}

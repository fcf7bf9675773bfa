import { parseAbc } from './parse.ts';
import { writeAbcTune } from './write.ts';

/**
 * Turns the first tune of an ABC 2.1 text into a MusicXML document.
 * @throws ScoreError with line and character when something cannot be read.
 */
export const readAbc = (source: string): string => writeAbcTune(parseAbc(source));

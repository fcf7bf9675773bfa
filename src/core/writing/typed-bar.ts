import { parseAbc } from '../score/abc/parse.ts';
import { ScoreError } from '../score/model.ts';
import { fifthsName } from '../score/pitch.ts';
import { fromTune } from './from-tune.ts';
import { keyAt, meterAt, type Sound, type Written } from './written.ts';

/** Letters of a key as ABC has them (ABC 2.1, section 3.1.14). */
const keyField = ({ fifths, mode }: Written['head']['key']): string =>
  mode === 'minor' ? `${fifthsName(fifths + 3)}m` : fifthsName(fifths);

/**
 * One bar of one voice typed as ABC, its unit an eighth.
 * @returns its sounds, or what is wrong in a sentence and where (0-based character)
 */
export function typedBar(w: Written, bar: number, text: string): { sounds: Sound[] } | { fault: string; at: number | null } {
  const line = text.trim().replace(/\|\]?$/, '');
  if (/[|\n]/.test(line)) return { fault: 'Only one bar is typed here.', at: line.search(/[|\n]/) };
  try {
    const tune = parseAbc(`X:1\nM:${meterAt(w, bar) || 'none'}\nL:1/8\nK:${keyField(keyAt(w, bar))}\n${line}|`);
    const taken = fromTune(tune);
    if (!taken || taken.written.lanes.length > 1) return { fault: 'Only one voice is typed here.', at: null };
    if (taken.lost.length) return { fault: `The writing room does not take ${taken.lost[0].replace(/^bar \d+: /, '')}.`, at: null };
    return { sounds: taken.written.bars[0].lanes[0] };
  } catch (error) {
    if (!(error instanceof ScoreError)) throw error;
    const column = error.place.line === 5 ? (error.place.column ?? null) : null;
    return {
      fault: error.message.replace(/ \([^()]*\)\.$/, column === null ? '.' : ` (character ${column}).`),
      at: column === null ? null : column - 1
    };
  }
}

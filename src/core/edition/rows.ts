import { inSigns } from '../analysis/words.ts';
import type { Facts, KeyFact } from '../analysis/facts.ts';
import type { StreamFact } from '../analysis/streams.ts';
import type { VoiceName } from '../analysis/roles.ts';
import { countLine } from '../survey/count-line.ts';
import type { RowEntry } from './mei.ts';
import { add, frac, lte, sub } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';

const SIXTEENTH = frac(1, 4);

/** Which rows of analysis stand on the page. */
export interface ShownRows {
  chords: boolean;
  keys: boolean;
  /** Signs at both ends, or brackets over the whole phrase where a page is drawn in one. */
  phrases?: boolean | 'brackets';
  rhythm?: boolean;
  count?: boolean;
}

/** Signs of the voices that a line holds, so that no colour is needed to tell them apart. */
export const VOICE_SIGNS: Record<VoiceName, string> = { upper: '˄', middle: '–', lower: '˅' };

/** A row of signs above the staff: to which of its voices each note of a line belongs. */
export function voiceRow(score: Score, streams: readonly StreamFact[]): RowEntry[] {
  const starts = new Map(score.notes.map((n) => [n.id, n.start]));
  return streams.flatMap((f) =>
    f.streams.flatMap((s) =>
      s.notes.flatMap((id): RowEntry[] => {
        const start = starts.get(id);
        return start ? [{ id: `voice-${id}`, start, text: VOICE_SIGNS[s.name], row: 'voices' }] : [];
      })
    )
  );
}

/** Rows of analysis for the page: chords, harmonic rhythm and count below, keys and phrases above; `keyName` names a key as the page shows it. */
export function analysisRows(score: Score, facts: Facts, show: ShownRows, keyName: (k: KeyFact) => string, part = 0): RowEntry[] {
  const rows: RowEntry[] = [];
  if (show.chords)
    for (const c of facts.chords) rows.push({ id: c.id, start: c.start, text: inSigns(c.roman) + (c.pinned ? '●' : ''), row: 'chords' });
  if (show.keys) for (const k of facts.keys) rows.push({ id: k.id, start: k.start, text: keyName(k) + (k.pinned ? '●' : ''), row: 'keys' });
  if (show.phrases) {
    facts.phrases.forEach((p, k) => {
      if (show.phrases === 'brackets') {
        rows.push({ id: `row-${p.id}`, start: p.start, until: p.last, text: `phrase ${k + 1}`, row: 'phrases' });
        return;
      }
      rows.push({ id: `row-${p.id}`, start: p.start, text: `⌜${k + 1}`, row: 'phrases' });
      rows.push({ id: `row-${p.id}-end`, start: p.last, text: '⌝', row: 'phrases' });
    });
  }
  if (show.rhythm) for (const c of facts.chords) rows.push({ id: `row-${c.id}`, start: c.start, text: '|', row: 'rhythm' });
  if (show.count)
    for (const m of score.measures)
      countLine(score, m, part).forEach((s, k, all) => {
        const next = all[k + 1];
        // A held part of the beat has no room beside what enters a sixteenth later.
        if (!s.entry && next?.entry && lte(sub(next.onset, s.onset), SIXTEENTH)) return;
        rows.push({ id: `count-${m.index}-${k}`, start: add(m.start, s.onset), text: s.entry ? s.text : `(${s.text})`, row: 'count' });
      });
  return rows;
}

import type { Facts, KeyFact } from '$core/analysis/facts';
import { countLine } from '$core/survey/count-line';
import type { RowEntry } from '$core/edition/mei';
import { add } from '$core/score/fraction';
import type { Score } from '$core/score/model';

/** Which rows of analysis stand on the page. */
export interface ShownRows {
  chords: boolean;
  keys: boolean;
  phrases?: boolean;
  rhythm?: boolean;
  count?: boolean;
}

/** Rows of analysis for the page: chords, harmonic rhythm and count below, keys and phrases above; `keyName` names a key as the page shows it. */
export function analysisRows(score: Score, facts: Facts, show: ShownRows, keyName: (k: KeyFact) => string, part = 0): RowEntry[] {
  const rows: RowEntry[] = [];
  if (show.chords)
    for (const c of facts.chords) rows.push({ id: c.id, start: c.start, text: c.roman + (c.pinned ? '●' : ''), row: 'chords' });
  if (show.keys) for (const k of facts.keys) rows.push({ id: k.id, start: k.start, text: keyName(k) + (k.pinned ? '●' : ''), row: 'keys' });
  if (show.phrases) {
    facts.phrases.forEach((p, k) => {
      rows.push({ id: `row-${p.id}`, start: p.start, text: `⌜${k + 1}`, row: 'phrases' });
      rows.push({ id: `row-${p.id}-end`, start: p.last, text: '⌝', row: 'phrases' });
    });
  }
  if (show.rhythm) for (const c of facts.chords) rows.push({ id: `row-${c.id}`, start: c.start, text: '▲', row: 'rhythm' });
  if (show.count)
    for (const m of score.measures)
      countLine(score, m, part).forEach((s, k) =>
        rows.push({ id: `count-${m.index}-${k}`, start: add(m.start, s.onset), text: s.entry ? s.text : `(${s.text})`, row: 'count' })
      );
  return rows;
}

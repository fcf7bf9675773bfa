import type { Facts, KeyFact } from '$core/analysis/facts';
import type { RowEntry } from '$core/edition/mei';

/** Rows of analysis for the page: chords below, keys above; `keyName` names a key as the page shows it. */
export function analysisRows(facts: Facts, show: { chords: boolean; keys: boolean }, keyName: (k: KeyFact) => string): RowEntry[] {
  const rows: RowEntry[] = [];
  if (show.chords)
    for (const c of facts.chords) rows.push({ id: c.id, start: c.start, text: c.roman + (c.pinned ? '●' : ''), row: 'chords' });
  if (show.keys) for (const k of facts.keys) rows.push({ id: k.id, start: k.start, text: keyName(k) + (k.pinned ? '●' : ''), row: 'keys' });
  return rows;
}

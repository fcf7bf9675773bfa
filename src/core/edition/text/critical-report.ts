import type { SourceDifference } from '../../collation/difference.ts';
import { paragraph } from '../../reading/rich-text.ts';
import { barLabel } from '../../score/position.ts';
import type { Edition } from './edition.ts';
import type { TextBlock } from './blocks.ts';

/** Sigla of sources by their place: A is the one that the pages follow. Common practice of critical editions. */
const siglum = (k: number): string => String.fromCharCode(65 + (k % 26));

const KINDS: Record<SourceDifference['kind'], string> = {
  parts: 'parts',
  bars: 'bars',
  meter: 'meter',
  key: 'key signature',
  repeats: 'repeats',
  notes: 'note',
  rhythm: 'rhythm',
  slur: 'slur',
  articulation: 'articulation',
  ornament: 'ornament',
  dynamic: 'dynamics',
  tempo: 'tempo',
  words: 'words'
};

/** The differences between the sources in the field's usual form: bar, part, source, reading, decision. */
export function criticalReport({ score, source, collations, reading }: Edition): TextBlock[] {
  const rows = collations.flatMap((c, k) =>
    c.differences.map((d) => {
      const choice = reading.sourceChoices.find((x) => x.source === c.hash && x.difference === d.id);
      const taken = choice?.take === 'theirs';
      const decision = !choice
        ? `${siglum(0)}; not decided yet`
        : `${taken ? siglum(k + 1) : siglum(0)}${taken && !d.takeable ? ', told here only: the pages keep their bars' : ''}${choice.because ? `: ${choice.because}` : ''}`;
      return [
        barLabel(score.measures, score.measures[d.measure]).replace(/^bar /, ''),
        score.parts[d.part]?.name || `part ${d.part + 1}`,
        siglum(k + 1),
        `${KINDS[d.kind]}: ${d.theirs}; ${siglum(0)} has ${d.ours}`,
        decision
      ];
    })
  );
  if (!rows.length) return [];
  const names = [`${siglum(0)}: ${source}`, ...collations.map((c, k) => `${siglum(k + 1)}: ${c.name}`)];
  return [
    paragraph(`${names.join('. ')}.`),
    { type: 'table', head: ['Bar', 'Part', 'Source', 'Reading', 'Decision'], rows, widths: [0.08, 0.14, 0.09, 0.36, 0.33] }
  ];
}

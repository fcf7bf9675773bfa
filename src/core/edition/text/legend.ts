import type { Marking, MarkingKind } from '../../reading/markings.ts';

export interface LegendLine {
  sign: string;
  meaning: string;
}

const LEGEND: Partial<Record<MarkingKind, LegendLine>> = {
  dynamic: { sign: '[mf]', meaning: 'editorial dynamic, in square brackets' },
  hairpin: { sign: 'dashed hairpin', meaning: 'editorial crescendo or diminuendo' },
  slur: { sign: 'dashed slur', meaning: 'editorial slur' },
  breath: { sign: 'comma above the staff', meaning: 'breath' },
  comma: { sign: 'comma above the staff', meaning: 'a small parting: leave the note early' },
  tempo: { sign: '[poco rit.]', meaning: 'editorial words on time, in square brackets' },
  text: { sign: '[words]', meaning: 'editorial words, in square brackets' },
  fingering: { sign: 'small figure', meaning: 'editorial fingering' },
  bowing: { sign: 'small bow sign', meaning: 'editorial bowing' }
};

/** The signs that this edition uses, explained. */
export function legend(markings: readonly Pick<Marking, 'kind'>[]): LegendLine[] {
  const used = new Set(markings.map((m) => m.kind));
  const lines: LegendLine[] = [{ sign: 'full black', meaning: 'everything that stands in the source' }];
  for (const [kind, line] of Object.entries(LEGEND)) if (used.has(kind as MarkingKind)) lines.push(line);
  if (['accent', 'articulation', 'fermata', 'metronome'].some((k) => used.has(k as MarkingKind))) {
    lines.push({ sign: 'named in the commentary', meaning: 'editorial accents, articulation, fermatas and metronome marks' });
  }
  return lines;
}

import type { Study } from '../analysis/study.ts';
import { toNumber } from '../score/fraction.ts';

/** Notes of the tune: where words are sung the singer's, else those of the leading line of the whole. */
export function tuneOf({ score, sounding, soundingPart }: Pick<Study, 'score' | 'sounding' | 'soundingPart'>): Set<string> {
  const singers = new Set(score.notes.filter((n) => n.lyrics?.length).map((n) => n.part));
  if (!singers.size || singers.size === score.parts.length) return new Set(sounding.melody.map((t) => t.note.id));
  const sung = [...singers].flatMap((part) =>
    soundingPart(part).melody.map((t) => ({
      from: toNumber(t.note.start),
      to: toNumber(t.note.start) + (t.end - t.start) / sounding.ticksPerQuarter,
      id: t.note.id
    }))
  );
  sung.sort((a, b) => a.from - b.from);
  const ids = new Set(sung.map((t) => t.id));
  let k = 0;
  for (const tone of sounding.melody) {
    const at = toNumber(tone.note.start);
    while (k < sung.length && sung[k].to <= at) k++;
    const singing = k < sung.length && sung[k].from <= at;
    if (!singing && !singers.has(tone.note.part)) ids.add(tone.note.id);
  }
  return ids;
}

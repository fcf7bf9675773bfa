import type { ObjectSchema } from 'joi';
import type { SchemaKit } from '../schema-kit.ts';
import { readAbc } from '../score/abc/read.ts';
import { eq, format } from '../score/fraction.ts';
import { ScoreError, type Score } from '../score/model.ts';
import { readMusicXml } from '../score/musicxml/read.ts';
import { barLabel, beatWords } from '../score/position.ts';

/** Another way to play some bars of one staff: typed, or taken from another source. */
export interface Ossia {
  id: string;
  part: number;
  staff: number;
  /** Measures that it stands for, both included. */
  from: number;
  to: number;
  /** What it is: "easier", "as in the second print". */
  label: string;
  /** As it was typed in ABC, or as a MusicXML document: as many measures as it stands for, one staff. */
  music: { abc: string } | { document: string };
  /** It stands over its bars on the pages. */
  printed: boolean;
  /** It is played in their place. */
  played: boolean;
}

const LONGEST_MUSIC = 60_000;
export const LONGEST_LABEL = 60;
export const MOST_OSSIA_BARS = 32;

export function ossiaSchema(kit: SchemaKit): ObjectSchema<Ossia> {
  const { joi, integer } = kit;
  const text = joi.string().min(1).max(LONGEST_MUSIC);
  return kit
    .record({
      id: kit.id,
      part: kit.part,
      staff: integer.min(1).max(64),
      from: kit.measure,
      to: kit.measure,
      label: joi.string().trim().min(1).max(LONGEST_LABEL),
      music: joi.alternatives(kit.record({ abc: text }), kit.record({ document: text })),
      printed: joi.boolean(),
      played: joi.boolean()
    })
    .custom((o: Ossia) => {
      if (o.to < o.from) throw new Error('An ossia ends before it begins.');
      if (o.to - o.from >= MOST_OSSIA_BARS) throw new Error(`An ossia stands for at most ${MOST_OSSIA_BARS} bars.`);
      return o;
    });
}

/** It as a MusicXML document. @throws ScoreError where what was typed cannot be read */
export const ossiaDocument = ({ music }: Pick<Ossia, 'music'>): string => ('abc' in music ? readAbc(music.abc) : music.document);

/** By what it is made of: readings are copied on their way to a worker, their texts stay the same. */
const READ = new Map<string, Score>();
const MOST_READ = 50;

/** The text that an ossia is made of. */
export const ossiaText = ({ music }: Pick<Ossia, 'music'>): string => ('abc' in music ? music.abc : music.document);

/** It as a score. @throws ScoreError where it cannot be read */
export function ossiaScore(ossia: Pick<Ossia, 'music'>): Score {
  const text = ossiaText(ossia);
  const known = READ.get(text);
  if (known) return known;
  if (READ.size >= MOST_READ) READ.clear();
  const score = readMusicXml(ossiaDocument(ossia));
  READ.set(text, score);
  return score;
}

/** What keeps an ossia from standing for its bars, in one sentence; null when nothing does. */
export function ossiaFault(score: Score, ossia: Ossia): string | null {
  let own: Score;
  try {
    own = ossiaScore(ossia);
  } catch (error) {
    if (error instanceof ScoreError) return error.message;
    throw error;
  }
  const bars = score.measures.slice(ossia.from, ossia.to + 1);
  if (own.parts.length !== 1 || own.parts[0].staves !== 1) return 'An ossia is one staff.';
  const count = (n: number): string => (n === 1 ? 'one bar' : `${n} bars`);
  if (own.measures.length !== bars.length) return `It has ${count(own.measures.length)}, and stands for ${count(bars.length)}.`;
  if (!own.notes.some((n) => !n.rest)) return 'It has no note.';
  for (const [k, bar] of bars.entries()) {
    const { length } = own.measures[k];
    if (!eq(length, bar.length))
      return `In place of ${barLabel(score.measures, bar)} it has ${beatWords(format(length))} quarters, where ${beatWords(format(bar.length))} belong.`;
  }
  return null;
}

/** Those that can be drawn and played; what cannot is left out. */
export const fittingOssias = (score: Score, ossias: readonly Ossia[]): Ossia[] =>
  ossias.filter(
    (o) => score.parts[o.part] && o.to < score.measures.length && o.staff <= score.parts[o.part].staves && !ossiaFault(score, o)
  );

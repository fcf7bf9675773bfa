import type { Facts } from '../analysis/facts.ts';
import { cmp } from '../score/fraction.ts';
import type { Part, Score } from '../score/model.ts';
import { intervalName } from '../score/pitch.ts';
import { sureness } from '../analysis/confidence.ts';
import { keyForPlayer, toldKey } from '../analysis/key-words.ts';
import { instrumentOf, type InstrumentChoices } from '../style/instruments/instrument-of.ts';
import { GroupBuilder, type SurveyGroup } from './line.ts';

const signature = (fifths: number): string =>
  fifths === 0 ? 'no sharps or flats' : `${Math.abs(fifths)} ${fifths > 0 ? 'sharp' : 'flat'}${Math.abs(fifths) === 1 ? '' : 's'}`;

/** Title, composer, instruments with their transposition, key signatures and keys. */
export function identity(score: Score, facts: Facts, instruments: InstrumentChoices): SurveyGroup {
  const group = new GroupBuilder('What it is');
  if (score.title) group.add('Title', score.title);
  group.add('Composer', score.composer || 'not given');
  const corrected = (part: Part): string => (part.index in instruments ? ` (${instrumentOf(score, part, instruments).name})` : '');
  for (const part of score.parts) {
    const sounds = part.transpose.chromatic ? `, sounds ${soundsText(part.transpose)}` : '';
    const staves = part.staves > 1 ? `, ${part.staves} staves` : '';
    group.add(
      score.parts.length > 1 ? `Part ${part.index + 1}` : 'Instrument',
      (part.name || 'not named') + corrected(part) + staves + sounds
    );
  }
  const changes = score.measures.filter(
    (m, k) =>
      k === 0 || m.key.fifths !== score.measures[k - 1].key.fifths || Boolean(m.key.steps) !== Boolean(score.measures[k - 1].key.steps)
  );
  for (const m of changes)
    group.add('Key signature', m.key.steps ? 'of its own, outside the circle of fifths' : signature(m.key.fifths), [m.index]);
  const player = score.parts[0].transpose;
  for (const k of facts.keys) {
    const bar = score.measures.findLastIndex((m) => cmp(m.start, k.start) <= 0);
    const written =
      player.chromatic % 12 === 0 || k.tonality === 'none' ? '' : `, which is ${keyForPlayer(k.key, player, k.tonality)} for this player`;
    group.add('Key', `${toldKey(k)}${written} (${sureness(k.confidence)}: ${k.evidence})`, [bar]);
  }
  return group.group;
}

/** "a major second lower than written". */
function soundsText(by: { diatonic: number; chromatic: number }): string {
  const name = intervalName(by);
  const down = name.startsWith('-');
  return `${INTERVALS[name.replace('-', '')] ?? name} ${down ? 'lower' : 'higher'} than written`;
}

const INTERVALS: Record<string, string> = {
  m2: 'a minor second',
  M2: 'a major second',
  m3: 'a minor third',
  M3: 'a major third',
  P4: 'a fourth',
  P5: 'a fifth',
  M6: 'a major sixth',
  P8: 'an octave',
  M9: 'a major ninth',
  m10: 'a minor tenth',
  M13: 'a major thirteenth',
  P15: 'two octaves'
};

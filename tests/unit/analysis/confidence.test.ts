import assert from 'node:assert/strict';
import { test } from 'node:test';
import { analyse } from '../../../src/core/analysis/analyse.ts';
import { confidenceOf, sureness } from '../../../src/core/analysis/confidence.ts';
import type { ChordFact } from '../../../src/core/analysis/facts.ts';
import { parseKey } from '../../../src/core/analysis/keys.ts';
import { toNumber } from '../../../src/core/score/fraction.ts';
import { fifthsPc } from '../../../src/core/score/pitch.ts';
import { measureAt } from '../../../src/core/score/position.ts';
import { TRIAD, type Agreed } from './scorer.ts';
import { compose, dice, PHRASES, type SoundingScore } from './composed.ts';

const TEXTURES: SoundingScore[] = ['chorale', 'alberti', 'waltz', 'duet', 'line', 'solo basses', 'solo passing', 'solo suspensions'];

/** Pieces on whose like the weights were fitted (odd seeds) and others (even ones). */
const pieces = (tuned: boolean): Agreed[] =>
  (['major', 'minor'] as const).flatMap((mode) =>
    TEXTURES.flatMap((texture) =>
      Array.from({ length: 16 }, (_, k) => k + 1)
        .filter((seed) => (seed % 2 === 1) === tuned)
        .map((seed) => {
          const roll = dice(seed * 7919 + mode.length * 31 + texture.length);
          const of = (close: string) => PHRASES[mode].filter((p) => p.close === close);
          const pick = (close: string) => of(close)[roll(of(close).length)];
          const half = pick('HC');
          const phrases = [half, pick('PAC'), half, pick('PAC')];
          return compose({ name: texture, mode, texture, tonic: roll(9) - 4, meter: texture === 'waltz' ? '3/4' : '4/4', phrases, seed });
        })
    )
  );

interface Said {
  confidence: number;
  right: boolean;
}

function said(set: readonly Agreed[]): Record<'chords' | 'cadences' | 'phrases', Said[]> {
  const result: ReturnType<typeof said> = { chords: [], cadences: [], phrases: [] };
  for (const piece of set) {
    const score = piece.score();
    const facts = analyse(score);
    const number = (at: ChordFact['start']) => measureAt(score, at).number;
    const pc = (name: string): number => fifthsPc(parseKey(`${name} major`)!.tonic);
    for (const c of facts.chords) {
      const middle = (toNumber(c.start) + toNumber(c.end)) / 2;
      const m = score.measures.findLast((x) => toNumber(x.start) <= middle)!;
      const shares = piece.chords![m.number].split(' ');
      const wanted = shares[Math.min(shares.length - 1, Math.floor(((middle - toNumber(m.start)) / toNumber(m.length)) * shares.length))];
      const match = /^([A-G][#b]?)(.*)$/.exec(wanted);
      if (!match) continue;
      result.chords.push({
        confidence: c.confidence,
        right: pc(c.root) === pc(match[1]) && TRIAD[c.quality] === match[2].replace('7', '')
      });
    }
    const family = (type: string): string => (type === 'IAC' ? 'PAC' : type);
    for (const c of facts.cadences)
      result.cadences.push({
        confidence: c.confidence,
        right: piece.cadences!.some(([bar, type]) => bar === number(c.start) && family(type) === family(c.type))
      });
    for (const p of facts.phrases) result.phrases.push({ confidence: p.confidence, right: piece.phraseEnds!.includes(number(p.last)) });
  }
  return result;
}

// Reliability diagram: DeGroot & Fienberg, The Statistician 32, 1983. Of the facts with 0.8 about eight in ten are right.
for (const tuned of [true, false])
  test(`confidence means what it says (${tuned ? 'tuned half' : 'other half'})`, () => {
    const kinds = said(pieces(tuned));
    let bins = 0;
    for (const [kind, facts] of Object.entries(kinds))
      for (let low = 0; low < 1; low += 0.1) {
        const bin = facts.filter((f) => f.confidence >= low && (f.confidence < low + 0.1 || low > 0.85));
        if (bin.length < 30) continue;
        bins++;
        const mean = bin.reduce((sum, f) => sum + f.confidence, 0) / bin.length;
        const right = bin.filter((f) => f.right).length / bin.length;
        assert.ok(Math.abs(mean - right) <= 0.07, `${kind}: ${bin.length} said ${mean.toFixed(2)}, right ${right.toFixed(2)}`);
        if (low > 0.85) break;
      }
    assert.ok(bins >= 5, String(bins));
  });

test('a confidence in a word, and within its bounds', () => {
  assert.deepEqual([0.9, 0.85, 0.7, 0.6, 0.5].map(sureness), ['sure', 'sure', 'likely', 'likely', 'doubtful']);
  const best = confidenceOf('chord', { margin: 99, quarters: 5, symbol: true });
  const worst = confidenceOf('chord', { margin: -99, quarters: -3, symbol: false });
  assert.deepEqual([best, worst], [0.98, 0.03]);
});

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { pitchName } from '../../../src/core/score/pitch.ts';
import type { BowedChord } from '../../../src/core/technique/bowed-chords.ts';
import { found, lies, told } from './asked.ts';

const VIOLIN = 'M:4/4\nL:1/4\nV:1 nm="Violin"\n';

test('chords are broken and left as the schools say; what cannot be held is named: handbook 12.5', () => {
  const chord = (schools: Record<string, string>): BowedChord => lies(`${VIOLIN}K:G\n[G,DBg]2 f2|`, { schools }).chords[0];
  const names = (c: BowedChord, of: 'stays' | 'thought'): string => c[of].map((n) => pitchName(n.pitch!)).join(' ');
  const below = chord({ 'chord-break': 'from-below', 'chord-release': 'top' });
  assert.deepEqual([below.breaks, names(below, 'stays'), names(below, 'thought')], ['from-below', 'G5', 'G3 D4 B4']);
  assert.equal(chord({ 'chord-break': 'together' }).breaks, 'two-and-two', 'four strings never sound at once');
  assert.equal(names(chord({ 'chord-release': 'hold' }), 'stays'), 'B4 G5', 'a bow holds two strings');
  const inner = lies(`${VIOLIN}K:G\n[DBg] c3|`, { schools: { 'chord-release': 'moving-voice' } }).chords[0];
  assert.equal(names(inner, 'stays'), 'B4', 'the voice that the next note answers');
  const t = lies(`${VIOLIN}K:G\n[G,DBg]2 f2|`, { schools: { 'chord-break': 'from-below', 'chord-release': 'top' } });
  assert.equal(told(t, 0, 'Chords'), 'from below, the bow stays on G5, G3, D4 and B4 only thought on');
  assert.equal(lies(`${VIOLIN}K:G\n[G,DBg]/ f3|`, { tempo: 200 }).chords[0].thought.length, 0, 'a short one is heard whole');
});

test('kinds of stroke follow mark, speed and time: handbook 12.6', () => {
  const stroke = (notes: string, options: Parameters<typeof lies>[1]): string | undefined =>
    lies(`M:4/4\nL:1/8\nV:1 nm="Violin"\nK:C\n${notes}|`, options).strokes[0]?.stroke;
  const dotted = '.c.d.e.f.g.f.e.d';
  assert.equal(stroke('cdefgfed', {}), 'on-the-string');
  assert.equal(stroke(dotted, { period: 'romantic', tempo: 120 }), 'thrown');
  assert.equal(stroke(dotted, { period: 'baroque', tempo: 120 }), 'lifted');
  assert.equal(stroke(dotted, { period: 'romantic', tempo: 270 }), 'bouncing', 'nine a second are too quick to throw');
  assert.equal(stroke(`!f!${dotted}`, { period: 'romantic', tempo: 60 }), 'stopped');
  assert.equal(stroke('(.c.d.e.f)(.g.f.e.d)', { period: 'romantic', tempo: 60 }), 'portato');
  assert.equal(stroke('cd', {}), undefined, 'two notes make no kind of stroke');
});

test('trills name their fingers; where none is left the proof says so: handbook 13.2', () => {
  const t = lies(`${VIOLIN}K:C\nTB4|`, {});
  assert.match(told(t, 0, 'Fingers')!, /^trill on B4 with 1 and 2$/);
  const pinned = lies(`${VIOLIN}K:C\n!4!!trill!e4|`, {});
  assert.ok(found(pinned).some((w) => /no finger is left above the fourth/.test(w)));
  const quick = lies('M:4/4\nL:1/16\nV:1 nm="Violin"\nK:C\nTBcdcTBcdcTBcdcTBcdc|', { tempo: 120 });
  assert.ok(found(quick).some((w) => /This trill has 0\.1\d s: its 3 notes do not fit/.test(w)));
});

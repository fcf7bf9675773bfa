import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { test } from 'node:test';
import { studyOf } from '../../../src/core/analysis/study.ts';
import { techniqueFindings } from '../../../src/core/proof/technique.ts';
import { EMPTY_READING, type Reading } from '../../../src/core/reading/reading.ts';
import { lyingEffects } from '../../../src/core/technique/effects.ts';
import { howItLies } from '../../../src/core/technique/how-it-lies.ts';
import type { HowItLies } from '../../../src/core/technique/told/lying.ts';
import { readAbc } from '../../../src/core/score/abc/read.ts';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { abc, demoPath } from '../helpers.ts';

const demo = (name: string) => studyOf(readMusicXml(readAbc(readFileSync(demoPath(name), 'utf8'))));
const line = (l: HowItLies, measure: number, of: string): string | undefined =>
  l.lines.find((x) => x.measure === measure && x.of === of)?.text;

test('what is written into the part stays, and the rest is looked for around it', () => {
  const study = demo('corrente.abc');
  const reading: Reading = { ...EMPTY_READING, period: 'baroque' };
  const before = howItLies(study, reading);
  assert.equal(line(before, 1, 'Bow')?.split(' ')[0], 'down');
  const first = study.score.notes.find((n) => n.measure === 1)!;
  const marking = {
    id: 'mark-1',
    kind: 'bowing',
    value: 'up-bow',
    note: first.id,
    start: first.start,
    staff: 1,
    part: 0,
    because: []
  } as const;
  const after = howItLies(study, { ...reading, markings: [{ ...marking, because: [] }] });
  assert.equal(line(after, 1, 'Bow')?.split(' ')[0], 'up');
  assert.ok(after.findings.some((f) => f.measure === 1 && /wrong way round/.test(f.what)));
});

test('little is written: where the bow does not turn by itself, where the hand moves', () => {
  const study = demo('corrente.abc');
  const { marks, lines } = howItLies(study, { ...EMPTY_READING, period: 'baroque' });
  const notes = study.score.notes.filter((n) => !n.rest).length;
  const bows = marks.filter((m) => m.needed && m.kind === 'bowing');
  assert.ok(bows.length > 0 && bows.length < notes / 3, `${bows.length} bows for ${notes} notes`);
  for (const m of marks) assert.ok(study.score.notes.some((n) => n.id === m.note && n.measure === m.measure));
  assert.ok(lines.every((l) => l.text && !/undefined|NaN|null/.test(l.text)));
});

test('each instrument tells what it has: a clarinet its breaths, a piano both hands', () => {
  const clarinet = howItLies(demo('etude.abc'), EMPTY_READING);
  assert.deepEqual([...new Set(clarinet.lines.map((l) => l.of))].sort(), ['Breath', 'Fingers']);
  assert.match(line(clarinet, 4, 'Breath')!, /in the rest, full/);
  const piano = howItLies(demo('andantino.abc'), EMPTY_READING);
  assert.deepEqual([...new Set(piano.lines.map((l) => l.of))].sort(), ['Left hand', 'Right hand']);
});

test('what does not lie is a finding of the proof, by its bar', () => {
  const study = studyOf(abc('M:2/4\nL:1/4\nV:1 name="Violin"\nK:C\n[G,A,] c|C, D|'));
  const lies = howItLies(study, EMPTY_READING);
  const findings = techniqueFindings(study, EMPTY_READING, lies);
  assert.equal(findings.length, lies.findings.length);
  assert.match(findings[0].what, /^bar 1, beat 1: this cannot be stopped: both G3 and A3 lie on the G string only$/);
  assert.ok(findings.some((f) => /bar 2.*cannot be played on this instrument/.test(f.what)));
});

test('what a piece asks of its instrument is counted, with its bars', () => {
  const told = (l: HowItLies): string[] => l.asks.lines.map((x) => `${x.label}: ${x.value}`);
  const violin = howItLies(demo('corrente.abc'), { ...EMPTY_READING, period: 'baroque' });
  assert.equal(violin.asks.title, 'What it asks of the violin');
  assert.ok(told(violin).includes('Highest position: 1'));
  const crossing = violin.asks.lines.find((l) => l.label === 'Over a string')!;
  assert.match(crossing.value, /^\d+ crossings?/);
  assert.ok(crossing.bars.length > 0);
  const clarinet = told(howItLies(demo('etude.abc'), EMPTY_READING));
  assert.ok(clarinet.some((l) => /^Longest on one breath: \d+\.\d s, where about 14 s are usual$/.test(l)));
});

test('what the teacher has said of level, time and trills counts', () => {
  const study = studyOf(abc('M:4/4\nL:1/4\nQ:1/4=60\nV:1 name="Flute"\nK:C\nC D E F|G A Tc d|e f g a|b c\' b a|g f e d|c4|'));
  const start = study.score.notes[0].start;
  const marking = { part: 0, staff: 1, start, note: study.score.notes[0].id, because: [] };
  const breaths = (markings: Reading['markings']): number =>
    howItLies(study, { ...EMPTY_READING, markings }).lines.filter((l) => l.of === 'Breath').length;
  assert.ok(breaths([{ ...marking, id: 'loud', kind: 'dynamic', value: 'ff' }]) > breaths([]), 'loud takes more breath');
  assert.ok(breaths([{ ...marking, id: 'quick', kind: 'metronome', value: 'quarter = 160' }]) <= breaths([]));
  assert.match(line(howItLies(study, EMPTY_READING), 1, 'Fingers') ?? '', /trill on C5 with /);
});

test('each note tells what it is played with, needed on the page or not', () => {
  const study = demo('corrente.abc');
  const { marks } = howItLies(study, { ...EMPTY_READING, period: 'baroque' });
  const plain = study.score.notes.filter((n) => !n.rest && !n.tie?.stop);
  for (const n of plain)
    assert.ok(
      marks.some((m) => m.note === n.id && m.kind === 'fingering'),
      n.id
    );
});

test('an answer of school says what it would change before it is given', () => {
  const study = demo('corrente.abc');
  const reading: Reading = { ...EMPTY_READING, period: 'baroque' };
  const { 1: second, 12: third } = study.score.measures;
  const fades = {
    id: 'm',
    kind: 'hairpin',
    value: 'diminuendo',
    part: 0,
    staff: 1,
    start: second.start,
    end: third.start,
    because: []
  } as const;
  const fading = { ...reading, markings: [{ ...fades, because: [] }] };
  const effects = lyingEffects(study, fading, 'bowing')!;
  assert.deepEqual(
    effects.find((e) => e.option === 'rule-of-downbow'),
    { option: 'rule-of-downbow', bars: [], example: null, findings: 0 },
    'as it is now'
  );
  const gesture = effects.find((e) => e.option === 'gesture')!;
  assert.ok(gesture.bars.length > 0);
  assert.match(gesture.example!, /^bar \d+, bow: (down|up)/);
  assert.equal(lyingEffects(study, reading, 'trill-start'), null, 'no matter of technique');
});

test('another way is told with its price and written as it stands', () => {
  const { ways } = howItLies(demo('corrente.abc'), { ...EMPTY_READING, period: 'baroque' });
  assert.ok(ways.length > 0);
  for (const w of ways) {
    assert.match(w.price, /one (retake|hook|split slur) in bar|an up-bow on the downbeat of bar|costs \d|as good/);
    assert.ok(w.marks.length > 0 && w.marks.every((m) => m.note && m.measure >= w.from));
  }
});

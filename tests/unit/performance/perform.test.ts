import { PROFILES } from '../../../src/core/style/profiles.ts';
import assert from 'node:assert/strict';
import { STEP_DB } from '../../../src/core/style/dynamics.ts';
import { test } from 'node:test';
import fc from 'fast-check';
import createVerovioModule from 'verovio/wasm';
import { enableLog, LOG_OFF, VerovioToolkit } from 'verovio/esm';
import { perform, type Performance } from '../../../src/core/performance/perform.ts';
import { ornamentsIn } from '../../../src/core/performance/realised.ts';
import { tiedLength } from '../../../src/core/score/ties.ts';
import { explainTime, wholeOf } from '../../../src/core/performance/explain.ts';
import { LOUDNESS_EFFECTS } from '../../../src/core/performance/loudness.ts';
import { EMPTY_READING, type Reading } from '../../../src/core/reading/reading.ts';
import { frac, toNumber } from '../../../src/core/score/fraction.ts';
import { EFFECTS, type EffectKey } from '../../../src/core/style/effects.ts';
import { LOUDNESS, PAUSES } from '../../../src/core/style/performance-weights.ts';
import { abc, demo, open, sample } from '../helpers.ts';
import { drafted, playableOf, literal, onsets, PERIODS, readingOf } from './play.ts';

const DEMOS = ['corrente.abc', 'etude.abc', 'andantino.abc'];
const playables = new Map(DEMOS.map((name) => [name, playableOf(demo(name).score)]));

const module = await createVerovioModule();
enableLog(LOG_OFF, module);

// Reference: Verovio's time map gives the moment of every note, rounded to milliseconds, at the tempi that are printed.
test('the literal performance agrees with Verovio’s time map, and with exact arithmetic to the microsecond', () => {
  for (const name of ['BWV_0773.xml', 'FaurReveSample.xml', 'SchbAvMaSample.xml', 'BrahWiMeSample.xml']) {
    const { text, score } = open(sample(name));
    const playable = playableOf(score);
    const toolkit = new VerovioToolkit(module);
    assert.ok(toolkit.loadData(text));
    const map = toolkit.renderToTimemap({ includeRests: true });
    // Without a mark Verovio takes 120 quarters a minute.
    const performance = literal({ ...playable, firstTempo: 120 });
    const byMoment = new Map(map.map((e) => [e.qstamp.toFixed(4), e.tstamp]));
    const starts = new Map(score.notes.map((n) => [n.id, toNumber(n.start)]));
    let compared = 0;
    for (const n of performance.notes) {
      const start = starts.get(n.note)!;
      if (!playable.marks.length) assert.ok(n.ornament || Math.abs(n.onset - start / 2) < 1e-6, `${name}: ${n.onset} against ${start / 2}`);
      const ms = byMoment.get(start.toFixed(4));
      if (ms === undefined || n.ornament) continue;
      compared++;
      assert.ok(Math.abs(n.onset - ms / 1000) <= 0.00051, `${name}: ${n.onset} against ${ms}`);
    }
    assert.ok(compared > 20, `${name}: ${compared} notes compared`);
  }
});

test('with all effects off a reading is the page to the letter, to the microsecond', () => {
  const off = Object.fromEntries(EFFECTS.map((e) => [e.key, 0])) as Record<EffectKey, number>;
  for (const playable of playables.values())
    for (const period of PERIODS) {
      // Without answers that leave repeats out; editorial marks are there, and do nothing.
      const reading: Reading = { ...drafted(playable, period), amounts: off };
      const [a, b] = [perform(playable, reading), literal(playable)];
      assert.equal(a.notes.length, b.notes.length);
      a.notes.forEach((n, k) => {
        assert.ok(Math.abs(n.onset - b.notes[k].onset) < 1e-6);
        assert.equal(n.db, b.notes[k].db);
      });
    }
});

/** Checks what must hold of every performance. */
function holds(p: Performance): void {
  for (const account of [...p.bars, ...p.beats]) {
    const sum = account.shares.reduce((s, x) => s + x.amount, 0);
    assert.ok(Math.abs(account.planned - account.literal - sum) < 1e-4, 'shares sum to the difference');
  }
  const beats = p.beats.reduce((s, b) => s + b.planned, 0);
  assert.ok(Math.abs(beats - p.length) < 1e-3, 'beats sum to the whole');
  for (const l of p.loudness) {
    if (l.planned === null || l.literal === null) continue;
    const sum = l.shares.reduce((s, x) => s + x.amount, 0);
    assert.ok(Math.abs(l.planned - l.literal - sum) < 1e-2, 'shares of loudness sum to the difference');
  }
  for (const n of p.notes) {
    assert.ok(n.end > n.onset && n.onset >= 0, 'notes have a length');
    assert.ok(n.db >= LOUDNESS.softest - 1e-6 && n.db <= LOUDNESS.loudest + 1e-6, 'loudness stays in range');
  }
}

test('every reading of the demo pieces: shares sum, notes keep their order, loudness stays in range', () => {
  const amount = fc.double({ min: 0, max: 2, noNaN: true });
  fc.assert(
    fc.property(
      fc.constantFrom(...DEMOS),
      fc.constantFrom(...PERIODS),
      fc.constantFrom('beat-strict', 'stolen', 'arch'),
      fc.dictionary(fc.constantFrom(...EFFECTS.map((e) => e.key)), amount),
      (name, period, rubato, amounts) => {
        const playable = playables.get(name)!;
        const p = perform(playable, { ...drafted(playable, period, { rubato }), amounts });
        holds(p);
        const order = new Map(playable.tones.map((t) => [t.tone.note.id, t.tone.start]));
        const lead = p.notes.filter(
          (n) => n.lead && !n.ornament && playable.tones.find((t) => t.tone.note.id === n.note)!.graces.length === 0
        );
        for (let k = 1; k < lead.length; k++) {
          const [a, b] = [lead[k - 1], lead[k]];
          if (a.bar === b.bar && order.get(a.note)! !== order.get(b.note)!)
            assert.ok(order.get(a.note)! < order.get(b.note)! === a.onset <= b.onset, 'onsets keep their order');
        }
      }
    ),
    { numRuns: 40 }
  );
});

test('stolen time is given back: every bar lasts as long as the page says', () => {
  for (const playable of playables.values()) {
    // Written acts (ritardando, fermata, metronome mark) are no rubato; they are left out here.
    const acts = { gradual: 0, fermata: 0, tempo: 0, cadenza: 0 };
    const p = perform(playable, { ...drafted(playable, 'romantic', { rubato: 'stolen' }), amounts: acts });
    let moved = 0;
    for (const b of p.bars) assert.ok(Math.abs(b.planned - b.literal) < 1e-3, `bar ${b.measure}: ${b.planned} against ${b.literal}`);
    for (const b of p.beats) moved = Math.max(moved, Math.abs(b.planned - b.literal));
    assert.ok(moved > 0.005, 'and yet beats move');
  }
});

test('where time is stolen the accompaniment keeps it: its onsets are the page’s', () => {
  const playable = playables.get('andantino.abc')!;
  const amounts = { gradual: 0, fermata: 0, tempo: 0, breath: 0, 'chord-break': 0, ornaments: 0 };
  const p = onsets(perform(playable, readingOf('romantic', { rubato: 'stolen' }, { amounts })));
  const strict = onsets(literal(playable));
  let [kept, moved] = [0, 0];
  for (const t of playable.tones) {
    const difference = Math.abs(p.get(`${t.tone.note.id}|0`)! - strict.get(`${t.tone.note.id}|0`)!);
    if (!t.lead) {
      assert.ok(difference < 1e-6, 'the accompaniment is in time');
      kept++;
    } else if (difference > 1e-3) moved++;
  }
  assert.ok(kept > 50 && moved > 10, `${kept} kept, ${moved} moved`);
});

test('beat-strict keeps the written ratios inside every beat', () => {
  let checked = 0;
  const quick = playableOf(abc('M:4/4\nL:1/16\nQ:1/4=72\nK:C\nCDEF G3A BcBA G2GG|cBAG F3E D3E F2G2|E2DC D2B,2 C8|'));
  for (const [name, playable] of [...playables, ['sixteenths', quick] as const]) {
    const amounts = { breath: 0, fermata: 0, cadenza: 0, dotting: 0, 'chord-break': 0, ornaments: 0 };
    const p = onsets(perform(playable, { ...drafted(playable, 'romantic', { rubato: 'beat-strict' }), amounts }));
    const l = onsets(literal(playable));
    const beats = literal(playable).beats;
    const beatOf = (time: number): number => beats.findLastIndex((b) => b.start <= time + 1e-9);
    const ids = [...l.keys()];
    for (let k = 2; k < ids.length; k++) {
      const three = [ids[k - 2], ids[k - 1], ids[k]];
      const times = three.map((id) => l.get(id)!);
      if (new Set(times.map((t) => t.toFixed(6))).size < 3 || new Set(times.map(beatOf)).size > 1) continue;
      const [a, b, c] = three.map((id) => p.get(id)!);
      const written = (times[1] - times[0]) / (times[2] - times[0]);
      assert.ok(Math.abs((b - a) / (c - a) - written) < 1e-6, `${name}: ${three[1]}`);
      checked++;
    }
  }
  assert.ok(checked > 15, `${checked} checked`);
});

test('an amount of nothing takes an effect away, of two doubles it; for some bars only where that is said', () => {
  const playable = playables.get('etude.abc')!;
  const reading = drafted(playable, 'romantic');
  const share = (p: Performance, effect: EffectKey, from = 0, to = 999): number =>
    p.bars
      .filter((b) => b.measure >= from && b.measure < to)
      .reduce((s, b) => s + (b.shares.find((x) => x.effect === effect)?.amount ?? 0), 0);
  const usual = share(perform(playable, reading), 'gradual');
  assert.ok(Math.abs(usual) > 0.1);
  assert.equal(share(perform(playable, { ...reading, amounts: { gradual: 0 } }), 'gradual'), 0);
  assert.ok(Math.abs(share(perform(playable, { ...reading, amounts: { gradual: 2 } }), 'gradual') - 2 * usual) < 1e-6);
  const half = playable.score.measures[20].start;
  const local = perform(playable, { ...reading, localAmounts: [{ effect: 'gradual', from: frac(0), to: half, amount: 0 }] });
  assert.equal(share(local, 'gradual', 0, 20), 0);
  assert.ok(share(local, 'gradual', 20) > 0.1);
});

test('a fermata, a breath and an echo do what they say, and are told', () => {
  const playable = playableOf(abc('M:4/4\nL:1/4\nQ:1/4=60\nK:C\n|:CDEF|GAB!fermata!c:|'));
  const p = perform(playable, readingOf('baroque', { repeats: 'echo', rubato: 'arch' }));
  assert.ok(p.bars[1].planned > 4.5);
  assert.match(explainTime(p.bars[1], 1), /^[\d.]+ s, literal 4\.00: fermata \+0\.9/);
  assert.equal(p.bars.length, 4);
  const [once, again] = [p.notes.find((n) => n.bar === 0)!, p.notes.find((n) => n.bar === 2)!];
  assert.ok(again.db < once.db - 4, 'the second time is an echo');
  const note = playable.tones[3].tone.note.id;
  const breath = { id: 'x', kind: 'breath' as const, value: 'breath', part: 0, staff: 1, start: frac(3), note, because: [] };
  const breathed = perform(playable, readingOf('baroque', { rubato: 'arch' }, { markings: [breath] }));
  const last = breathed.notes.find((n) => n.note === note)!;
  const next = breathed.notes.find((n) => n.note === playable.tones[4].tone.note.id)!;
  assert.ok(next.onset - last.end > 0.15, 'there is air');
  assert.ok(breathed.bars[1].shares.some((s) => s.effect === 'breath' && s.amount > 0.1));
});

test('words of tempo: another tempo holds until it is taken back, a slowing within it begins from it, a wait is a wait', () => {
  const playable = playableOf(abc('M:4/4\nL:1/4\nQ:1/4=60\nK:C\nCDEF|"^più mosso"GABc|cBAG|"^rit."FEDC|"^a tempo"CEGc|c4|'));
  const p = perform(playable, readingOf('romantic', { rubato: 'arch' }, { amounts: { arch: 0, 'phrase-end': 0, cadence: 0, leaning: 0 } }));
  const bars = p.bars.map((b) => b.planned);
  assert.ok(Math.abs(bars[0] - 4) < 1e-6 && Math.abs(bars[4] - 4) < 1e-6);
  assert.ok(bars[1] < 3.6 && Math.abs(bars[1] - bars[2]) < 1e-6);
  assert.ok(bars[3] > bars[2] && bars[3] < 4.6);
  const [first] = p.beats.filter((b) => b.measure === 3);
  assert.ok(first.planned < 1, 'the slowing begins in the quicker tempo');
});

test('accents stand out over their neighbours, hairpins grow inside a held note, a sforzando is a step over what is in force', () => {
  const playable = playableOf(abc('M:4/4\nL:1/4\nQ:1/4=60\nK:C\n!p!CC!accent!CC|!<(!C4!<)!|!f!C4|!p!CC!sfz!CC|'));
  const p = perform(playable, readingOf('classical', {}, { amounts: { meter: 0, line: 0, harmony: 0 } }));
  const n = p.notes;
  assert.ok(Math.abs(n[2].db - n[1].db - LOUDNESS.accent) < 0.5);
  assert.ok(n[2].dbEnd < n[2].db, 'an accent decays');
  assert.ok(n[4].dbEnd > n[4].db + 5, 'the held note grows');
  assert.ok(n[8].db > n[7].db + 4 && n[9].db < n[8].db - 4);
});

test('lengths by school: half for unmarked keyboard notes (C. P. E. Bach 1753 III §22), full in the nineteenth century, dots by their school', () => {
  const playable = playableOf(abc('M:4/4\nL:1/4\nQ:1/4=60\nV:1 nm="Piano"\nK:C\nCDEF|.C.D.E.F|'));
  const share = (touch: string, k: number, staccato = 'half'): number => {
    const n = perform(
      playable,
      readingOf('classical', { touch, staccato, rubato: 'arch' }, { amounts: { arch: 0, cadence: 0, 'phrase-end': 0 } })
    ).notes[k];
    return n.end - n.onset;
  };
  assert.ok(Math.abs(share('half', 1) - 0.5) < 1e-6);
  assert.ok(Math.abs(share('detached', 1) - 0.75) < 1e-6);
  assert.ok(Math.abs(share('full', 1) - 1) < 1e-6);
  assert.ok(Math.abs(share('full', 5) - 0.5) < 1e-6);
  assert.ok(share('full', 5, 'separated') > 0.6);
});

test('dots are sharpened and notes unequal where the school says so, and the beat stays', () => {
  const playable = playableOf(abc('M:4/4\nL:1/8\nQ:1/4=60\nK:C\nC3D E3F|CDEF GABc|'));
  const base = { rubato: 'beat-strict', dotting: 'literal', inegales: 'none' };
  const at = (answers: Record<string, string>, k: number) =>
    perform(playable, readingOf('baroque', { ...base, ...answers }, { amounts: { cadence: 0, 'phrase-end': 0 } })).notes[k].onset;
  assert.ok(Math.abs(at({}, 1) - 1.5) < 1e-6);
  assert.ok(at({ dotting: 'sharpened' }, 1) > 1.6);
  assert.ok(Math.abs(at({ dotting: 'sharpened' }, 2) - 2) < 1e-6);
  assert.ok(Math.abs(at({ inegales: 'mild' }, 5) - 4.6) < 1e-6);
  assert.ok(Math.abs(at({ inegales: 'full' }, 5) - (4 + 2 / 3)) < 1e-6);
});

test('the second time is decorated where the reading has it so', () => {
  const playable = playableOf(abc('M:4/4\nL:1/4\nQ:1/4=60\nK:C\n|:C2E2|G2c2:|'));
  const { note } = playable.tones[0].tone;
  const fill = {
    id: 'x',
    kind: 'text' as const,
    value: '2nd time: fill the third',
    part: 0,
    staff: 1,
    start: frac(0),
    note: note.id,
    because: []
  };
  const p = perform(playable, readingOf('baroque', { repeats: 'ornament' }, { markings: [fill] }));
  const names = (bar: number) => p.notes.filter((n) => n.bar === bar).map((n) => n.midi);
  assert.deepEqual(names(0), [60, 64]);
  assert.deepEqual(names(2), [60, 62, 64]);
});

test('chords of three strings are broken by school, and a sign breaks a chord anywhere', () => {
  const playable = playableOf(abc('M:4/4\nL:1/4\nQ:1/4=60\nV:1 nm="Violin"\nK:C\n[GdB]4|'));
  const times = (school: string) => {
    const n = perform(playable, readingOf('baroque', { 'chord-break': school })).notes;
    return n.map((x) => x.onset - n[0].onset);
  };
  const [below, twos, together] = ['from-below', 'two-and-two', 'together'].map(times);
  assert.ok(below[1] > 0.03 && below[2] > below[1]);
  assert.ok(twos[1] === 0 && twos[2] > 0.05);
  assert.deepEqual(together, [0, 0, 0]);
});

test('the whole is told: how long, by section, the quickest and the broadest bar', () => {
  const playable = playables.get('etude.abc')!;
  const p = perform(playable, drafted(playable, 'romantic'));
  const sections = playable.facts.sections.map((s, k) => ({
    measure: k === 0 ? 0 : playable.score.measures.findIndex((m) => toNumber(m.start) >= toNumber(s.start)),
    name: s.label
  }));
  const told = wholeOf(p, sections);
  assert.ok(Math.abs(told.whole.planned - p.length) < 1e-3);
  assert.ok(Math.abs(told.sections.reduce((s, x) => s + x.planned, 0) - p.length) < 1e-3);
  assert.ok(told.broadest!.planned / told.broadest!.literal > told.quickest!.planned / told.quickest!.literal);
  assert.match(told.says, /1 min \d\d s, to the letter 1 min 30 s/);
});

test('every demo piece: no lurching, and a real peak', async () => {
  const { DEMO_READINGS } = await import('../../../demo/readings.ts');
  const { demoLog } = await import('../../../demo/studio.ts');
  const { replay } = await import('../../../src/core/reading/log.ts');
  const { readFileSync } = await import('node:fs');
  for (const r of DEMO_READINGS) {
    const playable = playables.get(r.file) ?? playableOf(demo(r.file).score);
    const reading = replay(demoLog(r, readFileSync(new URL(`../../../demo/scores/${r.file}`, import.meta.url))));
    const p = perform(playable, reading);
    const marked = new Set<EffectKey>(['gradual', 'fermata', 'tempo']);
    let before = 0;
    for (const b of p.beats) {
      // What no mark asks for stays within a seventh from one beat to the next.
      const free = b.shares.filter((s) => !marked.has(s.effect) && s.effect !== 'breath').reduce((s, x) => s + x.amount, 0) / b.literal;
      assert.ok(Math.abs(free - before) < 0.15, `${r.file}, bar ${b.measure}: ${free.toFixed(3)} after ${before.toFixed(3)}`);
      before = free;
    }
    // Pipes have one loudness.
    if (PROFILES[r.period].opening === null) continue;
    const loud = p.loudness.flatMap((l) => (l.planned === null || l.pass > 0 ? [] : [{ m: l.measure, db: l.planned }]));
    const peak = loud.reduce((a, b) => (b.db > a.db ? b : a));
    const usual = [...loud].sort((a, b) => a.db - b.db)[loud.length >> 1];
    // Half a step of the dynamic scale at least.
    assert.ok(peak.db > usual.db + STEP_DB / 2, `${r.file}: the peak stands out`);
    const chosen = playable.score.measures.find((m) => m.number === r.peak)!.index;
    assert.ok(Math.abs(peak.m - chosen) <= 1, `${r.file}: loudest in ${peak.m}, planned ${chosen}`);
  }
});

test('the effects on loudness are told in a fixed order', () => {
  assert.deepEqual(
    LOUDNESS_EFFECTS.map((k) => EFFECTS.find((e) => e.key === k)?.on),
    LOUDNESS_EFFECTS.map(() => 'loudness')
  );
  assert.equal(EMPTY_READING.localAmounts.length, 0);
});

test('repeats that are left out are left out whole: each bar once, with the last ending', () => {
  const playable = playableOf(abc('M:4/4\nL:1/4\nQ:1/4=60\nK:C\n|:CDEF|GABc|1 c4:|2 G4||c4|'));
  const order = (repeats: string) => perform(playable, readingOf('modern', { repeats })).bars.map((b) => b.measure);
  assert.deepEqual(order('same'), [0, 1, 2, 0, 1, 3, 4]);
  assert.deepEqual(order('omit'), [0, 1, 3, 4]);
  const settled = { id: 'x', kind: 'tempo' as const, value: 'settle, last time only', part: 0, staff: 1, start: frac(4), because: [] };
  const p = perform(playable, readingOf('modern', { repeats: 'same', rubato: 'arch' }, { markings: [settled] }));
  const second = p.bars.filter((b) => b.measure === 1);
  assert.ok(second[1].planned > second[0].planned + 0.1, 'the last time alone settles');
});

test('every effect follows the tempo of the reading: twice as fast, half as many seconds, however far from the page', () => {
  const score = abc('M:4/4\nL:1/4\nQ:1/4=60\nK:C\nCDEF|"^rit."GABc|cBAG|F!fermata!E3|');
  const playable = playableOf(score);
  const mark = (value: string) => [{ id: 'x', kind: 'metronome' as const, value, part: 0, staff: 1, start: frac(0), because: [] }];
  const at = (value: string) =>
    perform(playable, readingOf('romantic', { rubato: 'arch' }, { markings: mark(value) })).bars.map((b) => b.planned);
  const [slow, fast, quickest] = [at('quarter = 60'), at('quarter = 120'), at('quarter = 240')];
  slow.forEach((s, k) => {
    assert.ok(Math.abs(fast[k] - s / 2) < 1e-6, `bar ${k}: ${fast[k]} against ${s / 2}`);
    assert.ok(Math.abs(quickest[k] - s / 4) < 1e-6, `bar ${k}: ${quickest[k]} against ${s / 4}`);
  });
});

test('swing and ornaments go by the tempo of the reading, not of the page', () => {
  const playable = playableOf(abc('M:4/4\nL:1/8\nQ:1/4=100\nK:C\nCDEF GABc|'));
  const mark = { id: 'x', kind: 'metronome' as const, value: 'quarter = 240', part: 0, staff: 1, start: frac(0), because: [] };
  const p = perform(playable, readingOf('swing', { swing: 'by-tempo' }, { markings: [mark], amounts: { leaning: 0 } }));
  // At 240 the ratio is 1.5 (handbook 1.8): 150 ms of a beat of 250.
  assert.ok(Math.abs(p.notes[1].onset - 0.15) < 1e-6);
  const trill = playableOf(abc('M:4/4\nL:1/4\nQ:1/4=60\nK:C\n!trill!c2 d2|'));
  const notes = (value: string) =>
    ornamentsIn(trill.score, trill.facts, readingOf('classical', {}, { markings: [{ ...mark, value }] }), 0, 0)[0].realisation.notes.length;
  assert.ok(notes('quarter = 60') > notes('quarter = 120'));
});

test('accounts know their written lengths; a tempo that changes inside a bar does not blur them', () => {
  const playable = playableOf(abc('M:4/4\nL:1/4\nQ:1/4=60\nK:C\nCD[Q:1/4=120]EF|c3 z|'));
  const p = literal(playable);
  assert.deepEqual(
    p.beats.map((b) => b.quarters),
    new Array(8).fill(1)
  );
  assert.equal(p.bars[0].quarters, 4);
  assert.ok(Math.abs(p.bars[0].literal - 3) < 1e-9);
});

test('ties sound as one note, across bars and through a pause in another voice', () => {
  const playable = playableOf(abc('M:4/4\nL:1/4\nQ:1/4=60\nK:C\nC2 E2-|E2 G2|'));
  const p = literal(playable);
  assert.equal(p.notes.length, 3);
  assert.ok(Math.abs(p.notes[1].end - p.notes[1].onset - 4) < 1e-6);
  assert.equal(toNumber(tiedLength(playable.score, playable.score.notes[1])), 4);
  assert.equal(toNumber(tiedLength(playable.score, playable.score.notes[0])), 2);
});

test('a breath, a comma and a break last as long as the table says, and never more than half a beat', () => {
  const only = Object.fromEntries(EFFECTS.map((e) => [e.key, e.key === 'breath' ? 1 : 0])) as Record<EffectKey, number>;
  /** Seconds by which the piece is longer than its page. */
  const waits = (tempo: number, printed: string, value = ''): number => {
    const playable = playableOf(abc(`M:4/4\nL:1/4\nQ:1/4=${tempo}\nK:C\nC${printed}DEF|GABc|]`));
    const note = playable.tones[1].tone.note.id;
    const mark = { id: 'x', kind: (value || 'breath') as 'breath' | 'comma', value, part: 0, staff: 1, start: frac(1), note, because: [] };
    const reading = readingOf('baroque', {}, { amounts: only, markings: value ? [mark] : [] });
    return Math.round(1e6 * (perform(playable, reading).length - literal(playable).length)) / 1e6;
  };
  for (const [printed, value, seconds] of [
    ['!breath!', '', PAUSES.breath.seconds],
    ['!longphrase!', '', PAUSES.caesura.seconds],
    ['', 'breath', PAUSES.breath.seconds],
    ['', 'comma', PAUSES.comma.seconds]
  ] as const) {
    assert.equal(waits(40, printed, value), seconds, printed + value);
    // At 300 a beat is a fifth of a second.
    assert.equal(waits(300, printed, value), Math.min(seconds, 0.1), printed + value);
  }
  assert.deepEqual([PAUSES.breath.seconds, PAUSES.comma.seconds, PAUSES.caesura.seconds], [0.16, 0.07, 0.6]);
});

/** Loudness of the notes of one staff, in order. */
const loudnessOf = (p: Performance, staff = 1): number[] => p.notes.filter((n) => n.staff === staff && !n.ornament).map((n) => n.db);
const onPiano = (meter: string, treble: string, bass: string) =>
  playableOf(abc(`M:${meter}\nL:1/4\nQ:1/4=90\n%%score {S B}\nV:S name="Piano"\nV:B clef=bass\nK:C\nV:S\n${treble}\nV:B\n${bass}`));

// Handbook 1.3, 1.5, 5.7: common practice.
test('a weak beat of three on which the harmony changes carries weight; without a change it does not', () => {
  const bass = (second: string) => `[C,E,G,] ${second} ${second}|[G,,B,,D,]3|[C,E,G,]3|`;
  const second = (chord: string): number => {
    const db = loudnessOf(perform(onPiano('3/4', 'c c c|B3|c3|', bass(chord)), readingOf('baroque')));
    return db[1] - db[0];
  };
  assert.ok(second('[F,A,C]') > second('[C,E,G,]') + 0.5);
});

test('groups of five are heard as they are written', () => {
  const groups = (meter: string): number[] => {
    const db = loudnessOf(perform(playableOf(abc(`M:${meter}\nL:1/4\nQ:1/4=90\nK:C\nccccc|ccccc|`)), readingOf('classical')));
    return [1, 2, 3, 4].filter((k) => db[k] > db[k - 1] && db[k] > (db[k + 1] ?? -99));
  };
  assert.deepEqual(groups('3+2/4')[0], 3);
  assert.deepEqual(groups('2+3/4')[0], 2);
});

test('a crescendo to a subito piano reaches its top just before it', () => {
  const p = perform(playableOf(abc('M:4/4\nL:1/4\nQ:1/4=90\nK:C\n!p!c d e f|!<(!c d e !<)!f|!p!g4|')), readingOf('romantic'));
  const db = loudnessOf(p);
  assert.equal(Math.max(...db), db[7], 'the last note before it is the loudest');
  assert.ok(db[8] < db[7] - 5, 'and it is soft at once');
});

test('a stringendo lasts until the page says its end', () => {
  const hurried = (end: string): number => {
    const music = `c d e f|"^stringendo"c d e f|c4|c d e f|c d e f|c4|${end}c d e f|c d e f|`;
    const { notes } = perform(playableOf(abc(`M:4/4\nL:1/4\nQ:1/4=90\nK:C\n${music}`)), readingOf('modern', { rubato: 'beat-strict' }));
    const at = notes.filter((n) => n.bar === 4).map((n) => n.onset);
    return at[2] - at[1];
  };
  assert.ok(hurried('"^a tempo"') < (60 / 90) * 0.92, 'it still hurries three bars later');
});

test('whoever has the tune stands out, in the left hand too', () => {
  const treble = '[eg] [eg] [eg]|[df] [df] [df]|[eg] [eg] [eg]|';
  const below = perform(onPiano('3/4', treble, 'C, E, G,|B,, D, F,|C, E, G,|'), readingOf('romantic'));
  assert.ok(Math.min(...loudnessOf(below, 2)) > Math.max(...loudnessOf(below, 1)) + 2);
  const above = perform(onPiano('3/4', 'e g f|d f e|c3|', '[C,G,]3|[B,,G,]3|[C,G,]3|'), readingOf('romantic'));
  assert.ok(Math.min(...loudnessOf(above, 1)) > Math.max(...loudnessOf(above, 2)) + 2);
});

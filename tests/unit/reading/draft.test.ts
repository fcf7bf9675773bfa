import assert from 'node:assert/strict';
import { test } from 'node:test';
import { studyOf } from '../../../src/core/analysis/study.ts';
import { provedDraft } from '../../../src/core/proof/proved-draft.ts';
import { proof } from '../../../src/core/proof/proof.ts';
import { draft, wholeScore, type Drafted, type DraftOrder } from '../../../src/core/reading/draft/draft.ts';
import { EMPTY_READING, styleOf, type Reading } from '../../../src/core/reading/reading.ts';
import { ruleById } from '../../../src/core/reading/rules/index.ts';
import { toNumber } from '../../../src/core/score/fraction.ts';
import type { Score } from '../../../src/core/score/model.ts';
import { measureAt } from '../../../src/core/score/position.ts';
import { IMPORTANCE } from '../../../src/core/style/draft-weights.ts';
import type { Period } from '../../../src/core/style/profiles.ts';
import { abc, demo, open, sample } from '../helpers.ts';
import { addedTo, critique } from './critic/critic.ts';
import { inAll, measureDrafts } from './critic/measure.ts';
import { SCORES } from './critic/scores.ts';

const draftOf = (score: Score, period: Period, order: Partial<DraftOrder> = {}, study = studyOf(score)): Drafted[] => {
  return draft(study, { period, schools: {}, ruleFactors: {} }, { ...wholeScore(study), ...order });
};
const printedOf = (kept: readonly Drafted[]): Drafted[] => kept.filter((k) => k.marking.kind !== 'advice');
const told = (kept: readonly Drafted[]): string[] => printedOf(kept).map((k) => `${k.marking.kind} ${k.marking.value}`);

// The composers' own signs in the same scores, as if an editor had drafted them, are the measure: what the critic faults there is its own error.
test('drafts of real scores and own tunes, read back from their MusicXML by the critic', () => {
  const measured = measureDrafts();
  for (const m of measured) {
    assert.equal(m.added, m.marks, `${m.name}: what is drafted is what stands in the file`);
    assert.ok(m.marks / m.bars <= 1.2, `${m.name}: ${m.marks} marks in ${m.bars} bars`);
  }
  const { marks, composers, drafts } = inAll(measured);
  assert.ok(marks >= 0.25 && marks <= 0.6, `${marks.toFixed(2)} marks a bar`);
  assert.ok(composers < 5, `the critic faults ${composers.toFixed(1)} of the composers' own signs in 100 bars`);
  const faults = measured.flatMap((m) => m.drafts.map((f) => `${m.name} ${f.bar}: ${f.fault}, ${f.what}`)).join('; ');
  assert.ok(drafts <= Math.min(3, composers), `${drafts.toFixed(1)} in 100 bars: ${faults}`);
  const held = inAll(measured.filter((m) => m.held));
  assert.ok(held.drafts <= 3, `${held.drafts.toFixed(1)} in 100 bars of the pieces that were not looked at: ${faults}`);
});

test('the critic sees what is planted', () => {
  const music = '!p!c2d2 e2f2|g2z2 z2e2|c2d2 e2f2|g8|';
  const head = 'M:4/4\nL:1/8\nK:C\n';
  const source = abc(head + music);
  const faults = (text: string) => {
    const edition = abc(head + text);
    const { added, printed } = addedTo(source, edition);
    return critique(edition, added, printed).map((f) => f.fault);
  };
  assert.deepEqual(faults(music), []);
  assert.deepEqual(faults(music.replace('g2z2 z2e2', '!<(!g2z2 z2!<)!e2')), ['hairpin over a rest']);
  assert.deepEqual(faults(music.replace('e2f2|g2', '!>(!e!>)!ef2|g2')), ['short hairpin']);
  assert.deepEqual(faults(music.replace('|g8', '|!p!g8')), ['level in force already']);
  assert.deepEqual(faults(music.replace('g2z2', '!breath!g2z2')), ['breath at a forbidden place']);
  assert.deepEqual(faults(music.replace('d2 e2f2|g2z2', '(d2 e2f2|g2z2').replace('z2e2', 'z2e2)')), ['slur at a forbidden place']);
  assert.deepEqual(faults(music.replace('g8', '!accent!!tenuto!g8')), ['two marks on a note']);
  assert.deepEqual(faults(music.replace('c2d2 e2f2|g8', '"^E flat?"c2d2 e2f2|g8')), ['question to the editor']);
});

test('spare, usual and rich: each says more, and what is spare says is said', () => {
  const total = { spare: 0, usual: 0, rich: 0 };
  for (const name of ['BWV_0773.xml', 'Telemann.xml', 'Saltarello.xml', 'BrahWiMeSample.xml']) {
    const { score } = open(sample(name));
    const [spare, usual, rich] = (['spare', 'usual', 'rich'] as const).map((amount) => {
      const { length } = printedOf(draftOf(score, 'romantic', { amount }));
      total[amount] += length;
      return length;
    });
    assert.ok(spare <= usual && usual <= rich, `${name}: ${spare} ${usual} ${rich}`);
  }
  assert.ok(1.2 * total.spare < total.usual && 1.1 * total.usual < total.rich, JSON.stringify(total));
});

test('one part alone, or all: who accompanies is not shaped as the tune is', () => {
  const { score } = open(sample('MozaVeilSample.xml'));
  const voice = printedOf(draftOf(score, 'romantic', { parts: [0] }));
  assert.ok(voice.length && voice.every((k) => k.marking.part === 0));
  const shaped = printedOf(draftOf(score, 'romantic')).filter((k) => k.marking.part === 1 && k.marking.kind === 'hairpin');
  const sung = score.notes.filter((n) => n.part === 0 && n.lyrics).map((n) => measureAt(score, n.start).index);
  for (const { marking } of shaped)
    assert.ok(!sung.includes(measureAt(score, marking.start).index), 'the piano is shaped where the voice rests');
});

test('an echo comes with the level after it, a slowing with the tempo after it, or neither comes', () => {
  const music = 'M:4/4\nL:1/4\nV:1 name="Flute"\nK:C\n!f!c e d c|c e d c|G B A G|c2 c2|e g f e|d f e d|c2 G2|c4|]';
  const kept = told(draftOf(abc(music), 'baroque', { amount: 'rich' }));
  assert.deepEqual(
    kept.filter((k) => k.startsWith('dynamic')),
    ['dynamic mp', 'dynamic f']
  );
  for (const { name, period, study } of SCORES.slice(-10)) {
    const { score } = study();
    const list = printedOf(draftOf(score, period, { amount: 'rich' }, study()));
    const last = score.measures.at(-1)!;
    list.forEach(({ marking: m }, k) => {
      if (m.kind !== 'tempo' || !/rit/.test(m.value) || toNumber(last.start) - toNumber(m.start) < 3 * toNumber(last.length)) return;
      assert.ok(
        list.slice(k + 1).some((later) => later.marking.value === 'a tempo'),
        `${name}: ${m.value} in ${measureAt(score, m.start).number}`
      );
    });
  }
});

test('a draft fits what stands already, says nothing twice, and what was decided is not said again', () => {
  const { score } = demo('corrente.abc');
  const first = draftOf(score, 'baroque');
  const standing = first.map((k) => k.marking);
  const again = printedOf(draftOf(score, 'baroque', { standing, decided: new Set(first.map((k) => k.key)) }));
  const places = new Set(standing.map((m) => `${m.kind} ${toNumber(m.start)}`));
  for (const { marking: m } of again) assert.ok(!places.has(`${m.kind} ${toNumber(m.start)}`), `${m.kind} ${m.value}`);
  const accent = standing.find((m) => m.kind === 'accent')!;
  const onNote = draftOf(score, 'baroque', { standing: [accent] }).filter(
    (k) => k.marking.note === accent.note && k.marking.kind === 'articulation'
  );
  assert.deepEqual(onNote, [], 'one mark to a note');
});

test('a reason is given once a phrase, and once a piece where that is enough', () => {
  for (const { name, period, study } of SCORES.slice(0, 12)) {
    const { score, facts } = study();
    const { phrases } = facts;
    const heard = printedOf(draftOf(score, period, { amount: 'rich' }, study())).map(({ key, marking: m }) => {
      const phrase = phrases.findLastIndex((p) => toNumber(p.start) <= toNumber(m.start));
      return { rule: m.because[0].rule!, place: `${m.part} ${phrase}`, key };
    });
    // What comes in one case (a level and its end, a hemiola's three groups) is one reason.
    const single = heard.filter((h) => !/echo|answer|broaden|prepare-the-return|hemiola/.test(h.rule));
    for (const h of single)
      assert.equal(single.filter((o) => o.rule === h.rule && o.place === h.place).length, 1, `${name}: ${h.rule} in one phrase twice`);
  }
});

test('questions to the editor are for the proof, not for the player', () => {
  for (const { period, study } of SCORES.slice(0, 8))
    for (const { marking } of draftOf(study().score, period, { amount: 'rich' }, study()))
      assert.notEqual(ruleById(marking.because[0].rule!)?.area, 'text', marking.value);
});

test('every rule that a draft prints is one that there is', () => {
  for (const id of Object.keys(IMPORTANCE)) assert.ok(ruleById(id), id);
});

test('the proof has nothing against a draft that it has not against the bare page', () => {
  for (const { name, period, study: studied } of SCORES.slice(-14)) {
    const study = studied();
    const { score } = study;
    const reading: Reading = { ...EMPTY_READING, period };
    const kept = provedDraft(study, reading, { ...wholeScore(study), amount: 'rich' });
    for (const part of score.parts.map((p) => p.index)) {
      const faults = (markings: Reading['markings']) =>
        proof(study, { ...reading, part, markings }, []).filter((f) => f.severity === 'contradiction');
      const known = new Set(faults([]).map((f) => f.id));
      const fresh = faults(kept.map((k) => k.marking)).filter((f) => !known.has(f.id));
      assert.deepEqual(
        fresh.map((f) => f.what),
        [],
        name
      );
    }
  }
  assert.ok(styleOf(EMPTY_READING));
});

test('a sung line is parted where its words pause, never inside one', () => {
  const song = (words: string) => abc(`M:4/4\nL:1/4\nV:1 name="Voice"\nK:C\nc d e f|g3 e|d e f d|c4|c d e f|g3 e|d e f d|c4|]\nw:${words}`);
  const breaths = (words: string) =>
    draftOf(song(words), 'classical', { amount: 'rich' })
      .filter((k) => k.marking.kind === 'breath')
      .map((k) => measureAt(song(words), k.marking.start).number);
  assert.deepEqual(breaths('The boats lie low and wait for wind and for rain. The boats lie low and wait for wind and for rain.'), ['4']);
  assert.deepEqual(breaths('The boats lie low, and wait for wind and moon-light come low down and wait for wind, and rain.'), []);
});

import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { Pin } from '../../../src/core/analysis/pins.ts';
import { advanced, AT_THE_BEGINNING, describe, replay } from '../../../src/core/reading/log.ts';
import { EMPTY_READING } from '../../../src/core/reading/reading.ts';
import { pinWords } from '../../../src/core/analysis/pins.ts';
import type { Command } from '../../../src/core/reading/commands/index.ts';
import type { Marking } from '../../../src/core/markings/marking.ts';
import { paragraph } from '../../../src/core/reading/rich-text.ts';
import { COMMAND_TYPES } from '../../../src/core/reading/commands/index.ts';
import { accepts as accepted } from './accepts.ts';

const at = (n: number) => ({ n, d: 1 });
const OSSIA = {
  id: 'o1',
  ...{ part: 0, staff: 1, from: 1, to: 1, label: 'easier', printed: true, played: false },
  music: { abc: 'X:1\nL:1/4\nK:C\nCDEF|\n' }
};
const marking: Marking = { id: 'mark-1', kind: 'dynamic', value: 'mf', part: 0, staff: 1, start: at(0), because: [] };
const HASH = 'a1'.repeat(32);
const choice = { source: HASH, difference: 'd1', take: 'theirs', because: 'It is older.', on: '2026-11-25' } as const;
const recording = { id: 'rec-1', label: 'At the old pier', times: [{ measure: 0, seconds: 1.5 }] };
const range = { from: at(0), to: at(4) };
const key: Pin = { id: 'pin-1', kind: 'key', start: at(0), end: at(4), key: 'C major' };

/** An act with its words for the history; where there is one, the act that lets it go, with its words. */
type Row = [act: Command, words: string, letGo?: Command, itsWords?: string];
const ACTS: Row[] = [
  [
    { type: 'set-period', period: 'romantic' },
    'period romantic',
    { type: 'set-period', period: EMPTY_READING.period },
    `period ${EMPTY_READING.period}`
  ],
  [
    { type: 'answer-school', key: 'rubato', option: 'stolen', on: '2026-11-25' },
    'rubato: stolen',
    { type: 'withdraw-answer', key: 'rubato', from: null },
    'taking an answer back'
  ],
  [
    { type: 'answer-here', answer: { key: 'rubato', option: 'arch', ...range, on: '2026-11-25' } },
    'rubato: arch here',
    { type: 'withdraw-answer', key: 'rubato', from: at(0) },
    'taking an answer back'
  ],
  [{ type: 'postpone-question', key: 'touch', on: '2026-11-25' }, 'putting a question off'],
  [{ type: 'weigh-rule', rule: 'echo', factor: 0 }, 'switching echo off', { type: 'weigh-rule', rule: 'echo', factor: 1 }, 'weighing echo'],
  [{ type: 'pull-level', measure: 3, level: 5 }, 'pulling a level', { type: 'pull-level', measure: 3, level: null }, 'letting a level go'],
  [{ type: 'set-peak', measure: 3 }, 'setting the peak', { type: 'set-peak', measure: null }, 'letting the peak go'],
  [{ type: 'set-ceiling', level: 6 }, 'setting a ceiling', { type: 'set-ceiling', level: null }, 'lifting the ceiling'],
  [
    { type: 'request-tempo', range: { low: 96, high: 104 } },
    'asked for 96 to 104',
    { type: 'request-tempo', range: null },
    'no tempo is asked for'
  ],
  [
    { type: 'write-brief', from: 0, to: 1, text: 'Low in the bow.' },
    'writing a brief',
    { type: 'write-brief', from: 0, to: 1, text: null },
    'letting a brief go'
  ],
  [
    { type: 'set-amount', effect: 'arch', amount: 0.5, range: null },
    'arch 50 %',
    { type: 'set-amount', effect: 'arch', amount: null, range: null },
    'arch as usual'
  ],
  [
    { type: 'set-amount', effect: 'arch', amount: 2, range },
    'arch 200 %',
    { type: 'set-amount', effect: 'arch', amount: null, range },
    'arch as usual'
  ],
  [
    { type: 'pull-time', measure: 2, ratio: 1.1 },
    'pulling a bar’s time',
    { type: 'pull-time', measure: 2, ratio: null },
    'letting a bar’s time go'
  ],
  [
    { type: 'take-rubato', bars: { 2: [0.1, -0.1] } },
    'taking over a tapped rubato',
    { type: 'take-rubato', bars: null },
    'letting the own rubato go'
  ],
  [
    { type: 'keep-recording', id: 'rec-1', recording },
    'the recording “At the old pier”',
    { type: 'keep-recording', id: 'rec-1', recording: null },
    'removing a recording'
  ],
  [
    { type: 'choose-source', source: HASH, difference: 'd1', choice },
    'choosing between sources',
    { type: 'choose-source', source: HASH, difference: 'd1', choice: null },
    'leaving a difference open'
  ],
  [
    { type: 'set-pages', pages: { ...EMPTY_READING.pages, variant: 'blank' } },
    'setting the pages',
    { type: 'set-pages', pages: EMPTY_READING.pages },
    'setting the pages'
  ],
  [
    { type: 'write-preface', text: { type: 'doc', content: [paragraph('Played on the pier.')] } },
    'writing the preface',
    { type: 'write-preface', text: null },
    'drafting the preface again'
  ],
  [
    { type: 'tell-of-composer', composer: { dates: '1801–1867', practice: 'In time to the last bar.', source: 'a letter' } },
    'a note on the composer',
    { type: 'tell-of-composer', composer: null },
    'letting the note on the composer go'
  ],
  [{ type: 'write-card', lines: ['Breathe.'] }, 'writing the card', { type: 'write-card', lines: null }, 'drafting the card again'],
  [
    { type: 'accept-finding', finding: 'two peaks@8_1', because: 'Both are meant.' },
    'accepting a finding',
    { type: 'accept-finding', finding: 'two peaks@8_1', because: null },
    'looking at a finding again'
  ],
  [{ type: 'draft', kept: [{ key: 'k1', marking }] }, 'drafting 1 marking'],
  [{ type: 'set-part', part: 1 }, 'choosing the part', { type: 'set-part', part: 0 }, 'choosing the part'],
  [
    { type: 'set-instrument', part: 0, instrument: 'basset-horn' },
    'the instrument is the basset horn',
    { type: 'set-instrument', part: 0, instrument: null },
    'letting the name tell the instrument'
  ],
  [{ type: 'keep-ossia', ossia: OSSIA }, 'ossia “easier”', { type: 'remove-ossia', id: OSSIA.id }, 'taking an ossia away'],
  [
    { type: 'set-player', player: { key: 'nora', name: 'Nora' } },
    'it is for Nora',
    { type: 'set-player', player: null },
    'it is for nobody in particular'
  ],
  [
    { type: 'judge-bars', from: 2, to: 4, as: 'harder' },
    'calling bars harder',
    { type: 'judge-bars', from: 2, to: 4, as: null },
    'taking back what was said of bars'
  ],
  [
    { type: 'set-numbering', numbering: 'counted' },
    'bar numbers as counted',
    { type: 'set-numbering', numbering: 'printed' },
    'bar numbers as printed'
  ],
  [
    { type: 'note-survey', line: 'own/1', note: { text: 'Bring a pencil.', preface: true } },
    'a note on the survey',
    { type: 'note-survey', line: 'own/1', note: null },
    'removing a note on the survey'
  ],
  [{ type: 'pin', pin: key }, 'key C major', { type: 'unpin', id: 'pin-1' }, 'taking a correction back'],
  [{ type: 'add-marking', marking }, 'adding dynamic mf', { type: 'remove-marking', id: 'mark-1' }, 'removing a marking'],
  [{ type: 'set-aside', key: 'k1' }, 'setting a proposal aside', { type: 'reopen', key: 'k1' }, 'opening a proposal again'],
  [{ type: 'keep', key: 'k1', marking }, 'keeping dynamic mf', { type: 'reopen', key: 'k1' }, 'opening a proposal again'],
  [
    {
      type: 'together',
      what: 'setting aside 2 proposals',
      commands: [
        { type: 'set-aside', key: 'k1' },
        { type: 'set-aside', key: 'k2' }
      ]
    },
    'setting aside 2 proposals'
  ]
];

for (const [act, words, letGo, itsWords] of ACTS)
  test(`${words}: told in words, taken by the server, undone${letGo ? ', and let go again' : ''}`, () => {
    assert.equal(describe(act), words);
    assert.equal(accepted(act), null);
    assert.notDeepEqual(replay([act]), EMPTY_READING);
    assert.deepEqual(replay([act, { type: 'undo' }]), EMPTY_READING);
    assert.deepEqual(replay([act, { type: 'undo' }, { type: 'redo' }]), replay([act]));
    if (!letGo) return;
    assert.equal(describe(letGo), itsWords);
    assert.equal(accepted(letGo), null);
    assert.deepEqual(replay([act, letGo]), EMPTY_READING);
    // The history names what would be undone next.
    assert.equal(describe(advanced(AT_THE_BEGINNING, [act, letGo, { type: 'undo' }]).undone[0]), itsWords);
  });

test('the acts above are all that there are, but for changing what is there', () => {
  const types = new Set(ACTS.flatMap(([act, , letGo]) => [act.type, ...(letGo ? [letGo.type] : [])]));
  for (const type of COMMAND_TYPES) assert.ok(types.has(type) || ['change-marking', 'undo', 'redo'].includes(type), type);
  assert.ok(COMMAND_TYPES.length > 25);
});

test('a correction of every kind has its words', () => {
  const pins: [Pin, string][] = [
    [key, 'key C major'],
    [{ id: 'p', kind: 'chord', start: at(0), end: at(1), roman: 'V7' }, 'chord V7'],
    [{ id: 'p', kind: 'phrase-start', start: at(0), here: true }, 'a phrase begins'],
    [{ id: 'p', kind: 'phrase-start', start: at(0), here: false }, 'no phrase begins'],
    [{ id: 'p', kind: 'cadence', start: at(0), type: 'HC' }, 'cadence HC'],
    [{ id: 'p', kind: 'section', start: at(0), label: 'B' }, 'section B begins'],
    [{ id: 'p', kind: 'section', start: at(0), label: '' }, 'no section begins'],
    [{ id: 'p', kind: 'role', note: 'n1', start: at(0), role: 'passing' }, 'note is passing'],
    [{ id: 'p', kind: 'same-music', start: at(0), other: at(8), length: at(4) }, 'the same music in two places'],
    [{ id: 'p', kind: 'dismiss', start: at(0), fact: 'cadence@4_1', what: 'cadence' }, 'cadence dismissed']
  ];
  for (const [pin, words] of pins) {
    assert.equal(pinWords(pin), words);
    assert.equal(accepted({ type: 'pin', pin }), null, words);
    assert.deepEqual(replay([{ type: 'pin', pin }]).pins, [pin]);
  }
});

test('an act of a later version changes nothing, and is called by its type', () => {
  const later = { type: 'of-a-later-version', value: 1 } as unknown as Command;
  const log: Command[] = [{ type: 'set-period', period: 'romantic' }, later];
  assert.deepEqual(replay(log), replay(log.slice(0, 1)));
  assert.equal(describe(later), 'of-a-later-version');
});

import type { Study } from '../analysis/study.ts';
import type { Marking } from '../markings/marking.ts';
import { STRING_NAMES } from '../markings/kinds/string.ts';
import type { Performance } from '../performance/perform.ts';
import type { Player } from '../players/player.ts';
import { styleOf, type Reading } from '../reading/reading.ts';
import { add, lte } from '../score/fraction.ts';
import type { Note, Score } from '../score/model.ts';
import { instrumentOf } from '../style/instruments/instrument-of.ts';
import { asksOf } from './asks.ts';
import { findingsOf } from './findings.ts';
import { stringName } from './left-hand.ts';
import { secondsPlayed, topOf } from './player-line.ts';
import { techniqueOf, type Technique, type TechniquePin } from './technique.ts';
import { linesOf } from './told/bars.ts';
import type { HowItLies } from './told/lying.ts';
import { marksOf } from './told/marks.ts';
import { waysOf } from './told/ways.ts';

/** What a reading's own markings decide: they are the pins of the search. */
export function pinsOfMarkings(markings: readonly Marking[], open: number, score: Score, part: number): Map<string, TechniquePin> {
  const pins = new Map<string, TechniquePin>();
  const add = (note: string, pin: TechniquePin): void => void pins.set(note, { ...pins.get(note), ...pin });
  for (const m of markings) {
    if (!m.note || m.part !== part) continue;
    if (m.kind === 'bowing') add(m.note, { bow: m.value === 'down-bow' ? 'down' : 'up' });
    else if (m.kind === 'fingering') add(m.note, { finger: m.value });
    else if (m.kind === 'string' && STRING_NAMES.indexOf(m.value) < open) add(m.note, { string: m.value });
    else if (m.kind === 'sticking') add(m.note, /\d/.test(m.value) ? { finger: m.value } : { hand: m.value === 'R' ? 'right' : 'left' });
    else if (m.kind === 'hand') add(m.note, { hand: m.value === 'r.h.' ? 'right' : 'left' });
    else if (m.kind === 'breath') {
      // It is drawn behind the note that it is taken from.
      const next = nextNote(score, m.note);
      if (next) add(next.id, { breath: true });
    }
  }
  return pins;
}

/** What begins when a note has ended, or next after it. */
function nextNote(score: Score, id: string): Note | undefined {
  const from = score.notes.find((n) => n.id === id);
  const end = from && add(from.start, from.duration);
  return end && score.notes.find((n) => n.part === from.part && !n.rest && !n.grace && lte(end, n.start));
}

/** What is known beside the reading itself. */
export interface Around {
  /** Whom it is for. */
  player?: Player | null;
  /** How it is played. */
  performance?: Performance | null;
}

/** The searches for the part of a reading: its markings are the pins. */
export function techniqueOfReading(study: Study, reading: Reading, { player = null, performance = null }: Around = {}): Technique {
  const { score } = study;
  const instrument = instrumentOf(score, score.parts[reading.part], reading.instruments);
  const pins = pinsOfMarkings(reading.markings, instrument.strings?.length ?? 0, score, reading.part);
  for (const pin of pins.values()) if (pin.string) pin.string = stringName(instrument.strings ?? [], STRING_NAMES.indexOf(pin.string));
  return techniqueOf(study, {
    part: reading.part,
    instrument: instrument.key,
    period: reading.period,
    schools: styleOf(reading).schools,
    markings: reading.markings,
    tempo: null,
    player,
    seconds: performance && secondsPlayed(score, performance.beats),
    pins
  });
}

/** How the part of a reading lies. */
export function howItLies(study: Study, reading: Reading, around: Around = {}): HowItLies {
  const t = techniqueOfReading(study, reading, around);
  return {
    instrument: t.instrument.key,
    marks: marksOf(t),
    lines: linesOf(t),
    ways: waysOf(t),
    asks: asksOf(t),
    words: wordsOf(t),
    crossings: (t.strings?.crossings ?? []).map(({ at }) => {
      const [from, to] = [topOf(t.line.attacks[at - 1]), topOf(t.line.attacks[at])];
      return { from: from.id, to: to.id, start: from.start };
    }),
    findings: findingsOf(t).map((f) => ({ start: f.attack.start, measure: f.attack.notes[0].measure, what: f.what }))
  };
}

function wordsOf(t: Technique): HowItLies['words'] {
  const { attacks } = t.line;
  return [
    ...(t.breath?.breaths ?? []).map((b) => ({
      of: 'breath' as const,
      start: attacks[b.at].start,
      text: `${b.secondsBefore.toFixed(0)} s${b.kind === 'quick' ? ', quick' : ''}`
    })),
    // Single graces are seen at once; what comes often is short.
    ...t.movements
      .filter((m) => !/-grace$|^strike$/.test(m.name))
      .map((m) => ({
        of: 'movement' as const,
        start: attacks[m.at].start,
        text: m.name.replace('-', ' ').replace('doubling', 'dbl') + (m.complete ? '' : '?')
      }))
  ];
}

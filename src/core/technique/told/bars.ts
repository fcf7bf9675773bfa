import { inSigns } from '../../analysis/words.ts';
import { format, sub, toNumber } from '../../score/fraction.ts';
import type { Note } from '../../score/model.ts';
import { midi, pitchName, type Pitch } from '../../score/pitch.ts';
import { beatOf, beatWords } from '../../score/position.ts';
import { listed } from '../../sentences.ts';
import { STROKES } from '../../style/strokes.ts';
import { fingerName, stringName } from '../left-hand.ts';
import { crowdedBars, standsFor } from '../mallet-places.ts';
import { joinsOf } from '../pipe-set.ts';
import { mainAttack, topOf, type Attack } from '../player-line.ts';
import { THUMB, type Place } from '../string-places.ts';
import type { Technique } from '../technique.ts';
import { trillFingers, windChart } from '../wind-fingers.ts';
import type { HowItLies } from './lying.ts';
import { upperOf } from '../trill.ts';
import { WAYS } from './ways.ts';

/** Takes a word about a bar, under what it is of. */
type Say = (measure: number, of: string, word: string) => void;

/** Rows whose words are sentences; those of others stand side by side. */
const IN_CLAUSES: ReadonlySet<string> = new Set([
  'Breath',
  'Movements',
  'Fingers',
  'Stroke',
  'Chords',
  'Hands',
  'Touch',
  'Lips',
  'Stand',
  'Set',
  'Pedal'
]);

const name = (n: Note): string => inSigns(pitchName(n.sounding ?? n.pitch!));
const writtenName = (n: Note): string => inSigns(pitchName(n.pitch!));
const names = (notes: readonly Note[]): string => listed(notes.map(name));

/** Words by bar. */
export function linesOf(t: Technique): HowItLies['lines'] {
  const found = new Map<string, { measure: number; of: string; words: string[] }>();
  const say: Say = (measure, of, word) => {
    const key = `${measure} ${of}`;
    const line = found.get(key);
    if (line) line.words.push(word);
    else found.set(key, { measure, of, words: [word] });
  };
  for (const tell of [tellBow, tellLeftHand, tellKeyboard, tellBreath, tellBrass, tellWinds, tellSticks, tellPipes]) tell(t, say);
  return [...found.values()].map(({ measure, of, words }) => ({
    measure,
    of,
    text: IN_CLAUSES.has(of) ? [...new Set(words)].join('; ') : words.join(' ')
  }));
}

const barOf = (t: Technique, k: number): number => t.line.attacks[k].notes[0].measure;
const beatIn = (t: Technique, a: Attack): string => {
  const note = a.notes[0];
  return beatWords(format(beatOf(t.line.score.measures[note.measure], note.onset)));
};

const BREAKS = { 'from-below': 'from below', 'two-and-two': 'two and two', together: 'together' };

function tellBow(t: Technique, say: Say): void {
  for (const s of t.bow?.strokes ?? []) {
    const way = s.way === 'plain' || s.way === 'lift' ? '' : ` (${WAYS[s.way]})`;
    say(barOf(t, mainAttack(t.line, s.from)), 'Bow', s.direction + way);
  }
  let before = '';
  for (const { from, stroke } of t.strokes) {
    if (stroke !== before) say(barOf(t, from), 'Stroke', `${STROKES[stroke].name}: ${STROKES[stroke].says}`);
    before = stroke;
  }
  for (const c of t.chords) {
    const thought = c.thought.length ? `, ${names(c.thought)} only thought on` : '';
    say(barOf(t, c.at), 'Chords', `${BREAKS[c.breaks]}, the bow stays on ${names(c.stays)}${thought}`);
  }
}

function tellLeftHand(t: Technique, say: Say): void {
  if (!t.strings) return;
  const open = t.instrument.strings ?? [];
  let string = -1;
  let position = -1;
  t.strings.grips.forEach((grip, k) => {
    const places = grip.filter((p) => p !== null);
    const bar = barOf(t, k);
    if (!places.length) return say(bar, 'Left hand', '?');
    const word = places
      .map((p) => {
        const named = p.string !== string || places.length > 1 || k === 0 || bar !== barOf(t, k - 1);
        string = p.string;
        return (named ? `${stringName(open, p.string)} ` : '') + fingerName(p.finger);
      })
      .join(' with ');
    const moved = places[0].finger > 0 && places[0].position !== position;
    if (places[0].finger > 0) position = places[0].position;
    say(bar, 'Left hand', moved && (position > 1 || k > 0) ? `${word} (position ${position})` : word);
    const upper = upperOf(t, k);
    if (upper && places.length === 1) say(bar, 'Fingers', stringTrill(places[0], t.line.attacks[k], upper));
  });
}

/** The fingers of a trill on one string. Handbook 13.2: finger pairs in a trill. */
function stringTrill(place: Place, a: Attack, upper: Pitch): string {
  const main = topOf(a).pitch!;
  const on = `trill on ${writtenName(topOf(a))}`;
  if (place.finger >= 4 && place.finger !== THUMB) return `${on}: no finger is left above the fourth, take it in another position`;
  const by = place.finger === 0 ? 1 : place.finger === THUMB ? 1 : place.finger + 1;
  const pair = `${on} with ${fingerName(place.finger)} and ${by}`;
  return midi(upper) - midi(main) > 2 ? `${pair}, stretched` : pair;
}

function tellKeyboard(t: Technique, say: Say): void {
  for (const { line, fingering } of t.keyboard)
    fingering.grips.forEach((grip, k) =>
      say(line.attacks[k].notes[0].measure, fingering.hand === 'right' ? 'Right hand' : 'Left hand', grip.map((f) => f || '–').join('+'))
    );
  for (const { attack, kind, hand, notes } of t.hands) {
    const bar = attack.notes[0].measure;
    const beat = beatIn(t, attack);
    if (kind === 'lifts') say(bar, 'Hands', `after beat ${beat} the ${hand} hand lifts, the other goes on bound`);
    else if (kind === 'short-beside-bound') say(bar, 'Hands', `on beat ${beat} the ${hand} hand is short, the other bound`);
    else if (kind === 'held-over') say(bar, 'Touch', `${names(notes)} held over to beat ${beat}`);
    else say(bar, 'Touch', `${names(notes)} again on beat ${beat}: let go for half of the value before`);
  }
  for (const { measure, start, end } of t.pedal) {
    const bar = t.line.score.measures[measure];
    const beats = toNumber(sub(end, start));
    say(
      measure,
      'Pedal',
      `from beat ${beatWords(format(beatOf(bar, sub(start, bar.start))))} for ${beatWords(format(sub(end, start)))} ${beats === 1 ? 'quarter' : 'quarters'}`
    );
  }
}

function tellBreath(t: Technique, say: Say): void {
  for (const b of t.breath?.breaths ?? []) {
    const a = t.line.attacks[b.at];
    say(
      a.notes[0].measure,
      'Breath',
      `before beat ${beatIn(t, a)} ${b.where}, ${b.kind}, ${b.secondsBefore.toFixed(0)} s after the one before`
    );
  }
}

function tellBrass(t: Technique, say: Say): void {
  t.brass?.ways.forEach((w, k) => say(barOf(t, k), w?.slide ? 'Slide' : 'Valves', w ? String(w.valves ?? w.slide) : '?'));
  for (const { at, kind, count } of t.brassRemarks) {
    const beat = beatIn(t, t.line.attacks[at]);
    say(
      barOf(t, at),
      'Lips',
      {
        'over-partials': `the slur to beat ${beat} passes ${count === 1 ? 'one partial' : `${count} partials`}: air connects, not the lips`,
        smears: `the slur to beat ${beat} is on one partial: a soft tongue, or the slide is heard`,
        'no-glissando': `no glissando is possible to beat ${beat}: it is not on one partial`,
        'soft-entrance': `soft on beat ${beat} after ${count.toFixed(0)} s of rest: breathe early, hear the note first`,
        'may-burst': `the accent on beat ${beat} is high: more air, less tongue`
      }[kind]
    );
  }
}

// Regular fingerings are known; what is told is what is not regular, and what is awkward.
function tellWinds(t: Technique, say: Say): void {
  const { attacks } = t.line;
  const chart = windChart(t.instrument.key, t.player?.fingerings);
  t.winds?.ways.forEach((w, k) => {
    const top = topOf(attacks[k]);
    if (w?.alternate && top.pitch) say(barOf(t, k), 'Fingers', `${writtenName(top)} as ${w.keys}`);
    const upper = chart && upperOf(t, k);
    const trill = upper && trillFingers(chart, top.pitch!, upper);
    if (trill) say(barOf(t, k), 'Fingers', `trill on ${writtenName(top)} with ${listed(trill.moving)}`);
  });
  for (const { at, why } of t.winds?.awkward ?? [])
    say(barOf(t, at), 'Fingers', `${writtenName(topOf(attacks[at - 1]))} to ${writtenName(topOf(attacks[at]))}: ${listed(why)}`);
}

function tellSticks(t: Technique, say: Say): void {
  if (!t.sticks) return;
  t.sticks.sticks.forEach((s, k) => say(barOf(t, k), 'Sticks', s.join('+')));
  const crowded = crowdedBars(t.line, t.sticks);
  for (const k of crowded)
    say(
      barOf(t, k),
      'Stand',
      `both hands on ${names(t.line.attacks[k].notes)}: one near the middle, one near the end, never over the cord`
    );
  for (const { at, by } of standsFor(t.line, t.phraseEnds))
    say(
      barOf(t, at),
      'Stand',
      `the phrase from beat ${beatIn(t, t.line.attacks[at])} lies ${inSteps(Math.abs(by))} ${by > 0 ? 'higher' : 'lower'}: stand for it before it comes`
    );
}

const inSteps = (semitones: number): string =>
  semitones % 12 === 0 ? (semitones === 12 ? 'an octave' : `${semitones / 12} octaves`) : `${semitones} half steps`;

function tellPipes(t: Technique, say: Say): void {
  for (const m of t.movements) say(barOf(t, m.at), 'Movements', m.name.replace('-', ' ') + (m.complete ? '' : ' (not complete)'));
  if (t.instrument.key !== 'pipes') return;
  for (const j of joinsOf(t.line.score, t.line.part))
    say(
      j.measure,
      'Set',
      `the next tune: from ${name(j.last)} straight to ${name(j.next)}, ${j.sameMeter ? 'the beat goes on' : 'the beat is another'}`
    );
}

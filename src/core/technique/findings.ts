import { inSigns } from '../analysis/words.ts';
import { midi, parsePitch, pitchName } from '../score/pitch.ts';
import { listed } from '../sentences.ts';
import { spentBeforePeak } from './brass-slurs.ts';
import type { WideChord } from './hands.ts';
import { hardOrnaments } from './ornament-fingers.ts';
import type { Technique } from './technique.ts';
import { gripsForTaorluaths } from './pipes.ts';
import { height, type Attack } from './player-line.ts';

/** A place where nothing is good, in a sentence. */
export interface TechniqueFinding {
  attack: Attack;
  what: string;
}

const round = (seconds: number): string => seconds.toFixed(2);

/** Places where nothing is good: named, never hidden. */
export function findingsOf(t: Technique): TechniqueFinding[] {
  const { attacks } = t.line;
  const found: TechniqueFinding[] = [];
  const say = (at: number, what: string): void => void found.push({ attack: attacks[at], what });
  for (const at of t.bow?.contradictions ?? []) say(at, 'One slur ends on the note on which the next begins: is it one bow or two?');
  for (const at of t.bow?.tooLong ?? []) say(at, 'This stroke lasts longer than the bow.');
  for (const s of t.bow?.strokes ?? [])
    if (s.costs.some((c) => c.name === 'up-bow on a downbeat' && c.price > WRONG_WAY))
      say(s.from, 'The bow arrives the wrong way round: an up-bow on the downbeat.');
  for (const at of [...(t.strings?.refused ?? []), ...(t.brass?.refused ?? [])]) say(at, 'What is written here cannot be played so.');
  for (const c of t.strings?.chords ?? []) if (!c.possible) say(c.at, `This cannot be stopped: ${c.why}.`);
  t.strings?.grips.forEach((grip, at) => {
    if (attacks[at].notes.length === 1 && !grip[0]) say(at, 'This note cannot be played on this instrument.');
  });
  t.strings?.costs.forEach((costs, at) => {
    if (at && attacks[at - 1].joined && costs.some((c) => c.name === 'shift')) {
      const price = costs.reduce((n, c) => n + c.price, 0);
      if (price > BAD_SHIFT) say(at, 'No fingering without a jump inside the slur.');
    }
  });
  for (const w of t.wide) if (!w.possible) found.push({ attack: w.attack, what: wideWords(w) });
  for (const at of t.breath?.late ?? []) say(at, 'The air does not last to the next place where one may breathe.');
  for (const at of t.breath?.misplaced ?? []) say(at, `The breath before this note ${dividedBy(t, at)}.`);
  for (const { at, why } of hardOrnaments(t)) say(at, why);
  const spent = t.load && spentBeforePeak(t.load, t.loudest);
  if (spent) found.push({ attack: attacks.find((a) => a.notes[0].measure >= spent.peak)!, what: spent.what(t.line.score.measures) });
  t.brass?.ways.forEach((w, at) => {
    if (!w) say(at, 'This note cannot be played on this instrument.');
  });
  for (const at of t.sticks?.tooMany ?? []) say(at, 'There are more notes here than mallets.');
  if (t.player) {
    const { name, lowest, highest } = t.player;
    const [low, high] = [lowest, highest].map((p) => (p ? midi(parsePitch(p)!) : null));
    attacks.forEach((a, at) => {
      const heights = a.notes.filter((n) => n.pitch).map(height);
      if (low !== null && heights.some((h) => h < low)) say(at, `This is lower than what ${name} is sure of (${inSigns(lowest!)}).`);
      if (high !== null && heights.some((h) => h > high)) say(at, `This is higher than what ${name} is sure of (${inSigns(highest!)}).`);
    });
  }
  for (const { at, like } of gripsForTaorluaths(t.movements))
    say(
      at,
      `A grip stands here, where bar ${t.line.score.measures[attacks[like].notes[0].measure].number} has a taorluath: was its E meant?`
    );
  for (const m of t.movements) {
    if (!m.complete) say(m.at, `The ${m.name.replace('-', ' ')} is not complete: ${m.missing.map(pipeName).join(' and ')} is missing.`);
    else if (m.needs > m.has)
      say(m.at, `The ${m.name.replace('-', ' ')} needs ${round(m.needs)} s, and the note before it gives ${round(m.has)} s.`);
  }
  return found;
}

/** From what price on an up-bow on a downbeat is told: a stroke that fills its bar turns in order. [M] */
const WRONG_WAY = 1.6;

/** A shift inside a slur that costs more is a jump. [M] */
const BAD_SHIFT = 3;

/** What a breath divides that belongs together. */
function dividedBy({ line }: Technique, at: number): string {
  const before = line.attacks[at - 1];
  if (before.joined) return 'is inside a slur';
  if (before.grace) return 'parts a small note from the one that it belongs to';
  if (before.to > line.attacks[at].from + 1e-6) return 'comes while a note is still held';
  return 'parts a dissonance from its resolution, or a climb by half steps';
}

const pipeName = (letter: string): string => ({ G: 'low G', A: 'low A', g: 'high G', a: 'high A' })[letter] ?? letter.toUpperCase();

function wideWords({ semitones, hand, shared, doubled }: WideChord): string {
  const names = listed(doubled.map((n) => inSigns(pitchName(n.sounding ?? n.pitch!))));
  const out = shared.length ? 'the other hand can take the rest' : names ? `roll it, or leave out what is doubled (${names})` : 'roll it';
  return `The ${hand} hand does not reach ${semitones} semitones: ${out}.`;
}

import { midi, staffStep, type Pitch } from '../score/pitch.ts';
import { EASE, HIGHEST, STEP_SEMITONES, THUMB_POSITION, WAITING, type StringHand } from '../style/string-hands.ts';

/** How a pitch is stopped. */
export interface Place {
  /** Index from the highest string. */
  string: number;
  /** 0 open, 1 to 4, 5 the thumb. */
  finger: number;
  /** Position of the hand, as players call it. */
  position: number;
  /** Where the first finger stands, in semitones above the open string; of an open string where the hand waits. */
  hand: number;
  /** The hand is spread. */
  extended: boolean;
  /** Semitones by which fingers stand nearer or farther than usual. */
  stretch: number;
}

export const THUMB = 5;
/** All ways to stop a sounding pitch. @param open sounding pitches of the open strings, from the highest */
export function placesOf(pitch: Pitch, open: readonly Pitch[], hand: StringHand): Place[] {
  return open.flatMap((string, index) => {
    const interval = midi(pitch) - midi(string);
    if (interval < 0) return [];
    if (interval === 0)
      return WAITING.map((position): Place => ({
        string: index,
        finger: 0,
        position,
        hand: waitingHand(hand, position),
        extended: false,
        stretch: 0
      }));
    const most = index === 0 ? HIGHEST.first : HIGHEST.others;
    return hand.kind === 'steps' ? bySteps(pitch, string, interval, index, hand.usual, most) : bySemitones(interval, index, hand, most);
  });
}

const waitingHand = (hand: StringHand, position: number): number =>
  hand.kind === 'steps' ? Math.round(position * STEP_SEMITONES) : Math.max(1, hand.positions.indexOf(position) + 1);

function bySteps(pitch: Pitch, open: Pitch, interval: number, string: number, usual: readonly number[], most: number): Place[] {
  const steps = staffStep(pitch) - staffStep(open);
  return [1, 2, 3, 4].flatMap((finger): Place[] => {
    // A raised open string is the first finger, low.
    const position = Math.max(1, steps - finger + 1);
    if (steps - finger + 1 < (steps === 0 ? 0 : 1) || position > most) return [];
    const first = interval - usual[finger - 1];
    // Where the first finger falls in this position of a major scale on the string.
    const expected = position * STEP_SEMITONES;
    return [{ string, finger, position, hand: first, extended: false, stretch: Math.max(0, Math.abs(first - expected) - EASE) }];
  });
}

function bySemitones(interval: number, string: number, hand: StringHand & { kind: 'semitones' }, most: number): Place[] {
  const places: Place[] = [];
  hand.shapes.forEach((shape, kind) =>
    shape.forEach((above, k) => {
      if (above === null) return;
      const first = interval - above;
      const position = hand.positions[Math.min(first, hand.positions.length) - 1];
      // The first finger of a spread hand stands as that of a closed one.
      if (first < 1 || (kind && k === 0) || position === undefined || position > most) return;
      if (hand.thumbFrom !== null && first >= hand.thumbFrom) return;
      places.push({ string, finger: k + 1, position, hand: first, extended: kind > 0, stretch: 0 });
    })
  );
  const { thumbFrom } = hand;
  if (thumbFrom !== null && string < THUMB_POSITION.strings)
    // Above the octave the thumb lies on the string, and the fingers over it.
    THUMB_POSITION.above.forEach((above, finger) => {
      if (interval - above < thumbFrom - 1) return;
      places.push({ string, finger: finger || THUMB, position: THUMB_POSITION.name, hand: interval - above, extended: false, stretch: 0 });
    });
  return places;
}

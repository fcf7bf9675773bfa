import { verbsFor, FINGER } from '$core/reading/pencil/verbs';
import { UNKNOWN_INSTRUMENT } from '$core/style/instruments/index';

export interface KeyLine {
  keys: string;
  does: string;
}

/** All keys, by the place where they mean something. */
export const KEYS: { where: string; lines: KeyLine[] }[] = [
  {
    where: 'Everywhere in a piece',
    lines: [
      { keys: 'Ctrl Z, Ctrl Shift Z', does: 'undo, and do again' },
      { keys: 'H', does: 'hear the selected bars, and stop' },
      { keys: '?', does: 'this list' }
    ]
  },
  {
    where: 'In a session of practice',
    lines: [
      { keys: 'Space', does: 'a clean run' },
      { keys: '←', does: 'a run that failed' },
      { keys: '→', does: 'on to the next' },
      { keys: '↑ ↓', does: 'the tempo a step quicker, slower' },
      { keys: 'Enter', does: 'the click on and off' },
      { keys: 'Backspace', does: 'takes the last tap back' }
    ]
  },
  {
    where: 'In the writing room',
    lines: [
      { keys: 'W H Q E S T', does: 'a whole, half, quarter, eighth, sixteenth, thirty-second' },
      { keys: '. / ( )', does: 'a dot; the next is a rest; a group begins, ends' },
      { keys: '1 to 6', does: 'take what is proposed for the bar' },
      { keys: 'C to B', does: 'the nearest such note; with Shift in a chord with the one before' },
      { keys: '↑ ↓ + - ~', does: 'the note before a step up, down (with Shift an octave), raised, lowered, tied on' },
      { keys: 'Escape, R, P', does: 'to the signs; the rhythm, the pitches anew' },
      { keys: 'J G F', does: 'a slur, a growing, a fading hairpin over the chosen notes' },
      { keys: 'Enter', does: 'on' }
    ]
  },
  {
    where: 'On the page, in Reading',
    lines: [
      { keys: '← →', does: 'to the note before, after' },
      { keys: '↑ ↓', does: 'to the note above, below: in a chord, in another voice, on another staff' },
      { keys: 'Shift with ← →', does: 'several notes' },
      { keys: 'Ctrl with ← →', does: 'a bar back, on' },
      { keys: 'Home, End', does: 'to the first, the last note' },
      { keys: 'Tab', does: 'on to the marks and proposals at the note' },
      { keys: 'Escape', does: 'lets go' }
    ]
  },
  {
    where: 'At chosen notes, from anywhere in Reading',
    lines: [
      ...verbsFor(UNKNOWN_INSTRUMENT)
        .filter((v) => v !== FINGER)
        .map((v) => ({ keys: v.key.toUpperCase(), does: v.word })),
      { keys: 'B', does: 'Breathe, for who breathes' },
      { keys: 'Enter', does: 'writes in what the note lies with: bow, finger, string, stick' },
      { keys: '0 to 5', does: 'a finger; after a word that asks, the choice of that number' }
    ]
  },
  {
    where: 'On a mark in hand',
    lines: [
      { keys: '← →', does: 'its end, or the mark itself, to the note before, after' },
      { keys: 'X', does: 'the other end' },
      { keys: '↑ ↓', does: 'half a staff space higher, lower' },
      { keys: 'Shift with ↑ ↓', does: 'above, below the staff' },
      { keys: 'Shift with ← →', does: 'half a staff space aside' },
      { keys: 'Delete', does: 'removes it; sets a proposal aside' },
      { keys: 'Enter', does: 'keeps a proposal' },
      { keys: 'R, in the brief', does: 'gives it the reasons of its place' }
    ]
  },
  {
    where: 'On the ribbon',
    lines: [
      { keys: '← →, Home, End, Page keys', does: 'choose bars; with Shift a range' },
      { keys: '↑ ↓ on the plan', does: 'pull the selected bars louder, softer; Delete lets them go' }
    ]
  },
  {
    where: 'In other rooms',
    lines: [
      { keys: '← → in Structure and Hearing', does: 'choose bars; ↑ ↓ four at a time' },
      { keys: '← → beside parallel places', does: 'through the differences; Page keys through the places' },
      { keys: 'N, P in Proof', does: 'the next finding, the one before' },
      { keys: 'T in “Tap it”', does: 'taps a beat' }
    ]
  }
];

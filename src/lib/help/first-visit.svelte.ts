import { keep, kept } from '../kept';
import { roomAddress, type Room } from '../rooms';

export interface Stop {
  place: 'shelf' | Room;
  says: string;
}

/** The way through with a piece, a sentence or two at each stop. */
export const STOPS: Stop[] = [
  {
    place: 'shelf',
    says: 'Your pieces stand here. Drop a score anywhere on this page to add one; “Next” on a card says where the work stands.'
  },
  {
    place: 'survey',
    says: 'The first look: what the piece has in it, what its words mean, what is unusual. A click on a line leads to its bars.'
  },
  { place: 'structure', says: 'Form, keys, chords and phrases as found. Correct what you hear otherwise; all that hangs on it follows.' },
  {
    place: 'reading',
    says: 'The bar-by-bar work. Click a note and choose what to do with it; at the side stand reasons, proposals and questions. “Draft a reading” makes a beginning.'
  },
  { place: 'hearing', says: 'Your reading against the page to the letter: every second and every step of loudness says why.' },
  { place: 'proof', says: 'What does not add up, each with its bar and what would solve it.' },
  { place: 'press', says: 'The edition as it is printed, with preface and commentary. Freeze it, print it, take it as a file.' },
  {
    place: 'rehearse',
    says: 'How hard each bar is, drills made from it, and a plan until a date for the player; they practise from it, on a phone too.'
  }
];

const KEPT = 'nuvelo-first-visit';
const LEFT = 'left';

/** Where a first visit stands; it goes on where it was left, and does not come back once it is over. */
export class FirstVisit {
  /** Null when it is over, or not known yet. */
  at = $state<number | null>(null);

  /** Looks whether this browser has been here. */
  begin(): void {
    const before = kept(KEPT);
    this.at = before === LEFT ? null : Math.max(0, Math.min(STOPS.length - 1, Number(before ?? 0) || 0));
  }

  again(): void {
    this.go(0);
  }

  go(at: number): void {
    this.at = at;
    keep(KEPT, String(at));
  }

  leave(): void {
    this.at = null;
    keep(KEPT, LEFT);
  }

  /** Address of a stop with a piece. */
  static address(stop: Stop, piece: number | string): string {
    return stop.place === 'shelf' ? '/' : roomAddress(piece, stop.place);
  }
}

import { PROFILES, isPeriod } from '$core/style/profiles';
import type { Room } from '../rooms';
import type { ShelfPiece } from '../shapes';

/** How far the work on a piece has come. */
export const STAGES = { new: 'not begun', reading: 'being read', frozen: 'published' } as const;
export type Stage = keyof typeof STAGES;

/** In which order the shelf stands. */
export const ORDERS = { opened: 'last opened', added: 'last added', title: 'title', composer: 'composer', bars: 'length' } as const;
export type Order = keyof typeof ORDERS;

/** What is looked for; empty words and choices look for all. */
export interface Wanted {
  words: string;
  order: Order;
  instrument: string;
  period: string;
  stage: string;
  group: string;
}

export const ALL: Wanted = { words: '', order: 'opened', instrument: '', period: '', stage: '', group: '' };

/** Of pieces without something, as a choice. */
export const NONE = '–';

export const stageOf = (p: Pick<ShelfPiece, 'acts' | 'editions'>): Stage => (p.editions ? 'frozen' : p.acts ? 'reading' : 'new');

/** What is next in a piece: its room, and why. */
export function nextOf(p: Pick<ShelfPiece, 'acts' | 'editions'>): { room: Room; says: string } {
  const stage = stageOf(p);
  if (stage === 'new') return { room: 'survey', says: 'have a first look' };
  if (stage === 'reading') return { room: 'reading', says: 'go on with the reading' };
  return { room: 'press', says: p.editions === 1 ? 'an edition is out' : `${p.editions} editions are out` };
}

export const periodName = (period: string | null): string => (period && isPeriod(period) ? PROFILES[period].name : '');

/** Letters without accents and capitals, for finding. */
const plain = (text: string): string =>
  text
    .normalize('NFD')
    .replace(/\p{Diacritic}/gu, '')
    .toLowerCase();

const BY: Record<Order, (a: ShelfPiece, b: ShelfPiece) => number> = {
  opened: (a, b) => (b.openedAt ?? b.createdAt) - (a.openedAt ?? a.createdAt),
  added: (a, b) => b.createdAt - a.createdAt,
  title: (a, b) => a.title.localeCompare(b.title, undefined, { numeric: true }),
  composer: (a, b) => a.composer.localeCompare(b.composer) || a.title.localeCompare(b.title, undefined, { numeric: true }),
  bars: (a, b) => a.bars - b.bars
};

/** The pieces that are looked for, in their order; of equals the newest first. Every word has to be found somewhere. */
export function found(pieces: readonly ShelfPiece[], wanted: Wanted): ShelfPiece[] {
  const words = plain(wanted.words).split(/\s+/).filter(Boolean);
  const is = (choice: string, value: string | null): boolean => !choice || choice === (value || NONE);
  return pieces
    .filter((p) => {
      if (!is(wanted.instrument, p.instrument) || !is(wanted.period, p.period) || !is(wanted.stage, stageOf(p))) return false;
      if (!is(wanted.group, p.group)) return false;
      const text = plain(`${p.title} ${p.composer} ${p.instrument} ${p.group ?? ''}`);
      return words.every((w) => text.includes(w));
    })
    .sort((a, b) => BY[wanted.order](a, b) || b.id - a.id);
}

/** Values that some pieces have, in the order of the alphabet, for choosing among them. */
export const valuesOf = (pieces: readonly ShelfPiece[], of: (p: ShelfPiece) => string | null): string[] =>
  [...new Set(pieces.map((p) => of(p) || NONE))].sort((a, b) => (a === NONE ? 1 : b === NONE ? -1 : a.localeCompare(b)));

const DAY = 86_400;

/** "today", "yesterday", "5 days ago", "on 3 May 2026". @param now seconds since 1970 */
export function whenSaid(seconds: number, now: number): string {
  const days = Math.floor(now / DAY) - Math.floor(seconds / DAY);
  if (days <= 0) return 'today';
  if (days === 1) return 'yesterday';
  if (days < 14) return `${days} days ago`;
  return `on ${new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' }).format(seconds * 1000)}`;
}

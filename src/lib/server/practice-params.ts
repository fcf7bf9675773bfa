import { error } from '@sveltejs/kit';
import { BOOK_PARTS, type BookPart } from '../../core/rehearsal/book.ts';
import type { Day } from '../../core/rehearsal/plan/day.ts';

/** The day that it is where the user is: only they know. @throws 400 where it is none */
export function todayOf(url: URL): Day {
  const today = url.searchParams.get('today') ?? '';
  if (!/^\d{4}-\d{2}-\d{2}$/.test(today) || Number.isNaN(Date.parse(today))) error(400, 'Say which day it is, as in today=2026-11-29.');
  return today;
}

/** Which parts of a practice book are wanted: all where nothing is said. */
export function bookPartsOf(url: URL): BookPart[] {
  const all = Object.keys(BOOK_PARTS) as BookPart[];
  const asked = url.searchParams.get('parts')?.split(',') ?? all;
  const wrong = asked.find((p) => !(all as string[]).includes(p));
  if (wrong !== undefined)
    error(400, `A practice book has no ${wrong.slice(0, 40) || 'part without a name'}: its parts are ${all.join(', ')}.`);
  return all.filter((p) => asked.includes(p));
}

/** A day as in "2026-11-29". Days have no hours and no zone: they are those of the player's own calendar. */
export type Day = string;

const MS = 86_400_000;
const noon = (day: Day): number => Date.parse(`${day}T12:00:00Z`);

/** @returns the day so many days later, or earlier */
export const addDays = (day: Day, count: number): Day => new Date(noon(day) + count * MS).toISOString().slice(0, 10);

/** How many days lie from one to another; negative where the other is earlier. */
export const daysBetween = (from: Day, to: Day): number => Math.round((noon(to) - noon(from)) / MS);

/** 0 Sunday to 6 Saturday. */
export const weekday = (day: Day): number => new Date(noon(day)).getUTCDay();

export const WEEKDAYS = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday'] as const;

/** All days from one to another, both included. */
export const daysFrom = (from: Day, to: Day): Day[] =>
  Array.from({ length: Math.max(0, daysBetween(from, to) + 1) }, (_, k) => addDays(from, k));

/** The day of a moment on the calendar of this machine. */
export const dayOf = (date: Date): Day =>
  `${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, '0')}-${String(date.getDate()).padStart(2, '0')}`;

/** "Tuesday 1 December". */
export const inFull = (day: Day): string =>
  new Date(noon(day)).toLocaleDateString('en-GB', { weekday: 'long', day: 'numeric', month: 'long', timeZone: 'UTC' }).replace(',', '');

/** "1 Dec". */
export const inShort = (day: Day): string =>
  new Date(noon(day)).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', timeZone: 'UTC' });

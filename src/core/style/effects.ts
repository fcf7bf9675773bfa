import type { SourceKey } from './bibliography.ts';

/**
 * What a performance adds to the page, one entry for each effect. Every effect has an amount from 0 (off) to 2
 * (twice the usual), for the piece or for some bars, and its share in every second and decibel is told.
 */
export interface EffectEntry {
  key: string;
  name: string;
  /** What it acts on. */
  on: 'time' | 'rhythm' | 'loudness' | 'length' | 'notes';
  /** One sentence for the teacher. */
  says: string;
  sources: readonly SourceKey[];
}

export const EFFECTS = [
  {
    key: 'tempo',
    name: 'tempo of the reading',
    on: 'time',
    says: 'Metronome marks of the reading instead of those of the page.',
    sources: ['common']
  },
  {
    key: 'gradual',
    name: 'slowing and hurrying',
    on: 'time',
    says: 'Ritardando and accelerando, printed or editorial, along the published curve.',
    sources: ['fribergSundberg']
  },
  {
    key: 'arch',
    name: 'phrase arch',
    on: 'time',
    says: 'Forward to the goal of a phrase, easing at its ends.',
    sources: ['todd']
  },
  {
    key: 'phrase-end',
    name: 'phrase end',
    on: 'time',
    says: 'A little time on the last beat of a phrase.',
    sources: ['todd', 'common']
  },
  { key: 'cadence', name: 'cadence', on: 'time', says: 'The chord before a close is given room.', sources: ['czerny', 'common'] },
  { key: 'breath', name: 'breath', on: 'time', says: 'Breaths, commas and breaks take a moment of their own.', sources: ['common'] },
  { key: 'fermata', name: 'fermata', on: 'time', says: 'The note under the sign is held longer than written.', sources: ['common'] },
  {
    key: 'leaning',
    name: 'leaning',
    on: 'time',
    says: 'Leaning notes, accents and dashes are a little longer.',
    sources: ['turk', 'common']
  },
  { key: 'cadenza', name: 'free bars', on: 'time', says: 'A bar without a meter begins and ends broadly.', sources: ['czerny', 'common'] },
  { key: 'own', name: 'own rubato', on: 'time', says: 'Time that was tapped and taken over.', sources: ['common'] },
  { key: 'pulled', name: 'pulled', on: 'time', says: 'Bars that were pulled longer or shorter by hand.', sources: ['common'] },
  {
    key: 'swing',
    name: 'swing',
    on: 'rhythm',
    says: 'Long and short eighths in the ratio of the school.',
    sources: ['fribergSundstrom']
  },
  { key: 'inegales', name: 'unequal notes', on: 'rhythm', says: 'Stepwise notes under the beat, long and short.', sources: ['quantz'] },
  { key: 'dotting', name: 'sharpened dots', on: 'rhythm', says: 'The short note after a dot comes later.', sources: ['quantz', 'lmozart'] },
  {
    key: 'plan',
    name: 'dynamic plan',
    on: 'loudness',
    says: 'Hairpins, arches and what was pulled at, against the bare marks.',
    sources: ['todd', 'common']
  },
  { key: 'meter', name: 'weight of the meter', on: 'loudness', says: 'Strong beats weigh more.', sources: ['lerdahl', 'cpebach'] },
  { key: 'line', name: 'height of the line', on: 'loudness', says: 'What rises grows.', sources: ['turk', 'friberg'] },
  {
    key: 'harmony',
    name: 'tension',
    on: 'loudness',
    says: 'Dissonances are louder than what they resolve to.',
    sources: ['quantz', 'cpebach']
  },
  { key: 'accent', name: 'accents', on: 'loudness', says: 'Accents and sforzandi stand out, and decay.', sources: ['czerny', 'common'] },
  { key: 'balance', name: 'foreground and background', on: 'loudness', says: 'What accompanies stays below.', sources: ['common'] },
  { key: 'second-time', name: 'second time', on: 'loudness', says: 'A repeat is played as the school says.', sources: ['quantz'] },
  {
    key: 'touch',
    name: 'light second notes',
    on: 'loudness',
    says: 'The second of a slurred pair is lighter.',
    sources: ['lmozart', 'turk']
  },
  {
    key: 'articulation',
    name: 'length of notes',
    on: 'length',
    says: 'The share of its value that each note sounds.',
    sources: ['cpebach', 'turk', 'czerny']
  },
  { key: 'ornaments', name: 'ornaments', on: 'notes', says: 'Ornaments are played out, note by note.', sources: ['cpebach', 'hummel'] },
  {
    key: 'chord-break',
    name: 'broken chords',
    on: 'notes',
    says: 'Chords are broken where sign or instrument asks for it.',
    sources: ['quantz']
  }
] as const satisfies readonly EffectEntry[];

export type EffectKey = (typeof EFFECTS)[number]['key'];

export const effectByKey = (key: string): EffectEntry | undefined => EFFECTS.find((e) => e.key === key);

/** Largest amount: twice the usual. */
export const MOST_AMOUNT = 2;

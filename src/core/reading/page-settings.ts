import type { ObjectSchema } from 'joi';
import { MARKING_KINDS, type MarkingKind } from '../markings/marking-kind.ts';
import type { SchemaKit } from '../schema-kit.ts';

/** Paper on which an edition is printed; lengths in points (72 to the inch). ISO 216; ANSI/ASME Y14.1. */
export const PAPERS = { A4: [595.28, 841.89], Letter: [612, 792] } as const;
export type Paper = keyof typeof PAPERS;

/** What an edition is for: to study with reasons, to play from, the bare source with bar numbers, or a card for the stand. */
export const VARIANTS = ['study', 'performance', 'blank', 'card'] as const;
export type Variant = (typeof VARIANTS)[number];

/** Height of a staff in points: as in printed parts, and in large print. Common practice: 7 mm; large print half as much again. */
export const STAFF_SIZES = { small: 16, usual: 20, large: 30 } as const;
export type StaffSize = keyof typeof STAFF_SIZES;

/** What may stand on the pages beside the music and its markings. */
export const EXTRAS = ['keys', 'phrases', 'chords', 'rhythm', 'count', 'skeleton', 'ornaments', 'questions'] as const;
export type Extra = (typeof EXTRAS)[number];

/** How the pages of an edition are set, and what they show; part of the reading. */
export interface PageSettings {
  paper: Paper;
  landscape: boolean;
  staff: StaffSize;
  variant: Variant;
  show: Extra[];
  /** Kinds of markings that are left out. */
  hidden: MarkingKind[];
}

export const USUAL_PAGES: PageSettings = {
  paper: 'A4',
  landscape: false,
  staff: 'usual',
  variant: 'study',
  show: ['keys', 'phrases', 'ornaments', 'questions'],
  hidden: []
};

/** Rows of analysis belong to an edition for study; a page to play from keeps what helps to play. */
const TO_PLAY_FROM: ReadonlySet<Extra> = new Set(['skeleton', 'ornaments', 'count']);

/** Whether something stands on the pages of the chosen variant. */
export const shows = ({ variant, show }: Pick<PageSettings, 'variant' | 'show'>, extra: Extra): boolean =>
  show.includes(extra) && (variant === 'study' || (variant === 'performance' && TO_PLAY_FROM.has(extra)));

/** The markings that stand on the pages. */
export const shownMarkings = <M extends { kind: MarkingKind }>(markings: readonly M[], settings: PageSettings): M[] =>
  settings.variant === 'blank' ? [] : markings.filter((m) => !settings.hidden.includes(m.kind));

export function pageSettingsSchema({ joi, oneOf, record }: SchemaKit): ObjectSchema<PageSettings> {
  const several = (values: readonly string[]) => joi.array().items(oneOf(values)).unique();
  return record({
    paper: oneOf(Object.keys(PAPERS)),
    landscape: joi.boolean(),
    staff: oneOf(Object.keys(STAFF_SIZES)),
    variant: oneOf(VARIANTS),
    show: several(EXTRAS),
    hidden: several(MARKING_KINDS)
  });
}

import type { Facts } from '../../analysis/facts.ts';
import { inSigns } from '../../analysis/words.ts';
import type { Score } from '../../score/model.ts';
import type { Level } from '../in-force.ts';
import { MOST_NOTES, type Claim } from '../../markings/claim.ts';
import type { ClaimKind, Ground } from './claim.ts';
import { OF_FORM } from './form.ts';
import { OF_HARMONY } from './harmony.ts';
import { OF_LOUDNESS } from './levels.ts';
import { OF_NOTES } from './notes.ts';
import { OF_ORNAMENTS } from './ornaments.ts';
import { pageOf } from './page.ts';
import { placeWords } from './places.ts';
import { OF_TEXTS } from './texts.ts';
import { OF_TIME } from './time.ts';

/** Every kind of claim, by name. */
export const CLAIMS = { ...OF_NOTES, ...OF_LOUDNESS, ...OF_TIME, ...OF_HARMONY, ...OF_FORM, ...OF_ORNAMENTS, ...OF_TEXTS };

export type ClaimName = keyof typeof CLAIMS;

export const CLAIM_NAMES = Object.keys(CLAIMS) as ClaimName[];

const kindOf = ({ what }: Claim): ClaimKind | undefined =>
  Object.hasOwn(CLAIMS, what) ? (CLAIMS as Record<string, ClaimKind>)[what] : undefined;

export const groundOf = (score: Score, facts: Facts, levels: readonly Level[]): Ground => ({ score, facts, levels, page: pageOf(score) });

/** Whether a claim can be read back from the score. A claim of a kind that is not known, or that names too much, does not hold. */
export function holds(claim: Claim, ground: Ground): boolean {
  const kind = kindOf(claim);
  if ((claim.notes?.length ?? 0) > MOST_NOTES) return false;
  return kind !== undefined && (kind.needs ?? []).every((field) => claim[field] !== undefined) && kind.holds(claim, ground);
}

/** A claim in words, with its place, from what holds now: "bar 12, beat 3: a note foreign to V resolves by step". */
export function told(claim: Claim, ground: Ground): string {
  const kind = kindOf(claim)!;
  const words = kind.words(claim, ground);
  const said = kind.placed ? words : `${placeWords(ground.score, claim.at, kind.beat ?? false)}: ${words}`;
  // What is quoted stays as it is printed: “Ab hier langsamer” names no note.
  return said
    .split(/(“[^”]*”)/)
    .map((piece, k) => (k % 2 ? piece : inSigns(piece)))
    .join('');
}

/** A reason as its rule gives it: what is claimed, then what the rule asks for. */
export const reasonText = (claim: string, title: string): string => `${claim}. ${title}.`;

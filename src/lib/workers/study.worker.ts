import { factsOf, openAnalysis, type Analysis } from '$core/analysis/analyse';
import { details, type Details } from '$core/analysis/details';
import type { Facts } from '$core/analysis/facts';
import type { Pin } from '$core/analysis/pins';
import { findLike, type MotiveOccurrence } from '$core/analysis/motives';
import { skeleton } from '$core/analysis/note-roles';
import { skeletonDocument } from '$core/edition/skeleton';
import { performanceGround, type PerformanceGround } from '$core/performance/ground';
import { perform, type Performance } from '$core/performance/perform';
import type { Reading } from '$core/reading/reading';
import { ruleContext, type Style } from '$core/reading/context';
import { effectsOf, questionPlaces, type Effect, type QuestionPlaces } from '$core/reading/questions';
import type { Fraction } from '$core/score/fraction';
import type { SchoolKey } from '$core/style/schools';
import { propose } from '$core/reading/propose';
import type { Proposal } from '$core/reading/proposal';
import type { Score } from '$core/score/model';
import { readMusicXml } from '$core/score/musicxml/read';

export type StudyRequest =
  | { type: 'open'; document: string }
  | { type: 'study'; number: number; pins: Pin[]; base: Facts | null; style: Style; part: number }
  /** What a closer look finds; asked for by the rooms that show it. */
  | { type: 'details'; number: number; pins: Pin[]; base: Facts | null }
  /** What each answer to a question of school would change, for the whole piece or a stretch of it. */
  | {
      type: 'effects';
      number: number;
      key: SchoolKey;
      range: { from: Fraction; to: Fraction } | null;
      pins: Pin[];
      base: Facts | null;
      style: Style;
      part: number;
    }
  /** The reading as timed notes, and the page to the letter; with a marking on trial, under its key. */
  | { type: 'perform'; pins: Pin[]; base: Facts | null; reading: Reading; trial: string | null }
  | { type: 'find'; notes: string[] }
  | { type: 'skeleton'; from: number; to: number; level: 1 | 2; part: number; pins: Pin[]; base: Facts | null };

export type StudyAnswer =
  /** The score as JSON: a long one is read from text much faster than it is cloned. */
  | { type: 'opened'; score: string }
  | { type: 'studied'; number: number; facts: Facts; proposals: Proposal[]; questions: QuestionPlaces[] }
  | { type: 'effects'; number: number; key: SchoolKey; effects: Effect[] }
  | { type: 'detailed'; number: number; details: Details }
  /** `page` only when it is another one than was sent before; never for a trial. */
  | { type: 'performed'; plan: Performance; page: Performance | null; trial: string | null }
  | { type: 'found'; notes: string[]; places: MotiveOccurrence[] }
  | { type: 'skeleton'; from: number; to: number; document: string | null }
  | { type: 'failed'; message: string };

let score: Score | null = null;
/** Opened when something is asked that the stored facts do not hold. */
let analysis: Analysis | null = null;
/** The last facts and details, kept while only the period changes. */
let known: { pins: string; facts: Facts; details: Details | null } | null = null;

const opened = (): Analysis => (analysis ??= openAnalysis(score!));

function study(pins: Pin[], base: Facts | null): NonNullable<typeof known> {
  const key = JSON.stringify(pins);
  if (known?.pins !== key) known = { pins: key, facts: pins.length === 0 && base ? base : factsOf(opened(), pins), details: null };
  return known;
}

function detailsOf(pins: Pin[], base: Facts | null): Details {
  const now = study(pins, base);
  return (now.details ??= details(opened(), now.facts, pins));
}

/** The score made ready to be played, kept while corrections and part stay. */
let ground: { key: string; ground: PerformanceGround; pageSent: boolean } | null = null;

function groundOf(pins: Pin[], base: Facts | null, part: number): NonNullable<typeof ground> {
  const key = `${part}|${JSON.stringify(pins)}`;
  if (ground?.key !== key) {
    const more = detailsOf(pins, base);
    ground = { key, ground: performanceGround(score!, study(pins, base).facts, more, opened().texture, part), pageSent: false };
  }
  return ground;
}

function skeletonOf(request: Extract<StudyRequest, { type: 'skeleton' }>): string | null {
  const { roles } = detailsOf(request.pins, request.base);
  const byNote = new Map(roles.map((r) => [r.note, r]));
  const line = opened().texture.melody.filter(
    (t) => t.note.measure >= request.from && t.note.measure <= request.to && t.note.part === request.part
  );
  const kept = skeleton(line, byNote, request.level);
  return kept.length ? skeletonDocument(score!, kept, request.from, request.to) : null;
}

self.onmessage = ({ data }: MessageEvent<StudyRequest>) => {
  try {
    if (data.type === 'open') {
      score = readMusicXml(data.document);
      analysis = known = ground = null;
      answer({ type: 'opened', score: JSON.stringify(score) });
    } else if (!score) return;
    else if (data.type === 'study') {
      const { facts } = study(data.pins, data.base);
      const style = { ...data.style, details: detailsOf(data.pins, data.base) };
      answer({
        type: 'studied',
        number: data.number,
        facts,
        proposals: propose(score, facts, style, data.part),
        questions: questionPlaces(ruleContext(score, facts, style, data.part))
      });
    } else if (data.type === 'effects') {
      const { facts } = study(data.pins, data.base);
      const style = { ...data.style, details: detailsOf(data.pins, data.base) };
      const effects = effectsOf(score, facts, style, data.key, data.part, data.range);
      answer({ type: 'effects', number: data.number, key: data.key, effects });
    } else if (data.type === 'details') answer({ type: 'detailed', number: data.number, details: detailsOf(data.pins, data.base) });
    else if (data.type === 'perform') {
      const { reading, trial } = data;
      const known = groundOf(data.pins, data.base, reading.part);
      // The page to the letter depends on no reading: it goes out once.
      const page = trial === null && !known.pageSent ? perform(known.ground, reading, true) : null;
      if (page) known.pageSent = true;
      answer({ type: 'performed', plan: perform(known.ground, reading), page, trial });
    } else if (data.type === 'find') answer({ type: 'found', notes: data.notes, places: findLike(opened().texture, data.notes) });
    else answer({ type: 'skeleton', from: data.from, to: data.to, document: skeletonOf(data) });
  } catch (error) {
    answer({ type: 'failed', message: error instanceof Error ? error.message : String(error) });
  }
};

const answer = (message: StudyAnswer) => self.postMessage(message);

import { provedDraft } from '$core/proof/proved-draft';
import type { Drafted } from '$core/reading/draft/draft';
import type { Amount } from '$core/style/draft-weights';
import { openAnalysis, type Analysis } from '$core/analysis/analyse';
import type { Details } from '$core/analysis/details';
import type { Facts } from '$core/analysis/facts';
import { findLike, type MotiveOccurrence } from '$core/analysis/motives';
import { skeleton } from '$core/analysis/note-roles';
import type { Pin } from '$core/analysis/pins';
import { studyOf, type Study } from '$core/analysis/study';
import { skeletonDocument } from '$core/edition/skeleton';
import { playableScore, type PlayableScore } from '$core/performance/playable-score';
import { midiFile } from '$core/performance/midi';
import { perform, type Performance } from '$core/performance/perform';
import type { Player } from '$core/players/player';
import type { Finding } from '$core/proof/finding';
import { inOrder, proof } from '$core/proof/proof';
import { techniqueFindings } from '$core/proof/technique';
import { lyingEffects, type LyingEffect } from '$core/technique/effects';
import { checklistOf, type DraftedSection } from '$core/rehearsal/checklist';
import { drillContext, drillsOf, makeDrill } from '$core/rehearsal/drills';
import type { Drill, DrillContext, DrillSettings } from '$core/rehearsal/context';
import type { PlanPiece } from '$core/rehearsal/plan/plan';
import { barsAsTask, drillAsTask, startOf, type Edited, type TaskWithSheet } from '$core/rehearsal/plan/sheets';
import type { DrillKind } from '$core/style/drills';
import { howItLies, techniqueOfReading } from '$core/technique/how-it-lies';
import type { HowItLies } from '$core/technique/told/lying';
import { ruleContext } from '$core/reading/context';
import type { Proposal } from '$core/reading/proposal';
import { propose } from '$core/reading/propose';
import { effectsOf, questionPlaces, type Effect, type QuestionPlaces } from '$core/reading/questions';
import { EMPTY_READING, styleOf, type Reading } from '$core/reading/reading';
import type { Fraction } from '$core/score/fraction';
import type { Score } from '$core/score/model';
import { survey, type Survey } from '$core/survey/survey';
import { readMusicXml } from '$core/score/musicxml/read';
import type { SchoolKey } from '$core/style/schools';

/** What the rules and the questions of a reading come to. */
export interface Studied {
  facts: Facts;
  proposals: Proposal[];
  questions: QuestionPlaces[];
}

/** What an answer changes among the proposals, and in how the part lies. */
export type SchoolEffect = Effect & { lies: LyingEffect | null };

/** Drills that are offered for some bars at once. */
const MOST_DRILLS = 8;

/** A drill as it is asked for. */
export interface DrillWish {
  kind: DrillKind;
  from: number;
  to: number;
  settings: Partial<DrillSettings>;
}

/** What a plan begins with for a piece. */
export interface PlanStart {
  piece: PlanPiece;
  tasks: TaskWithSheet[];
  sections: DraftedSection[];
}

/** What is to become a task: a drill; or bars, both included, with what is said of them. */
export type TaskWish = { drill: Drill } | { from: number; to: number; own: { title: string; how: string } | null };

const sheetPerformance = (score: Score): Performance => perform(playableScore(studyOf(score), 0), EMPTY_READING, true);

/** Bars of which a skeleton is asked for, both included, and how bare (1 all beats, 2 strong beats). */
export interface SkeletonRange {
  from: number;
  to: number;
  level: 1 | 2;
}

/** Everything about one piece that is too heavy for the window itself; it runs in a worker and keeps what it has worked out. */
export class StudyService {
  private score: Score | null = null;
  private base: Facts | null = null;
  private analysis: Analysis | null = null;
  /** The last study, kept while corrections stay. */
  private study: { pins: string; study: Study } | null = null;
  /** The score made ready to be played, kept while corrections, part and instruments stay. */
  private playable: { key: string; playable: PlayableScore } | null = null;

  /** The last performances: proof and playing ask for the same. */
  private plan: { key: string; performance: Performance } | null = null;
  private lying: { study: Study; key: string; lies: HowItLies } | null = null;
  private drilled: { study: Study; key: string; context: DrillContext } | null = null;
  private document = '';
  private letter: { playable: PlayableScore; performance: Performance } | null = null;

  /**
   * Reads the score that everything is asked about from now on.
   * @param base its facts without corrections, where they are stored
   * @returns the score as JSON: a long one is read from text much faster than it is cloned
   */
  open(document: string, base: Facts | null): string {
    this.document = document;
    this.score = readMusicXml(document);
    this.base = base;
    this.analysis = this.study = this.playable = this.plan = this.letter = null;
    return JSON.stringify(this.score);
  }

  studied(reading: Reading): Studied {
    const study = this.of(reading.pins);
    const style = styleOf(reading);
    return {
      facts: study.facts,
      proposals: propose(study, style, reading.part),
      questions: questionPlaces(ruleContext(study, style, reading.part))
    };
  }

  /** A first reading of the score, or of the part that is looked at, that the proof has nothing against. */
  draft(reading: Reading, amount: Amount, all: boolean): Drafted[] {
    const study = this.of(reading.pins);
    const parts = all ? study.score.parts.map((p) => p.index) : [reading.part];
    return provedDraft(study, reading, { amount, parts, decided: new Set(Object.keys(reading.decisions)), standing: reading.markings });
  }

  /** What a closer look finds. */
  details(pins: readonly Pin[]): Details {
    return this.of(pins).details;
  }

  /** What each answer to a question of school would change, for the whole piece or a stretch of it. */
  effects(reading: Reading, key: SchoolKey, range: { from: Fraction; to: Fraction } | null, player: Player | null): SchoolEffect[] {
    const study = this.of(reading.pins);
    const lying = lyingEffects(study, reading, key, { player });
    return effectsOf(study, styleOf(reading), key, reading.part, range).map((effect) => ({
      ...effect,
      lies: lying?.find((l) => l.option === effect.option) ?? null
    }));
  }

  /** The reading as timed notes. */
  performed(reading: Reading): Performance {
    const key = JSON.stringify(reading);
    if (this.plan?.key !== key) this.plan = { key, performance: perform(this.playableOf(reading), reading) };
    return this.plan.performance;
  }

  /** The page to the letter; it depends on part, instruments and corrections only. */
  page(reading: Reading): Performance {
    const playable = this.playableOf(reading);
    if (this.letter?.playable !== playable) this.letter = { playable, performance: perform(playable, reading, true) };
    return this.letter.performance;
  }

  /** What does not add up in the reading. */
  findings(reading: Reading, player: Player | null): Finding[] {
    const study = this.of(reading.pins);
    const proposals = propose(study, styleOf(reading), reading.part);
    const found = proof(study, reading, proposals, { plan: this.performed(reading), page: this.page(reading) });
    return inOrder([...found, ...techniqueFindings(study, reading, this.lies(reading, player))]);
  }

  /** How the part of the reading lies on its instrument, as it is played, for whom it is. */
  lies(reading: Reading, player: Player | null): HowItLies {
    const study = this.of(reading.pins);
    const key = JSON.stringify([reading, player]);
    if (this.lying?.study !== study || this.lying.key !== key)
      this.lying = { study, key, lies: howItLies(study, reading, { player, performance: this.performed(reading) }) };
    return this.lying.lies;
  }

  /** How hard the bars of the part are, with what the teacher says of them, and where most. */
  rehearsal(reading: Reading, player: Player | null): Pick<DrillContext, 'difficulty' | 'spots'> {
    const { difficulty, spots } = this.drilling(reading, player);
    return { difficulty, spots };
  }

  /** Practice material for some bars, the most useful first. */
  drills(reading: Reading, player: Player | null, from: number, to: number): Drill[] {
    return drillsOf(this.drilling(reading, player), from, to).slice(0, MOST_DRILLS);
  }

  /** One drill, set otherwise; null where it cannot be so. */
  drill(reading: Reading, player: Player | null, { kind, from, to, settings }: DrillWish): Drill | null {
    return makeDrill(this.drilling(reading, player), kind, from, to, settings);
  }

  /** What a plan begins with for the piece: its tasks with their notes, and what its sections are looked over for. */
  planStart(reading: Reading, player: Player | null, named: Omit<PlanPiece, 'seconds'>): PlanStart {
    const context = this.drilling(reading, player);
    const piece = { ...named, seconds: Math.round(this.performed(reading).length) };
    return {
      piece,
      tasks: startOf(context, this.edited(reading), piece),
      sections: checklistOf(context.study, context.technique, reading.part, reading.markings)
    };
  }

  /** Some bars, or something that is said of them, as a task. */
  task(reading: Reading, player: Player | null, piece: number, wish: TaskWish): TaskWithSheet {
    const context = this.drilling(reading, player);
    return 'drill' in wish ? drillAsTask(context, piece, wish.drill) : barsAsTask(context, this.edited(reading), piece, wish, wish.own);
  }

  /** A small document as it sounds to the letter at the tempo that it says. */
  sheetPlayed(document: string): Performance {
    return sheetPerformance(readMusicXml(document));
  }

  /** The same as a MIDI file. */
  sheetMidi(document: string): Uint8Array {
    const score = readMusicXml(document);
    return midiFile(score, sheetPerformance(score));
  }

  /** The first look with the teacher's corrections of keys and instruments. */
  survey({ pins, instruments }: Reading): Survey {
    const { score, facts } = this.of(pins);
    return survey(score, facts, instruments);
  }

  /** All places that are like some notes. */
  like(notes: readonly string[]): MotiveOccurrence[] {
    return findLike(this.opened().sounding, [...notes]);
  }

  /** A document with the skeleton of some bars; null where nothing is left of them. */
  skeleton(pins: readonly Pin[], part: number, { from, to, level }: SkeletonRange): string | null {
    const { roles } = this.of(pins).details;
    const byNote = new Map(roles.map((r) => [r.note, r]));
    const line = this.opened().sounding.melody.filter((t) => t.note.measure >= from && t.note.measure <= to && t.note.part === part);
    const kept = skeleton(line, byNote, level);
    return kept.length ? skeletonDocument(this.score!, kept, from, to) : null;
  }

  private drilling(reading: Reading, player: Player | null): DrillContext {
    const study = this.of(reading.pins);
    const key = JSON.stringify([reading, player]);
    if (this.drilled?.study !== study || this.drilled.key !== key) {
      const technique = techniqueOfReading(study, reading, { player, performance: this.performed(reading) });
      this.drilled = { study, key, context: drillContext(study, technique, reading.part, reading.judged) };
    }
    return this.drilled.context;
  }

  private edited(reading: Reading): Edited {
    return { document: this.document, score: this.score!, reading };
  }

  private opened(): Analysis {
    if (!this.score) throw new Error('No score is open.');
    return (this.analysis ??= openAnalysis(this.score));
  }

  private of(pins: readonly Pin[]): Study {
    const key = JSON.stringify(pins);
    if (this.study?.pins !== key) {
      const analysis = this.opened();
      this.study = { pins: key, study: studyOf(analysis.score, pins, pins.length ? null : this.base, analysis) };
    }
    return this.study.study;
  }

  private playableOf({ pins, part, instruments }: Reading): PlayableScore {
    const key = JSON.stringify([part, instruments, pins]);
    if (this.playable?.key !== key) this.playable = { key, playable: playableScore(this.of(pins), part, instruments) };
    return this.playable.playable;
  }
}

/** The service as it is asked from the window: each question is a promise. */
export type StudyPort = {
  [K in keyof StudyService]: StudyService[K] extends (...args: infer A) => infer R ? (...args: A) => Promise<R> : never;
};

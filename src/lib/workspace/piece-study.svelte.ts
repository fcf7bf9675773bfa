import type { Details } from '$core/analysis/details';
import type { Facts } from '$core/analysis/facts';
import type { MotiveOccurrence } from '$core/analysis/motives';
import type { Pin } from '$core/analysis/pins';
import type { Performance } from '$core/performance/perform';
import type { Finding } from '$core/proof/finding';
import type { Drill, DrillContext } from '$core/rehearsal/context';
import type { PlanPiece } from '$core/rehearsal/plan/plan';
import type { TaskWithSheet } from '$core/rehearsal/plan/sheets';
import type { Player } from '$core/players/player';
import type { Proposal } from '$core/reading/proposal';
import type { QuestionPlaces } from '$core/reading/questions';
import { styleOf, type Reading } from '$core/reading/reading';
import type { Fraction } from '$core/score/fraction';
import type { Score } from '$core/score/model';
import type { Survey } from '$core/survey/survey';
import type { SchoolKey } from '$core/style/schools';
import { Latest, sentenceOf } from './latest';
import type { HowItLies } from '$core/technique/told/lying';
import type { Drafted } from '$core/reading/draft/draft';
import type { Period } from '$core/style/profiles';
import type { Amount } from '$core/style/draft-weights';
import type { DrillWish, PlanStart, SchoolEffect, SkeletonRange, StudyPort, TaskWish } from './study-service';

const correctedIn = ({ pins, instruments }: Pick<Reading, 'pins' | 'instruments'>): string => JSON.stringify([pins, instruments]);
const NOTHING_CORRECTED = correctedIn({ pins: [], instruments: {} });

/** What is known about the piece under the reading: asked of the study as the reading changes, and kept up to date. */
export class PieceStudy {
  facts = $state.raw<Facts>() as Facts;
  proposals = $state.raw<Proposal[]>([]);
  /** Where the questions of school matter; the answers are the reading's. */
  questionPlaces = $state.raw<QuestionPlaces[]>([]);
  /** What each answer to the opened question would change; null while it is worked out. */
  effects = $state.raw<{ key: SchoolKey; effects: SchoolEffect[] } | null>(null);
  /** What a closer look finds; null until a room has asked for it. */
  details = $state.raw<Details | null>(null);
  /** What the proof turned up; null until a room has asked for it. */
  findings = $state.raw<Finding[] | null>(null);
  /** The survey with corrections; null while there are none. */
  survey = $state.raw<Survey | null>(null);
  /** Places that are like the chosen notes, after "find this". */
  found = $state.raw<{ notes: string[]; places: MotiveOccurrence[] } | null>(null);
  skeleton = $state.raw<(SkeletonRange & { document: string | null }) | null>(null);
  /** How the part lies on its instrument; null until a room has asked for it. */
  lies = $state.raw<HowItLies | null>(null);
  /** How hard the bars are, and where most; null until a room has asked for it. */
  rehearsal = $state.raw<Pick<DrillContext, 'difficulty' | 'spots'> | null>(null);
  /** Practice material for some bars; null until it is asked for. */
  drills = $state.raw<{ from: number; to: number; list: Drill[] } | null>(null);
  /** Facts, proposals or details are on their way. */
  busy = $state(true);

  private ready = false;
  private studied = '';
  private surveyed = NOTHING_CORRECTED;
  private proved: Reading | null = null;
  private wantsDetails = false;
  private wantsFindings = false;
  private wantsLies = false;
  private wantsRehearsal = false;
  private rehearsed: Reading | null = null;
  private lain: Reading | null = null;
  private readonly latest = {
    study: new Latest(),
    details: new Latest(),
    findings: new Latest(),
    lies: new Latest(),
    drills: new Latest(),
    rehearsal: new Latest(),
    survey: new Latest(),
    effects: new Latest(),
    like: new Latest(),
    skeleton: new Latest()
  };

  /** @param reading the reading as it is now, in plain records @param player whom it is for @param fail one sentence on what went wrong @param first called when the first study stands */
  constructor(
    private readonly port: StudyPort,
    stored: Facts,
    private readonly reading: () => Reading,
    private readonly player: () => Player | null,
    private readonly fail: (sentence: string) => void,
    private readonly first: () => void
  ) {
    this.facts = stored;
  }

  /** Opens the text of the piece. @param stored its facts, where they are stored @returns its score */
  async open(document: string, stored: Facts | null): Promise<Score> {
    const score = JSON.parse(await this.port.open(document, stored)) as Score;
    // Another text of the same piece: everything is looked at anew.
    this.studied = '';
    this.surveyed = NOTHING_CORRECTED;
    this.proved = this.lain = this.rehearsed = null;
    return score;
  }

  /** Works out again what the reading has changed. */
  refresh(): void {
    const reading = this.reading();
    const key = JSON.stringify([reading.pins, styleOf(reading), reading.part]);
    if (key !== this.studied) {
      this.studied = key;
      this.study(reading);
    }
    if (this.wantsFindings) this.prove();
    if (this.wantsLies) this.lay();
    if (this.wantsRehearsal) this.rehearse();
    this.takeSurvey(reading);
  }

  /** Asks for everything that a closer look finds; it is kept up to date from then on. */
  needDetails(): void {
    if (this.wantsDetails) return;
    this.wantsDetails = true;
    if (this.ready && !this.busy) this.askDetails(this.reading().pins);
  }

  /** Asks for the findings of the proof; they are kept up to date from then on. */
  needFindings(): void {
    this.wantsFindings = true;
    if (this.ready) this.prove();
  }

  /** Asks how the part lies; it is kept up to date from then on. */
  needLies(): void {
    this.wantsLies = true;
    if (this.ready) this.lay();
  }

  /** Asks how hard the bars are; it is kept up to date from then on. */
  needRehearsal(): void {
    this.wantsRehearsal = true;
    if (this.ready) this.rehearse();
  }

  /** Asks what each answer to a question would change, for the whole piece or a stretch of it. */
  askEffects(key: SchoolKey, range: { from: Fraction; to: Fraction } | null): void {
    this.effects = null;
    const take = (effects: SchoolEffect[]): void => void (this.effects = { key, effects });
    void this.latest.effects.ask(() => this.port.effects(this.reading(), key, range, this.player()), take, this.failed);
  }

  /** A first reading in a period, of the whole score or of the part that is looked at; null where it could not be made. */
  draft(period: Period, amount: Amount, all: boolean): Promise<Drafted[] | null> {
    return this.asked(() => this.port.draft({ ...this.reading(), period }, amount, all));
  }

  /** Looks for all places that are like some notes. */
  find(notes: readonly string[]): void {
    const take = (places: MotiveOccurrence[]): void => void (this.found = { notes: [...notes], places });
    void this.latest.like.ask(() => this.port.like([...notes]), take, this.failed);
  }

  forgetFound(): void {
    this.latest.like.forget();
    this.found = null;
  }

  /** Asks for practice material for some bars, both included. */
  askDrills(from: number, to: number): void {
    this.drills = null;
    const take = (list: Drill[]): void => void (this.drills = { from, to, list });
    void this.latest.drills.ask(() => this.port.drills(this.reading(), this.player(), from, to), take, this.failed);
  }

  /** One drill, set otherwise; null where it cannot be so. */
  drill(wish: DrillWish): Promise<Drill | null> {
    return this.asked(() => this.port.drill(this.reading(), this.player(), wish));
  }

  /** What a plan begins with for the piece; null where it could not be made. */
  planStart(piece: Omit<PlanPiece, 'seconds'>): Promise<PlanStart | null> {
    return this.asked(() => this.port.planStart(this.reading(), this.player(), piece));
  }

  /** Something as a task; null where it could not be made. */
  task(piece: number, wish: TaskWish): Promise<TaskWithSheet | null> {
    return this.asked(() => this.port.task(this.reading(), this.player(), piece, wish));
  }

  /** How a small document sounds, and as a MIDI file; null where it could not be made. */
  sheetPlayed(document: string): Promise<Performance | null> {
    return this.asked(() => this.port.sheetPlayed(document));
  }

  sheetMidi(document: string): Promise<Uint8Array | null> {
    return this.asked(() => this.port.sheetMidi(document));
  }

  /** What is asked once; null where it failed, which is told. */
  private async asked<T>(ask: () => Promise<T>): Promise<T | null> {
    try {
      return await ask();
    } catch (error) {
      this.failed(error);
      return null;
    }
  }

  askSkeleton(range: SkeletonRange): void {
    const { pins, part } = this.reading();
    const take = (document: string | null): void => void (this.skeleton = { ...range, document });
    void this.latest.skeleton.ask(() => this.port.skeleton(pins, part, range), take, this.failed);
  }

  private study(reading: Reading): void {
    this.busy = true;
    void this.latest.study.ask(
      () => this.port.studied(reading),
      ({ facts, proposals, questions }) => {
        this.facts = facts;
        this.proposals = proposals;
        this.questionPlaces = questions;
        this.busy = false;
        if (this.wantsDetails) this.askDetails(reading.pins);
        if (this.ready) return;
        this.ready = true;
        if (this.wantsFindings) this.prove();
        if (this.wantsLies) this.lay();
        if (this.wantsRehearsal) this.rehearse();
        this.first();
      },
      // Asked again with the next change, whatever it is.
      (error) => {
        this.studied = '';
        this.failed(error);
      }
    );
  }

  private askDetails(pins: readonly Pin[]): void {
    this.busy = true;
    const take = (details: Details): void => {
      this.details = details;
      this.busy = false;
    };
    void this.latest.details.ask(() => this.port.details(pins), take, this.failed);
  }

  private prove(): void {
    const reading = this.reading();
    if (this.proved === reading) return;
    this.proved = reading;
    const take = (findings: Finding[]): void => void (this.findings = findings);
    void this.latest.findings.ask(() => this.port.findings(reading, this.player()), take, this.failed);
  }

  private lay(): void {
    const reading = this.reading();
    if (this.lain === reading) return;
    this.lain = reading;
    const take = (lies: HowItLies): void => void (this.lies = lies);
    void this.latest.lies.ask(() => this.port.lies(reading, this.player()), take, this.failed);
  }

  private rehearse(): void {
    const reading = this.reading();
    if (this.rehearsed === reading) return;
    this.rehearsed = reading;
    const take = (found: Pick<DrillContext, 'difficulty' | 'spots'>): void => void (this.rehearsal = found);
    void this.latest.rehearsal.ask(() => this.port.rehearsal(reading, this.player()), take, this.failed);
  }

  private takeSurvey(reading: Reading): void {
    const corrected = correctedIn(reading);
    if (corrected === this.surveyed) return;
    this.surveyed = corrected;
    if (corrected === NOTHING_CORRECTED) {
      this.latest.survey.forget();
      this.survey = null;
      return;
    }
    const take = (survey: Survey): void => void (this.survey = survey);
    void this.latest.survey.ask(() => this.port.survey(reading), take, this.failed);
  }

  private readonly failed = (error: unknown): void => {
    this.busy = false;
    this.fail(sentenceOf(error));
  };
}

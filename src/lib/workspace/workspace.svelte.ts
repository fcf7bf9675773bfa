import { nanoid } from 'nanoid';
import type { Details } from '$core/analysis/details';
import type { Facts, KeyFact } from '$core/analysis/facts';
import type { Pin } from '$core/analysis/pins';
import type { MotiveOccurrence } from '$core/analysis/motives';
import { apply, describe, replay, resolve } from '$core/reading/log';
import { styleOf, type Reading } from '$core/reading/reading';
import type { Command } from '$core/reading/commands/index';
import type { Style } from '$core/reading/context';
import { dynamicPlan } from '$core/reading/dynamic-plan';
import { questionsFrom, type Effect, type QuestionPlaces } from '$core/reading/questions';
import type { SchoolKey } from '$core/style/schools';
import type { Marking } from '$core/markings/marking';
import type { Proposal } from '$core/reading/proposal';
import { add, cmp, type Fraction } from '$core/score/fraction';
import type { Measure, Note, Score } from '$core/score/model';
import { renumbered } from '$core/score/numbering';
import { barLabel, measureAt } from '$core/score/position';
import { keyAsRead } from '$core/score/transposition';
import { spanOf } from '$core/performance/places';
import type { Performance } from '$core/performance/perform';
import { PROFILES } from '$core/style/profiles';
import { Player, type PlayerSource } from '../hearing/player.svelte';
import { sharedEngraver } from '../music/engraver';
import type { StudyAnswer, StudyRequest } from '../workers/study.worker';
import { Saving } from './saving.svelte';
import { takeStudyWorker } from './study-worker';

/** No reading of another source stands in the text. */
const NO_CHOICES = '[]';

/** Milliseconds by which the performance waits for what is seen first. */
const PERFORM_DELAY = 250;

export interface WorkspaceData {
  pieceId: number;
  readingId: number;
  sourceHash: string;
  /** The stored facts, as JSON. */
  facts: string;
  log: Command[];
}

/** Everything that the rooms of one piece share: score, facts, reading, proposals, selection. */
export class Workspace {
  score = $state.raw<Score | null>(null);
  facts = $state.raw<Facts>() as Facts;
  proposals = $state.raw<Proposal[]>([]);
  reading = $state.raw<Reading>() as Reading;
  /** Loudness over the whole piece, as marked, shaped and pulled at. */
  readonly plan = $derived(this.score ? dynamicPlan(this.score, this.facts, this.reading) : null);
  /** Where the questions of school matter; the answers are the reading's. */
  private questionPlaces = $state.raw<QuestionPlaces[]>([]);
  readonly questions = $derived(questionsFrom(this.questionPlaces, this.reading));
  /** What each answer to the opened question would change; null while it is worked out. */
  effects = $state.raw<{ key: SchoolKey; effects: Effect[] } | null>(null);
  /** What a closer look finds; null until a room has asked for it. */
  details = $state.raw<Details | null>(null);
  /** Places that are like the chosen notes, after "find this". */
  found = $state.raw<{ notes: string[]; places: MotiveOccurrence[] } | null>(null);
  /** The reading as it is played, and the page to the letter; null until something is to be heard or measured. */
  performed = $state.raw<{ plan: Performance; page: Performance } | null>(null);
  skeleton = $state.raw<{ from: number; to: number; document: string | null } | null>(null);
  /** Notes that the teacher has chosen on the page, by id. */
  chosen = $state.raw<ReadonlySet<string>>(new Set());
  /** Selected measures, both included; `anchor` is where a range began. */
  selection = $state.raw({ from: 0, to: 0, anchor: 0 });
  /** Marking that the brief shows opened. */
  openMarking = $state<string | null>(null);
  notice = $state<string | null>(null);
  fault = $state<string | null>(null);
  studying = $state(true);
  /** The page at written or at sounding pitch. */
  pitch = $state<'written' | 'sounding'>('written');
  /** Whether the parts that the reading is not for are shown too. */
  othersShown = $state(true);
  /** Counts how often the engraver was given another picture of the score. */
  engraving = $state(0);
  canUndo = $state<string | null>(null);
  canRedo = $state<string | null>(null);
  readonly engraver = sharedEngraver();
  readonly player: Player;
  readonly saving: Saving;

  /** The facts as computed, without corrections. */
  private readonly base: Facts;
  private readonly worker = takeStudyWorker();
  private wantsDetails = false;
  private studiedOnce = false;
  private wantsPerformance = false;
  /** The worker plays; a change meanwhile is played next. */
  private performing: 'no' | 'yes' | 'again' = 'no';
  private trials = new Map<string, (performance: Performance) => void>();
  private trialNumber = 0;
  private studyNumber = 0;
  private effectsNumber = 0;
  private studied = '';
  private document = '';
  /** Which text of the source is open, or on its way; null before the first. */
  private opened: string | null = null;
  /** The score as read, with the numbers that are printed. */
  private source: Score | null = null;
  private shown = '';
  private notes = new Map<string, Note>();

  constructor(readonly data: WorkspaceData) {
    this.base = JSON.parse(data.facts) as Facts;
    this.facts = this.base;
    const takeIn = (_log: Command[], fromElsewhere: number): void => {
      this.rebuild();
      if (fromElsewhere)
        this.notice = `${fromElsewhere === 1 ? 'A change' : `${fromElsewhere} changes`} made in another window ${fromElsewhere === 1 ? 'was' : 'were'} taken in; nothing of yours was lost.`;
    };
    this.saving = new Saving(data.readingId, [...data.log], takeIn, (sentence) => (this.notice = sentence));
    this.player = new Player(this.playerSource());
    this.rebuild();
    this.worker.onmessage = ({ data: answer }: MessageEvent<StudyAnswer>) => this.receive(answer);
    void this.open();
  }

  close(): void {
    this.player.close();
    this.worker.terminate();
    this.saving.close();
  }

  /** Carries out acts of the instructor: shown at once, saved as they happen. */
  act(...commands: Command[]): void {
    this.saving.add(commands);
    if (commands.some((c) => c.type === 'undo' || c.type === 'redo')) this.rebuild();
    else {
      this.reading = commands.reduce(apply, this.reading);
      this.afterChange();
    }
  }

  undo(): void {
    if (this.canUndo) this.act({ type: 'undo' });
  }

  redo(): void {
    if (this.canRedo) this.act({ type: 'redo' });
  }

  keep(proposal: Proposal, change: Partial<Marking> = {}): void {
    const marking = { ...proposal.marking, proposed: proposal.marking.value, ...change, id: `mark-${nanoid()}` };
    this.act({ type: 'keep', key: proposal.key, marking });
  }

  setAside(proposal: Proposal): void {
    this.act({ type: 'set-aside', key: proposal.key });
  }

  reopen(key: string): void {
    this.act({ type: 'reopen', key });
  }

  pin(pin: Pin): void {
    this.act({ type: 'pin', pin });
  }

  select(measure: number, extend = false): void {
    // While the score is still on its way, the bar is taken as it is asked for.
    const last = this.score ? this.score.measures.length - 1 : Number.MAX_SAFE_INTEGER;
    const to = Math.max(0, Math.min(last, measure));
    const { anchor } = this.selection;
    this.selection = extend ? { from: Math.min(anchor, to), to: Math.max(anchor, to), anchor } : { from: to, to, anchor: to };
    this.openMarking = null;
  }

  /** Moves the selection's open end by bars. */
  step(by: number, extend: boolean): void {
    const { from, to, anchor } = this.selection;
    this.select((anchor === from ? to : from) + by, extend);
  }

  note(id: string | undefined): Note | undefined {
    return id === undefined ? undefined : this.notes.get(id);
  }

  measureOf(time: Fraction): Measure | null {
    return this.score && measureAt(this.score, time);
  }

  /** "Bar 12", "Upbeat"; a renumbered bar says what is printed over it. */
  barName(measure: Measure): string {
    const label = this.score ? barLabel(this.score.measures, measure) : '';
    return label.charAt(0).toUpperCase() + label.slice(1) + (measure.printed ? ` (printed ${measure.printed})` : '');
  }

  /** Whether the part of the reading is written at another pitch than it sounds. */
  get transposes(): boolean {
    return (this.score?.parts[this.reading.part]?.transpose.chromatic ?? 0) % 12 !== 0;
  }

  /** A key as the page shows it: at written pitch the player's, with the sounding one behind it. */
  keyName(fact: Pick<KeyFact, 'key' | 'name'>): string {
    return !this.score || this.pitch === 'sounding' ? fact.name : keyAsRead(fact, this.score.parts[this.reading.part].transpose);
  }

  showAt(pitch: 'written' | 'sounding'): void {
    this.pitch = pitch;
    this.engraving++;
  }

  showOthers(shown: boolean): void {
    this.othersShown = shown;
    this.show();
  }

  /** True when a time lies in the selected bars. */
  inSelection(start: Fraction, end: Fraction | null = null): boolean {
    const { score } = this;
    if (!score) return false;
    const first = score.measures[this.selection.from];
    const next = score.measures[this.selection.to + 1];
    const before = end ? cmp(end, first.start) > 0 : cmp(start, first.start) >= 0;
    return before && (!next || cmp(start, next.start) < 0);
  }

  /** Open and decided proposals. */
  decisionOf(key: string): Reading['decisions'][string] | undefined {
    return this.reading.decisions[key];
  }

  /** The facts that are known already, while the text is the source's own. */
  private get stored(): Facts | null {
    return this.opened === NO_CHOICES ? this.base : null;
  }

  /** What makes another text of the source. */
  private get chosenText(): string {
    const taken = this.reading.sourceChoices.filter((c) => c.take === 'theirs').map((c) => `${c.source}/${c.difference}`);
    return JSON.stringify(taken.sort());
  }

  private async open(): Promise<void> {
    const wanted = (this.opened = this.chosenText);
    try {
      if (wanted !== NO_CHOICES) await this.saving.settled();
      const address = wanted === NO_CHOICES ? `/api/sources/${this.data.sourceHash}` : `/api/readings/${this.data.readingId}/document`;
      const response = await fetch(address);
      if (wanted !== this.opened) return;
      if (!response.ok) throw new Error('The score could not be fetched.');
      const document = await response.text();
      this.send({ type: 'open', document });
      this.document = document;
    } catch (error) {
      this.fault = error instanceof Error ? error.message : 'The score could not be opened.';
    }
  }

  private receive(answer: StudyAnswer): void {
    if (answer.type === 'opened') {
      this.source = JSON.parse(answer.score) as Score;
      // Another text of the same piece: everything is looked at anew.
      this.shown = this.studied = '';
      this.notes = new Map(this.source.notes.map((n) => [n.id, n]));
      this.show();
      void this.firstPicture().then(() => this.study());
    } else if (answer.type === 'studied') {
      if (answer.number !== this.studyNumber) return;
      this.facts = answer.facts;
      this.proposals = answer.proposals;
      this.questionPlaces = answer.questions;
      this.studying = this.wantsDetails;
      if (this.wantsDetails) this.askDetails();
      if (!this.studiedOnce) {
        this.studiedOnce = true;
        this.perform();
      }
    } else if (answer.type === 'detailed') {
      if (answer.number !== this.studyNumber) return;
      this.details = answer.details;
      this.studying = false;
    } else if (answer.type === 'effects') {
      if (answer.number === this.effectsNumber) this.effects = answer;
    } else if (answer.type === 'found') this.found = { notes: answer.notes, places: answer.places };
    else if (answer.type === 'performed') this.receivePerformance(answer);
    else if (answer.type === 'skeleton') this.skeleton = answer;
    else {
      this.fault = answer.message;
      this.studying = false;
    }
  }

  /** Asks for everything that a closer look finds; it is kept up to date from then on. */
  needDetails(): void {
    if (this.wantsDetails) return;
    this.wantsDetails = true;
    if (this.score && !this.studying) this.askDetails();
  }

  /** Asks for the performance; it is kept up to date from then on. */
  needPerformance(): void {
    if (this.wantsPerformance) return;
    this.wantsPerformance = true;
    this.needDetails();
    this.perform();
  }

  /** Plays the bars around a proposal, with it or without it. */
  hear(proposal: Proposal, withIt: boolean): void {
    const first = this.measureOf(proposal.marking.start);
    const last = this.measureOf(proposal.marking.end ?? proposal.marking.start);
    if (!first || !last) return;
    const marking: Marking = { ...proposal.marking, id: 'on-trial' };
    const { reading } = this;
    this.hearReading(withIt ? { ...reading, markings: [...reading.markings, marking] } : reading, first.index - 1, last.index + 1);
  }

  /** Plays some bars (measure indices, both included) as another reading of the score has them. */
  hearReading(reading: Reading, from: number, to: number): void {
    this.needPerformance();
    const { score } = this;
    if (!score) return;
    const key = `trial-${++this.trialNumber}`;
    this.trials.set(key, (performance) => {
      const span = spanOf(performance, Math.max(0, from), Math.min(score.measures.length - 1, to));
      void this.player.start({ performance, ...span });
    });
    this.send({
      type: 'perform',
      pins: $state.snapshot(reading.pins) as Pin[],
      base: this.stored,
      reading: $state.snapshot(reading) as Reading,
      trial: key
    });
  }

  private perform(): void {
    // Proposals come first.
    if (!this.wantsPerformance || !this.studiedOnce) return;
    if (this.performing !== 'no') {
      this.performing = 'again';
      return;
    }
    this.performing = 'yes';
    const ask = () => this.send({ type: 'perform', pins: this.pins, base: this.stored, reading: this.reading, trial: null });
    // The page and the brief come first, unless one is listening.
    if (this.player.playing) ask();
    else setTimeout(ask, PERFORM_DELAY);
  }

  private receivePerformance(answer: Extract<StudyAnswer, { type: 'performed' }>): void {
    if (answer.trial !== null) {
      this.trials.get(answer.trial)?.(answer.plan);
      this.trials.delete(answer.trial);
      return;
    }
    const page = answer.page ?? this.performed?.page;
    if (page) this.performed = { plan: answer.plan, page };
    this.player.refresh();
    const again = this.performing === 'again';
    this.performing = 'no';
    if (again) this.perform();
  }

  /** The player sees the workspace as it is at each moment. */
  private playerSource(): PlayerSource {
    const levels = (least: number): string[] => this.details?.roles.filter((r) => r.level >= least).map((r) => r.note) ?? [];
    return {
      score: () => this.score,
      performance: (version) => this.performed?.[version] ?? null,
      skeleton: () => new Set(levels(1)),
      anchors: () => new Set([...levels(2), ...this.facts.sequences.flatMap((s) => s.anchors)]),
      part: () => this.reading.part,
      swing: () => styleOf(this.reading).schools.swing ?? PROFILES[this.reading.period].schools.swing,
      selection: () => this.selection
    };
  }

  /** Asks what each answer to a question would change; for the selected bars only where `here`. */
  askEffects(key: SchoolKey, here: boolean): void {
    this.effects = null;
    this.send({
      type: 'effects',
      number: ++this.effectsNumber,
      key,
      range: here ? this.selectedRange() : null,
      pins: this.pins,
      base: this.stored,
      style: $state.snapshot(styleOf(this.reading)) as Style,
      part: this.reading.part
    });
  }

  /** The selected bars as a half-open stretch of time. */
  selectedRange(): { from: Fraction; to: Fraction } {
    const { measures } = this.score!;
    const last = measures[Math.min(this.selection.to, measures.length - 1)];
    return { from: measures[Math.min(this.selection.from, measures.length - 1)].start, to: add(last.start, last.length) };
  }

  /** Looks for all places that are like the chosen notes. */
  find(notes: readonly string[]): void {
    this.send({ type: 'find', notes: [...notes] });
  }

  /** Asks for the skeleton of some bars at a level (1 all beats, 2 strong beats). */
  askSkeleton(from: number, to: number, level: 1 | 2): void {
    this.send({ type: 'skeleton', from, to, level, part: this.reading.part, pins: this.pins, base: this.stored });
  }

  choose(note: string): void {
    const next = new Set(this.chosen);
    if (!next.delete(note)) next.add(note);
    this.chosen = next;
  }

  clearChosen(): void {
    this.chosen = new Set();
    this.found = null;
  }

  private get pins(): Pin[] {
    return $state.snapshot(this.reading.pins) as Pin[];
  }

  private askDetails(): void {
    this.studying = true;
    this.send({ type: 'details', number: this.studyNumber, pins: this.pins, base: this.stored });
  }

  /** Where a page is in view, its first system comes before everything else; both would want the same processor. */
  private async firstPicture(): Promise<void> {
    const frames = new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve)));
    // A window that is hidden draws no frames.
    await Promise.race([frames, new Promise((resolve) => setTimeout(resolve, 300))]);
    await this.engraver.picture();
  }

  /** Gives the page and the engraver the score as it is to be seen now: numbering and parts. */
  private show(): void {
    const { source, reading } = this;
    if (!source) return;
    const part = source.parts[reading.part] ? reading.part : 0;
    const parts = this.othersShown || source.parts.length === 1 ? null : [part];
    const key = JSON.stringify([reading.numbering, parts]);
    if (key === this.shown) return;
    this.shown = key;
    const score = reading.numbering === 'counted' ? renumbered(source) : source;
    this.engraver.open(this.document, score, parts);
    this.score = score;
    this.engraving++;
  }

  private rebuild(): void {
    this.reading = replay(this.saving.log);
    this.afterChange();
  }

  private afterChange(): void {
    const { done, undone } = resolve(this.saving.log);
    this.canUndo = done.length ? describe(done[done.length - 1]) : null;
    this.canRedo = undone.length ? describe(undone[undone.length - 1]) : null;
    if (this.opened !== null && this.chosenText !== this.opened) void this.open();
    if (!this.source) return;
    this.show();
    this.study();
    this.perform();
  }

  /** Works facts and proposals out again when corrections or the period have changed. */
  private study(): void {
    const { pins, part } = this.reading;
    const style = styleOf(this.reading);
    const key = JSON.stringify([pins, style, part]);
    if (key === this.studied) return;
    this.studied = key;
    this.studying = true;
    this.send({ type: 'study', number: ++this.studyNumber, pins: this.pins, base: this.stored, style: $state.snapshot(style), part });
  }

  private send(request: StudyRequest): void {
    this.worker.postMessage(request);
  }
}

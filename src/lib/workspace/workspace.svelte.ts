import { nanoid } from 'nanoid';
import type { Facts, KeyFact } from '$core/analysis/facts';
import type { Pin } from '$core/analysis/pins';
import type { Because, Marking } from '$core/markings/marking';
import { toldAnew } from '$core/reading/claims/anew';
import type { Command } from '$core/reading/commands/index';
import type { Standing } from '$core/reading/log';
import { dynamicPlan } from '$core/reading/dynamic-plan';
import { handsOfPart } from '$core/reading/hands';
import type { Player as Musician } from '$core/players/player';
import { fitted } from '$core/reading/fitted';
import type { Proposal } from '$core/reading/proposal';
import { questionsFrom } from '$core/reading/questions';
import { styleOf, type Reading } from '$core/reading/reading';
import type { Fraction } from '$core/score/fraction';
import type { Measure, Note, Score } from '$core/score/model';
import { renumbered } from '$core/score/numbering';
import { barLabel, measureAt } from '$core/score/position';
import { keyAsRead, toldKey } from '$core/analysis/key-words';
import type { Instrument } from '$core/style/instruments/instrument';
import { UNKNOWN_INSTRUMENT } from '$core/style/instruments/index';
import { instrumentOf } from '$core/style/instruments/instrument-of';
import { PROFILES } from '$core/style/profiles';
import { Player, type PlayerSource } from '../hearing/player.svelte';
import { sharedEngraver } from '../music/engraver';
import { PiecePractice } from '../practice/piece-practice.svelte';
import { SheetSound } from '../practice/sheet-sound.svelte';
import { Pencil } from '../music/pencil.svelte';
import { sentenceOf } from './latest';
import { PieceStudy } from './piece-study.svelte';
import { Playing } from './playing.svelte';
import { ReadingLog } from './reading-log.svelte';
import { Selection } from './selection.svelte';
import { takeStudyWorker } from './study-worker';
import type { Facsimile } from '../shapes';
import { api } from '../api';

/** No reading of another source stands in the text. */
const NO_CHOICES = '[]';

export interface WorkspaceData {
  pieceId: number;
  readingId: number;
  sourceHash: string;
  /** Name of the engine that made them. */
  engine: string;
  /** The paper that it was written from; null where there is none. */
  paper: Facsimile | null;
  /** The stored facts, as JSON. */
  facts: string;
  /** Further sources of the piece. */
  otherSources: { hash: string; name: string }[];
  /** All players of the studio. */
  players: Musician[];
  /** The history that the log belongs to, and where it stands. */
  history: string;
  standing: Standing;
}

/** Everything that the rooms of one piece share, each in a part of its own: the log, the study, the selection, the playing. */
export class Workspace {
  readonly log: ReadingLog;
  readonly study: PieceStudy;
  readonly selection = new Selection(() => this.score);
  readonly playing: Playing;
  readonly player: Player;
  /** Notes in hand, and what is done to them. */
  readonly pencil: Pencil = new Pencil(this);
  /** The plans that the piece is practised in, and how its sheets sound. */
  readonly practice: PiecePractice = new PiecePractice(this);
  readonly sheets = new SheetSound((document) => this.study.sheetPlayed(document));
  readonly engraver = sharedEngraver();

  /** The score as it is seen: with its numbering. */
  score = $state.raw<Score | null>(null);
  private readonly fitted = $derived.by(() =>
    this.score ? fitted(this.log.reading, this.score) : { reading: this.log.reading, remarks: [] }
  );
  /** Loudness over the whole piece, as marked, shaped and pulled at. */
  readonly plan = $derived.by(() => (this.score ? dynamicPlan(this.score, this.facts, this.reading, this.hand) : null));
  /** Staves of the part to whose hand alone something is said, the upper one with them. */
  readonly hands = $derived.by(() => (this.score ? handsOfPart(this.score, this.reading) : [1]));
  /** The hand whose plan is shown. */
  chosenHand = $state(1);
  readonly questions = $derived.by(() => questionsFrom(this.study.questionPlaces, this.reading));
  notice = $state<string | null>(null);
  fault = $state<string | null>(null);
  /** The page at written or at sounding pitch. */
  pitch = $state<'written' | 'sounding'>('written');
  /** Whether the parts that the reading is not for are shown too. */
  othersShown = $state(true);
  /** Counts how often the engraver was given another picture of the score. */
  engraving = $state(0);

  /** The facts as computed, without corrections. */
  private readonly base: Facts;
  private readonly worker = takeStudyWorker();
  private document = '';
  /** Which text of the source is open, or on its way; null before the first. */
  private opened: string | null = null;
  /** The score as read, with the numbers that are printed. */
  private source: Score | null = null;
  private shown = '';
  private notes = new Map<string, Note>();

  constructor(readonly data: WorkspaceData) {
    this.base = JSON.parse(data.facts) as Facts;
    const fail = (sentence: string): void => void (this.fault = sentence);
    const plain = (): Reading => $state.snapshot(this.reading) as Reading;
    this.log = new ReadingLog(
      data.readingId,
      data.history,
      data.standing,
      () => this.afterChange(),
      (sentence) => (this.notice = sentence)
    );
    this.player = new Player(this.playerSource());
    this.playing = new Playing(this.worker.port, this.player, plain, fail);
    this.study = new PieceStudy(
      this.worker.port,
      this.base,
      plain,
      () => this.playedBy,
      fail,
      () => this.playing.allow()
    );
    void this.open();
  }

  close(): void {
    this.player.close();
    this.sheets.close();
    this.worker.close();
    this.log.close();
  }

  get reading(): Reading {
    return this.fitted.reading;
  }

  /** What of the reading had to be left out, in sentences. */
  get remarks(): string[] {
    return this.fitted.remarks;
  }

  /** Reasons of the markings by id, told from what holds now. */
  private readonly told = $derived(
    new Map(this.score ? toldAnew(this.reading.markings, this.score, () => this.facts).map((m) => [m.id, m.because]) : [])
  );

  /** Why a marking stands, in the words of what holds now. */
  reasonsOf(marking: Marking): readonly Because[] {
    return this.told.get(marking.id) ?? marking.because;
  }

  /** Whom the reading is for, if there is such a player in this studio. */
  get playedBy(): Musician | null {
    const named = this.reading.player;
    return (named && this.data.players.find((p) => p.key === named.key)) || null;
  }

  /** What the part of the reading is played on. */
  readonly instrument = $derived(this.instrumentOf(this.reading.part));

  /** What a part is played on. */
  instrumentOf(part: number): Instrument {
    return this.score?.parts[part] ? instrumentOf(this.score, this.score.parts[part], this.reading.instruments) : UNKNOWN_INSTRUMENT;
  }

  /** Proposals that are neither kept nor set aside. */
  readonly proposals = $derived.by(() => this.study.proposals.filter((p) => !this.decisionOf(p.key)));

  get hand(): number {
    return this.hands.includes(this.chosenHand) ? this.chosenHand : 1;
  }

  get facts(): Facts {
    return this.study.facts;
  }

  /** Carries out acts of the instructor: shown at once, saved as they happen. */
  act(...commands: Command[]): void {
    this.log.act(...commands);
  }

  keep(proposal: Proposal, change: Partial<Marking> = {}): void {
    const marking = { ...proposal.marking, proposed: proposal.marking.value, ...change, id: `mark-${nanoid()}` };
    this.act({ type: 'keep', key: proposal.key, marking });
  }

  pin(pin: Pin): void {
    this.act({ type: 'pin', pin });
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
  keyName(fact: Pick<KeyFact, 'key' | 'tonality'>): string {
    return !this.score || this.pitch === 'sounding' ? toldKey(fact) : keyAsRead(fact, this.score.parts[this.reading.part].transpose);
  }

  showAt(pitch: 'written' | 'sounding'): void {
    this.pitch = pitch;
    this.engraving++;
  }

  showOthers(shown: boolean): void {
    this.othersShown = shown;
    this.show();
  }

  /** Open and decided proposals. */
  decisionOf(key: string): Reading['decisions'][string] | undefined {
    return this.reading.decisions[key];
  }

  /** Asks for what is measured and heard, with the closer look that it rests on. */
  needPerformance(): void {
    this.study.needDetails();
    this.playing.need();
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
    if (!this.score) return;
    this.study.needDetails();
    const last = this.score.measures.length - 1;
    void this.playing.hear($state.snapshot(reading) as Reading, Math.max(0, from), Math.min(last, to));
  }

  /** What makes another text of the source. */
  private get chosenText(): string {
    const taken = this.reading.sourceChoices.filter((c) => c.take === 'theirs').map((c) => `${c.source}/${c.difference}`);
    return JSON.stringify(taken.sort());
  }

  private async open(): Promise<void> {
    const wanted = (this.opened = this.chosenText);
    try {
      if (wanted !== NO_CHOICES) await this.log.saving.settled();
      const document = await (wanted === NO_CHOICES ? api.source(this.data.sourceHash) : api.chosenDocument(this.data.readingId));
      if (wanted !== this.opened) return;
      const source = await this.study.open(document, wanted === NO_CHOICES ? this.base : null);
      if (wanted !== this.opened) return;
      this.document = document;
      this.source = source;
      this.shown = '';
      this.notes = new Map(source.notes.map((n) => [n.id, n]));
      this.playing.forget();
      this.show();
      await this.firstPicture();
      this.study.refresh();
      if (this.remarks.length) this.notice = this.remarks.join(' ');
    } catch (error) {
      this.fault = sentenceOf(error);
    }
  }

  /** The player sees the workspace as it is at each moment. */
  private playerSource(): PlayerSource {
    const levels = (least: number): string[] => this.study.details?.roles.filter((r) => r.level >= least).map((r) => r.note) ?? [];
    return {
      score: () => this.score,
      performance: (version) => this.playing.performed?.[version] ?? null,
      instruments: () => this.score?.parts.map((p) => instrumentOf(this.score!, p, this.reading.instruments).key) ?? [],
      skeleton: () => new Set(levels(1)),
      anchors: () => new Set([...levels(2), ...this.facts.sequences.flatMap((s) => s.anchors)]),
      part: () => this.reading.part,
      swing: () => styleOf(this.reading).schools.swing ?? PROFILES[this.reading.period].schools.swing,
      selection: () => this.selection
    };
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

  private afterChange(): void {
    if (this.opened !== null && this.chosenText !== this.opened) void this.open();
    if (!this.source) return;
    this.show();
    this.study.refresh();
    this.playing.refresh();
  }
}

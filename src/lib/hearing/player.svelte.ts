import type * as ToneModule from 'tone';
import { clicksOf, indexAt, placeAt, secondsAt, spanOf, type Click } from '$core/performance/transport';
import { searchBy } from '$core/search';
import type { ClickKind } from '$core/performance/clicks';
import { brightnessOf } from '$core/performance/loudness';
import type { Performance, PlayedNote } from '$core/performance/perform';
import type { Score } from '$core/score/model';
import { gainOf, tone, voiceFor, type Tone, type Voice } from './instruments';

const byOnset = searchBy((note: PlayedNote) => note.onset);
const byMoment = searchBy((click: Click) => click.at);

export type Version = 'plan' | 'page';
export type Sounding = 'everything' | 'line' | 'others' | 'skeleton' | 'anchors';

/** What a player plays from; asked for anew at every use, so that it follows the reading. */
export interface PlayerSource {
  score(): Score | null;
  performance(version: Version): Performance | null;
  /** Keys of the instruments, by part. */
  instruments(): readonly string[];
  /** Notes of the skeleton, and anchor notes, by id. */
  skeleton(): ReadonlySet<string>;
  anchors(): ReadonlySet<string>;
  part(): number;
  swing(): string | undefined;
  selection(): { readonly from: number; readonly to: number };
}

/** Event on the window for every note that is handed to the audio clock. */
const SCHEDULED = 'nuvelo-scheduled';
export interface ScheduledNote {
  note: string;
  bar: number;
  onset: number;
  /** Moment on the audio clock. */
  at: number;
  rate: number;
}

/** Seconds that notes are handed over before they sound, and before the first one. */
const AHEAD = 0.2;
/** Seconds that each of two compared chords sounds. */
const CHORD_SECONDS = 1.4;
const LEAD_IN = 0.06;

/** Seconds after which a note is looked for no more among those that sound. */
const LONGEST_NOTE = 12;

/** Where the softest and the loudest notes are cut off, in hertz. Set by ear. */
const DULLEST = 1800;
const BRIGHTEST = 16_000;

/** Plays performances on the audio clock; what sounds follows the reading while it plays. */
export class Player {
  playing = $state(false);
  loading = $state(false);
  fault = $state<string | null>(null);
  version = $state<Version>('plan');
  rate = $state(1);
  loop = $state(false);
  clicking = $state<ClickKind>('none');
  countIn = $state(false);
  sounding = $state<Sounding>('everything');
  plain = $state(false);
  /** Parts and staves that are silent, as "part|staff". */
  muted = $state.raw<ReadonlySet<string>>(new Set());
  /** Measure that sounds now, and seconds from the beginning; null when nothing does. */
  measure = $state<number | null>(null);
  seconds = $state(0);
  /** Names of the samples in use, for the attribution. */
  sets = $state.raw<string[]>([]);

  private tone: Tone | null = null;
  private voices = new Map<number, Voice>();
  private gains = new Map<number, ToneModule.Gain>();
  private filters = new Map<number, ToneModule.Filter>();
  private master: ToneModule.Gain | null = null;
  private clicker: ToneModule.Synth | null = null;
  private plainVoices = false;
  /** What is being played: that of the reading, or one that was given (a proposal on trial). */
  private trial: { performance: Performance; from: number; to: number } | null = null;
  private current: Performance | null = null;
  private clicks: Click[] = [];
  private anchor = { audio: 0, seconds: 0 };
  private nextNote = 0;
  private nextClick = 0;
  private end = Infinity;
  private loopFrom: number | null = null;
  /** Until when chords sound outside the piece; null while none do. */
  private sounded: ReturnType<typeof setTimeout> | null = null;
  private readonly tick = (): void => this.hand();

  constructor(private readonly source: PlayerSource) {}

  /** Starts at the selected bars, or stops. */
  async toggle(): Promise<void> {
    if (this.playing) this.stop();
    else await this.start();
  }

  async start(trial: Player['trial'] = null): Promise<void> {
    if (this.playing) this.stop();
    this.hush();
    if (!(await this.ready())) return;
    this.trial = trial;
    const performance = this.wanted();
    if (!performance) return;
    const { from, to } = this.source.selection();
    const span = trial ?? spanOf(performance, from, to);
    const T = this.tone!;
    this.master!.gain.cancelScheduledValues(T.immediate());
    this.master!.gain.setValueAtTime(1, T.immediate());
    this.loopFrom = this.loop && !trial ? span.from : null;
    this.end = this.loop || trial ? span.to : performance.length;
    this.take(performance);
    let audio = T.immediate() + LEAD_IN;
    if (this.countIn && !trial) audio = this.countBefore(performance, span.from, audio);
    this.anchor = { audio, seconds: span.from };
    this.seek(span.from);
    this.playing = true;
    T.getContext().on('tick', this.tick);
    this.hand();
    this.follow();
  }

  /** Sounds a few chords one after the other, outside the piece. MIDI numbers. */
  async chords(chords: readonly (readonly number[])[]): Promise<void> {
    if (this.playing) this.stop();
    this.hush();
    if (!(await this.ready())) return;
    const T = this.tone!;
    const voice = this.voices.values().next().value;
    chords.forEach((chord, k) => {
      const at = T.immediate() + LEAD_IN + k * CHORD_SECONDS;
      for (const m of chord) voice?.instrument.triggerAttackRelease(T.Frequency(m, 'midi').toFrequency(), CHORD_SECONDS * 0.9, at, 0.4);
    });
    this.sounded = setTimeout(() => this.hush(), 1000 * (LEAD_IN + (chords.length + 0.5) * CHORD_SECONDS));
  }

  /** Ends chords that were sounded outside the piece. */
  private hush(): void {
    if (this.sounded === null) return;
    clearTimeout(this.sounded);
    this.sounded = null;
    this.dropVoices();
  }

  stop(): void {
    const T = this.tone;
    this.playing = false;
    this.measure = null;
    this.trial = null;
    if (!T || !this.master) return;
    T.getContext().off('tick', this.tick);
    // A short fade instead of a cut: no click.
    const now = T.immediate();
    this.master.gain.cancelScheduledValues(now);
    this.master.gain.setValueAtTime(1, now);
    this.master.gain.linearRampToValueAtTime(0, now + 0.03);
    for (const { instrument } of this.voices.values()) instrument.releaseAll(now + 0.03);
    this.dropVoices();
  }

  close(): void {
    if (this.playing) this.stop();
    else this.dropVoices();
  }

  /** The reading, the version or what sounds has changed: playing goes on from the same place. */
  refresh(): void {
    if (!this.playing || this.trial) return;
    const performance = this.wanted();
    if (!performance || !this.current) return;
    const T = this.tone!;
    // What has been handed over sounds; the rest is taken from the new one.
    const audio = T.immediate() + AHEAD;
    const place = placeAt(this.current, this.secondsAtAudio(audio));
    const from = secondsAt(performance, place);
    const { from: first, to } = this.source.selection();
    if (this.loopFrom !== null) {
      const span = spanOf(performance, first, to);
      this.loopFrom = span.from;
      this.end = span.to;
    } else this.end = performance.length;
    this.anchor = { audio, seconds: from };
    this.take(performance);
    this.seek(from);
  }

  setRate(rate: number): void {
    if (this.playing) {
      const audio = this.tone!.immediate() + AHEAD;
      this.anchor = { audio, seconds: this.secondsAtAudio(audio) };
      this.rate = rate;
      this.seek(this.anchor.seconds);
    } else this.rate = rate;
  }

  mute(key: string, silent: boolean): void {
    const next = new Set(this.muted);
    if (silent) next.add(key);
    else next.delete(key);
    this.muted = next;
  }

  private wanted(): Performance | null {
    return this.trial?.performance ?? this.source.performance(this.version);
  }

  /** Loads what sounds; asked for by a click, as browsers want it. */
  private async ready(): Promise<boolean> {
    const score = this.source.score();
    if (!score) return false;
    this.loading = true;
    this.fault = null;
    try {
      this.tone = await tone();
      await this.tone.start();
      if (this.plainVoices !== this.plain) this.dropVoices();
      this.plainVoices = this.plain;
      this.master = new this.tone.Gain(1).toDestination();
      this.clicker ??= new this.tone.Synth({
        oscillator: { type: 'square' },
        envelope: { attack: 0.001, decay: 0.03, sustain: 0, release: 0.02 }
      }).toDestination();
      const instruments = this.source.instruments();
      for (const part of score.parts) {
        const voice = await voiceFor(instruments[part.index], this.plain);
        const filter = new this.tone.Filter({ type: 'lowpass', frequency: BRIGHTEST, rolloff: -12 }).connect(this.master);
        const gain = new this.tone.Gain(1).connect(filter);
        voice.instrument.connect(gain);
        this.filters.set(part.index, filter);
        this.voices.set(part.index, voice);
        this.gains.set(part.index, gain);
      }
      this.sets = [...new Set([...this.voices.values()].map((v) => v.set ?? 'plain tone'))];
      return true;
    } catch {
      this.fault = 'The sound cannot be started in this browser.';
      return false;
    } finally {
      this.loading = false;
    }
  }

  private dropVoices(): void {
    const old = [...this.voices.values()].map((v) => v.instrument);
    const nodes = [...this.gains.values(), ...this.filters.values(), ...(this.master ? [this.master] : [])];
    this.voices.clear();
    this.gains.clear();
    this.filters.clear();
    this.master = null;
    // The fade comes first.
    setTimeout(() => [...old, ...nodes].forEach((n) => n.dispose()), 400);
  }

  private take(performance: Performance): void {
    this.current = performance;
    const score = this.source.score();
    this.clicks = score ? clicksOf(score, performance, this.clicking, this.source.swing()) : [];
  }

  /** A bar of clicks before the music, at the tempo of the bar that comes. @returns when the music begins */
  private countBefore(performance: Performance, from: number, audio: number): number {
    const bar = performance.bars[indexAt(performance.bars, from + 1e-6)];
    const beats = performance.beats.filter((b) => b.measure === bar.measure && b.pass === bar.pass);
    let at = audio;
    beats.forEach((b, k) => {
      this.click({ at: 0, weight: k === 0 ? 2 : 1 }, at);
      at += b.literal / this.rate;
    });
    return at;
  }

  private secondsAtAudio(audio: number): number {
    return this.anchor.seconds + (audio - this.anchor.audio) * this.rate;
  }

  private seek(seconds: number): void {
    const { notes } = this.current!;
    this.nextNote = byOnset.firstFrom(notes, seconds - 1e-6);
    this.nextClick = byMoment.firstFrom(this.clicks, seconds - 1e-6);
  }

  /** Hands over what begins within the next moment. */
  private hand(): void {
    const T = this.tone;
    if (!this.playing || !T || !this.current) return;
    const now = T.immediate();
    for (;;) {
      const until = Math.min(this.end, this.secondsAtAudio(now + AHEAD));
      const { notes } = this.current;
      for (; this.nextNote < notes.length && notes[this.nextNote].onset < until - 1e-9; this.nextNote++) this.play(notes[this.nextNote]);
      for (; this.nextClick < this.clicks.length && this.clicks[this.nextClick].at < until - 1e-9; this.nextClick++)
        this.click(this.clicks[this.nextClick], this.audioAt(this.clicks[this.nextClick].at));
      if (until < this.end) break;
      if (this.loopFrom === null || this.end - this.loopFrom < 0.05) {
        if (this.secondsAtAudio(now) > this.end + 0.3) this.stop();
        break;
      }
      this.anchor = { audio: this.audioAt(this.end), seconds: this.loopFrom };
      this.seek(this.loopFrom);
    }
  }

  private audioAt(seconds: number): number {
    return this.anchor.audio + (seconds - this.anchor.seconds) / this.rate;
  }

  private wants(n: PlayedNote): boolean {
    if (this.muted.has(`${n.part}|${n.staff}`)) return false;
    switch (this.sounding) {
      case 'line':
        return n.part === this.source.part();
      case 'others':
        return n.part !== this.source.part();
      case 'skeleton':
        return !n.ornament && this.source.skeleton().has(n.note);
      case 'anchors':
        return !n.ornament && this.source.anchors().has(n.note);
      default:
        return true;
    }
  }

  private play(n: PlayedNote): void {
    const T = this.tone!;
    const voice = this.voices.get(n.part);
    if (!voice || !this.wants(n)) return;
    const at = Math.max(T.immediate(), this.audioAt(n.onset));
    const length = Math.max(0.03, (Math.min(n.end, this.end) - n.onset) / this.rate);
    const frequency = T.Frequency(n.midi ?? 76, 'midi').toFrequency();
    const levels = [n.db, ...(n.inside ?? []), n.dbEnd];
    const most = Math.max(...levels);
    const loud = gainOf(voice.sustained ? most : n.db);
    if (n.turns && n.midi !== null) {
      const turns = n.turns.map((t) => ({ ...t, at: t.at / this.rate }));
      voice.inflected(this.gains.get(n.part)!, { midi: n.midi, at, length, gain: loud, turns });
    } else voice.instrument.triggerAttackRelease(frequency, length, at, loud);
    // Samples were played at one loudness: what is softer is made duller, too.
    if (n.lead && voice.set)
      this.filters.get(n.part)!.frequency.setTargetAtTime(DULLEST * (BRIGHTEST / DULLEST) ** brightnessOf(most), at, 0.02);
    // A held note of the leading line swells by its part's own gain.
    if (voice.sustained && n.lead) {
      const { gain } = this.gains.get(n.part)!;
      gain.setValueAtTime(10 ** ((levels[0] - most) / 20), at);
      levels
        .slice(1)
        .forEach((db, k) => gain.linearRampToValueAtTime(10 ** ((db - most) / 20), at + (length * (k + 1)) / (levels.length - 1)));
    }
    const detail: ScheduledNote = { note: n.note, bar: n.bar, onset: n.onset, at, rate: this.rate };
    window.dispatchEvent(new CustomEvent(SCHEDULED, { detail }));
  }

  private click(click: Click, at: number): void {
    const pitch = ['A5', 'C6', 'F6'][click.weight];
    this.clicker!.triggerAttackRelease(pitch, 0.03, Math.max(this.tone!.immediate(), at), [0.12, 0.25, 0.4][click.weight]);
  }

  /** The measure that sounds, once a picture. */
  private follow(): void {
    if (!this.playing || !this.current) return;
    const now = this.secondsAtAudio(this.tone!.immediate());
    this.seconds = Math.max(0, now);
    const { measure } = this.current.bars[indexAt(this.current.bars, now)];
    if (measure !== this.measure) this.measure = measure;
    requestAnimationFrame(() => this.follow());
  }

  /** Ids of the notes that sound at this moment. */
  soundingNotes(): string[] {
    const { current, seconds } = this;
    if (!this.playing || !current) return [];
    const found: string[] = [];
    const after = byOnset.firstFrom(current.notes, seconds);
    for (let k = after - 1; k >= 0 && seconds - current.notes[k].onset < LONGEST_NOTE; k--)
      if (current.notes[k].end > seconds && this.wants(current.notes[k])) found.push(current.notes[k].note);
    return found;
  }
}

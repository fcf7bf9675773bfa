import { readMusicXml } from '$core/score/musicxml/read';
import type { Score } from '$core/score/model';
import { keyAlter } from '$core/score/accidentals';
import type { Pitch } from '$core/score/pitch';
import { add, eq, lt, ZERO } from '$core/score/fraction';
import {
  altered,
  movedPitches,
  rested,
  rhythmOf,
  slurred,
  soundAt,
  stretch,
  tied,
  withHairpin,
  withLane,
  withNewBar,
  withPitch,
  withRhythm,
  withSign,
  type Place
} from '$core/writing/edits';
import { proposeBar, type BarProposal } from '$core/writing/proposals';
import { typedBar } from '$core/writing/typed-bar';
import { documentOf, middleOf, nearest } from '$core/writing/to-tune';
import { durationOf, NOTHING_TYPED, tapped, typed, type Typing, type Value } from '$core/writing/values';
import { barFaults, barNumber, keyAt, laneFault, lengthOf, roomOf, type Sound, type Written, type WrittenBar } from '$core/writing/written';
import type { WritingState } from '../shapes';
import { WritingSaving } from './saving.svelte';

/** What is done at a bar: its rhythm, then its pitches, then what is printed at its notes. */
export type Stage = 'rhythm' | 'pitches' | 'signs';

const LETTERS = 'cdefgab';
const MOST_STEPS = 500;
/** Seconds after a tap in which the next one still belongs to it. */
const LONGEST_GAP = 6;

/** A score in the making: what stands, where one is, and what keys and clicks do to it. */
export class Writing {
  written = $state.raw<Written>() as Written;
  place = $state.raw<Place>({ bar: 0, lane: 0, at: 0 });
  /** The other end of a chosen stretch; null for one sound. */
  other = $state.raw<Place | null>(null);
  stage = $state<Stage>('rhythm');
  /** The rhythm of the bar at hand as it is being typed. */
  typing = $state.raw<Typing>(NOTHING_TYPED);
  refused = $state('');
  /** Heights to be heard, MIDI numbers come from its pitches. */
  heard: (pitches: readonly Pitch[]) => void = () => {};
  readonly saving: WritingSaving;
  private before = $state.raw<Written[]>([]);
  private after = $state.raw<Written[]>([]);

  constructor(id: number, state: WritingState) {
    this.saving = new WritingSaving(id, state);
    this.written = state.content;
    this.goTo({ bar: this.written.bars.length - 1, lane: 0, at: 0 });
    this.saving.takeOver((left) => {
      this.before = [...this.before, this.written];
      this.written = left;
      this.goTo({ bar: left.bars.length - 1, lane: 0, at: 0 });
    });
  }

  readonly document = $derived(documentOf(this.written));
  readonly score: Score = $derived(readMusicXml(this.document));
  readonly proposals: BarProposal[] = $derived(proposeBar(this.written, this.place.bar, this.place.lane));
  readonly faults: string[] = $derived(
    this.written.bars.flatMap((_, k) => (k === this.place.bar && this.stage === 'rhythm' ? [] : barFaults(this.written, k)))
  );
  readonly sound: Sound | undefined = $derived(soundAt(this.written, this.place));
  readonly bar: WrittenBar = $derived(this.written.bars[this.place.bar]);
  readonly barName: string = $derived(barNumber(this.written, this.place.bar));
  readonly canUndo = $derived(this.before.length > 0);
  readonly canRedo = $derived(this.after.length > 0);

  private get sounds(): Sound[] {
    return this.bar.lanes[this.place.lane];
  }

  /** Chosen sounds: one, or a stretch of the lane. */
  get chosen(): Place[] {
    return this.other ? stretch(this.written, this.other, this.place) : [this.place];
  }

  change(next: Written): void {
    if (next === this.written) return;
    this.before = [...this.before.slice(-MOST_STEPS), this.written];
    this.after = [];
    this.written = next;
    this.refused = '';
    this.saving.save(next);
  }

  undo(): void {
    const last = this.before.at(-1);
    if (!last) return;
    this.after = [...this.after, this.written];
    this.before = this.before.slice(0, -1);
    this.put(last);
  }

  redo(): void {
    const next = this.after.at(-1);
    if (!next) return;
    this.before = [...this.before, this.written];
    this.after = this.after.slice(0, -1);
    this.put(next);
  }

  private put(state: Written): void {
    this.written = state;
    this.saving.save(state);
    const { bar, lane, at } = this.place;
    this.goTo({ bar: Math.min(bar, state.bars.length - 1), lane: Math.min(lane, state.lanes.length - 1), at });
  }

  /** To a place, at the stage in which its bar is. */
  goTo({ bar, lane, at }: Place): void {
    const sounds = this.written.bars[bar].lanes[lane];
    const room = roomOf(this.written, bar);
    this.other = null;
    this.refused = '';
    const short = !sounds.length || (room !== null && lt(lengthOf(sounds), room) && laneFault(this.written, bar, lane) !== null);
    const open = sounds.findIndex((s) => s.open);
    this.stage = short ? 'rhythm' : open >= 0 ? 'pitches' : 'signs';
    this.place = { bar, lane, at: this.stage === 'pitches' ? open : Math.min(at, Math.max(0, sounds.length - 1)) };
    this.typing = short ? { ...NOTHING_TYPED, values: rhythmOf(sounds) } : NOTHING_TYPED;
  }

  enter(stage: Stage): void {
    this.stage = stage;
    this.other = null;
    if (stage === 'rhythm') this.typing = { ...NOTHING_TYPED, values: rhythmOf(this.sounds) };
  }

  /** The next bar of the lane, a new one behind the last. */
  nextBar(): void {
    const { bar, lane } = this.place;
    if (bar + 1 >= this.written.bars.length) this.change(withNewBar(this.written, bar));
    this.goTo({ bar: bar + 1, lane, at: 0 });
  }

  take(proposal: BarProposal): void {
    const { bar, lane } = this.place;
    if (proposal.kind === 'notes') {
      this.change(withLane(this.written, bar, lane, proposal.sounds));
      this.nextBar();
    } else this.setRhythm(proposal.rhythm);
  }

  /** The rhythm stands as it is; on to its pitches. */
  setRhythm(rhythm: readonly Value[]): void {
    if (!rhythm.length) return;
    this.change(withRhythm(this.written, this.place.bar, this.place.lane, rhythm));
    this.typing = NOTHING_TYPED;
    this.stage = 'pitches';
    const first = this.sounds.findIndex((s) => s.open);
    if (first < 0) this.onward();
    else this.place = { ...this.place, at: first };
  }

  /** The bar at hand typed as ABC. @returns whether it could be read */
  typeAbc(text: string): boolean {
    const { bar, lane } = this.place;
    const typed = typedBar(this.written, bar, text);
    if ('fault' in typed) {
      this.refused = `${this.barName}: ${typed.fault}`;
      return false;
    }
    this.change(withLane(this.written, bar, lane, typed.sounds));
    if (laneFault(this.written, bar, lane)) this.goTo({ bar, lane, at: 0 });
    else this.nextBar();
    return true;
  }

  /** A key of the rhythm; a full bar goes on to its pitches. */
  typeRhythm(key: string): boolean {
    const next = typed(this.typing, key);
    if (!next) return false;
    const room = roomOf(this.written, this.place.bar);
    this.refused = '';
    // How long an open group is, is known when it ends.
    const length = next.group === null ? next.values.map(durationOf).reduce(add, ZERO) : ZERO;
    if (room && lt(room, length) && key !== 'Backspace') {
      this.refused = 'There is no room for it in this bar.';
      return true;
    }
    this.typing = next;
    if (room && eq(length, room)) this.setRhythm(next.values);
    return true;
  }

  /** Moments of a rhythm that is tapped or played, in seconds; a long pause begins it anew. */
  taps = $state.raw<number[]>([]);
  tap(at: number): void {
    const last = this.taps.at(-1);
    this.taps = last !== undefined && at - last < LONGEST_GAP ? [...this.taps, at] : [at];
  }

  /** The rhythm that was tapped, as far as the bar has room; the last tap ends the last note. */
  takeTaps(secondsPerQuarter: number): void {
    const gaps = this.taps.slice(1).map((t, k) => t - this.taps[k]);
    this.taps = [];
    const room = roomOf(this.written, this.place.bar);
    let length = ZERO;
    const fits = tapped(gaps, secondsPerQuarter).filter((v) => {
      length = add(length, durationOf(v));
      return !room || !lt(room, length);
    });
    this.typing = { ...NOTHING_TYPED, values: fits };
    if (fits.length < gaps.length) this.refused = 'More was tapped than there is room for in this bar.';
    else if (room && eq(fits.map(durationOf).reduce(add, ZERO), room)) this.setRhythm(fits);
  }

  /** The pitch that stands before a place, or the middle of the staff. */
  private pitchBefore(): Pitch {
    const { bar, lane, at } = this.place;
    for (let b = bar; b >= Math.max(0, bar - 8); b--) {
      const sounds = this.written.bars[b].lanes[lane];
      for (let k = b === bar ? at - 1 : sounds.length - 1; k >= 0; k--)
        if (sounds[k].pitches.length && !sounds[k].grace) return sounds[k].pitches.at(-1)!.pitch;
    }
    return middleOf(this.written.head.clefs[this.written.lanes[lane].staff - 1]);
  }

  /** A letter means the note nearest to the one before. */
  typeLetter(letter: string, chord: boolean): void {
    const step = LETTERS.indexOf(letter);
    const alter = keyAlter(keyAt(this.written, this.place.bar), step);
    const place = chord ? (this.lastWritten() ?? this.place) : this.place;
    const to = chord ? (soundAt(this.written, place)?.pitches.at(-1)?.pitch ?? this.pitchBefore()) : this.pitchBefore();
    this.setPitch(nearest(step, alter, to), chord);
  }

  setPitch(pitch: Pitch, chord = false): void {
    const place = chord ? (this.lastWritten() ?? this.place) : this.place;
    if (!soundAt(this.written, place)) return;
    this.change(withPitch(this.written, place, pitch, chord));
    this.heard(soundAt(this.written, place)!.pitches.map((p) => p.pitch));
    if (!chord) this.onward();
  }

  /** To the next open sound of the bar, else to the next bar. */
  private onward(): void {
    const next = this.sounds.findIndex((s, k) => s.open && k > this.place.at);
    const any = next >= 0 ? next : this.sounds.findIndex((s) => s.open);
    if (any >= 0) this.place = { ...this.place, at: any };
    else if (this.stage === 'pitches') this.nextBar();
  }

  /** Does something to the sound that was written last, or to the one at hand. */
  private amend(act: (w: Written, p: Place) => Written): void {
    const last = this.lastWritten();
    if (!last) return;
    this.change(act(this.written, last));
    const sound = soundAt(this.written, last);
    if (sound?.pitches.length) this.heard(sound.pitches.map((p) => p.pitch));
  }

  /** While pitches are entered it is the one before the open one, be it in the bar before. */
  private lastWritten(): Place | null {
    if (this.stage === 'signs' || (this.sound && !this.sound.open && this.stage === 'pitches')) return this.place;
    const { bar, lane } = this.place;
    const at = this.stage === 'rhythm' ? 0 : this.place.at;
    for (let b = bar; b >= Math.max(0, bar - 1); b--) {
      const sounds = this.written.bars[b].lanes[lane];
      for (let k = b === bar ? at - 1 : sounds.length - 1; k >= 0; k--) if (sounds[k].pitches.length) return { bar: b, lane, at: k };
    }
    return null;
  }

  step(by: number, extend: boolean): void {
    let { bar, at } = this.place;
    const { lane } = this.place;
    at += by;
    if (at < 0 && bar > 0) {
      bar--;
      at = Math.max(0, this.written.bars[bar].lanes[lane].length - 1);
    } else if (at >= this.sounds.length && bar + 1 < this.written.bars.length) {
      bar++;
      at = 0;
    }
    at = Math.max(0, Math.min(at, this.written.bars[bar].lanes[lane].length - 1));
    const from = this.other ?? this.place;
    if (!this.written.bars[bar].lanes[lane].length) return this.goTo({ bar, lane, at: 0 });
    this.place = { bar, lane, at };
    this.other = extend ? from : null;
    this.stage = this.sound?.open ? 'pitches' : 'signs';
    this.refused = '';
  }

  sign(name: string): void {
    this.change(withSign(this.written, this.chosen, name));
  }

  slur(): void {
    const places = this.chosen;
    if (places.length < 2) this.refused = 'Choose the notes first: Shift and an arrow key from one to another.';
    else this.change(slurred(this.written, places[0], places.at(-1)!));
  }

  hairpin(up: boolean): void {
    const places = this.chosen;
    if (places.length < 2) this.refused = 'Choose the notes first: Shift and an arrow key from one to another.';
    else this.change(withHairpin(this.written, places[0], places.at(-1)!, up));
  }

  /** What a key does on the page. @returns false where it means nothing */
  key({ key, shiftKey, ctrlKey, metaKey, altKey }: Pick<KeyboardEvent, 'key' | 'shiftKey' | 'ctrlKey' | 'metaKey' | 'altKey'>): boolean {
    if (altKey) return false;
    if (ctrlKey || metaKey) {
      if (key.toLowerCase() === 'z') return (shiftKey ? this.redo() : this.undo(), true);
      if (key.toLowerCase() === 'y') return (this.redo(), true);
      return false;
    }
    if (key === 'ArrowLeft' || key === 'ArrowRight') return (this.step(key === 'ArrowRight' ? 1 : -1, shiftKey), true);
    if (key === 'Escape') return (this.enter('signs'), true);
    if (key === 'ArrowUp' || key === 'ArrowDown') {
      this.amend((w, p) => movedPitches(w, p, (key === 'ArrowUp' ? 1 : -1) * (shiftKey ? 7 : 1)));
      return true;
    }
    if (key === '+' || key === '-') return (this.amend((w, p) => altered(w, p, key === '+' ? 1 : -1)), true);
    if (key === '~') return (this.amend(tied), true);
    return this.stage === 'rhythm' ? this.rhythmKey(key) : this.stage === 'pitches' ? this.pitchKey(key) : this.signKey(key);
  }

  private rhythmKey(key: string): boolean {
    if (key === 'Enter') {
      if (this.typing.values.length) this.setRhythm(this.typing.values);
      else this.nextBar();
      return true;
    }
    const nothing = this.typing === NOTHING_TYPED || !this.typing.values.length;
    if (nothing && /^[1-9]$/.test(key)) {
      const proposal = this.proposals[Number(key) - 1];
      if (proposal) this.take(proposal);
      return true;
    }
    if (key === 'Backspace' && nothing && !this.typing.rest && this.typing.group === null) return (this.step(-1, false), true);
    return this.typeRhythm(key);
  }

  private pitchKey(key: string): boolean {
    const letter = key.toLowerCase();
    if (key.length === 1 && LETTERS.includes(letter)) return (this.typeLetter(letter, key !== letter), true);
    if (key === '/') {
      this.change(rested(this.written, this.place));
      this.onward();
      return true;
    }
    if (key === 'Enter') return (this.enter('signs'), true);
    if (key === 'Backspace') return (this.undo(), true);
    return false;
  }

  private signKey(key: string): boolean {
    const letter = key.toLowerCase();
    if (letter === 'j') this.slur();
    else if (letter === 'g' || letter === 'f') this.hairpin(letter === 'g');
    else if (letter === 'r') this.enter('rhythm');
    else if (letter === 'p') this.enter('pitches');
    else if (key === 'Enter') this.nextBar();
    else return false;
    return true;
  }
}

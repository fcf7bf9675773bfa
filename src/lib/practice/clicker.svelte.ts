import { clicksInBar, FOUR_QUARTERS, groupsOf, type ClickKind } from '$core/performance/clicks';
import { toNumber } from '$core/score/fraction';
import type { Measure, Score } from '$core/score/model';
import { tone, type Tone } from '../hearing/instruments';
import type * as ToneModule from 'tone';

/** Seconds that clicks are handed to the audio clock before they sound. */
const AHEAD = 0.2;

/** A click in the meter of a sheet, at the tempo of its ladder, on and on. */
export class Clicker {
  kind = $state<ClickKind>('beats');
  running = $state(false);
  fault = $state<string | null>(null);
  private tone: Tone | null = null;
  private synth: ToneModule.Synth | null = null;
  private bar: Measure = FOUR_QUARTERS;
  private groups: readonly number[] | null = null;
  /** Where the next bar begins on the audio clock, and how many there were. */
  private next = 0;
  private count = 0;
  private readonly tick = (): void => this.hand();

  /** @param tempo quarters a minute, as it is at each moment */
  constructor(private readonly tempo: () => number) {}

  /** The meter that is clicked: that of the first whole bar of a score. */
  take(score: Score | null): void {
    const bar = score?.measures.find((m) => !m.implicit) ?? score?.measures[0];
    this.bar = bar ?? FOUR_QUARTERS;
    this.groups = score && bar ? groupsOf(score, bar) : null;
  }

  async toggle(): Promise<void> {
    if (this.running) this.stop();
    else await this.start();
  }

  async start(): Promise<void> {
    try {
      this.tone = await tone();
      await this.tone.start();
      this.synth ??= new this.tone.Synth({
        oscillator: { type: 'square' },
        envelope: { attack: 0.001, decay: 0.03, sustain: 0, release: 0.02 }
      }).toDestination();
    } catch {
      this.fault = 'The click cannot be started in this browser.';
      return;
    }
    this.next = this.tone.immediate() + 0.1;
    this.count = 0;
    this.running = true;
    this.tone.getContext().on('tick', this.tick);
    this.hand();
  }

  stop(): void {
    this.running = false;
    this.tone?.getContext().off('tick', this.tick);
  }

  close(): void {
    this.stop();
    this.synth?.dispose();
    this.synth = null;
  }

  /** Hands over the bars that begin within the next moment. */
  private hand(): void {
    const T = this.tone;
    if (!T || !this.running) return;
    while (this.next < T.immediate() + AHEAD) {
      const quarter = 60 / this.tempo();
      for (const { at, weight } of clicksInBar(this.bar, this.kind, this.groups, this.count)) {
        const pitch = ['A5', 'C6', 'F6'][weight];
        this.synth!.triggerAttackRelease(
          pitch,
          0.03,
          Math.max(T.immediate(), this.next + toNumber(at) * quarter),
          [0.15, 0.3, 0.5][weight]
        );
        window.dispatchEvent(new CustomEvent('nuvelo-click', { detail: { at: this.next + toNumber(at) * quarter, weight } }));
      }
      this.next += toNumber(this.bar.length) * quarter;
      this.count++;
    }
  }
}

import type { Performance } from '$core/performance/perform';
import type { Score } from '$core/score/model';
import { readMusicXml } from '$core/score/musicxml/read';
import { Player } from '../hearing/player.svelte';

/** Sounds a sheet to the letter, with the clicks of its own meter. */
export class SheetSound {
  private score: Score | null = null;
  private performance: Performance | null = null;
  readonly player = new Player({
    score: () => this.score,
    performance: () => this.performance,
    instruments: () => this.performance?.instruments ?? [],
    skeleton: () => new Set(),
    anchors: () => new Set(),
    part: () => 0,
    swing: () => undefined,
    selection: () => ({ from: 0, to: Math.max(0, (this.score?.measures.length ?? 1) - 1) })
  });
  /** What sounds now. */
  document = $state<string | null>(null);

  /** @param play works out how a document sounds */
  constructor(private readonly play: (document: string) => Promise<Performance | null>) {}

  /** Plays a document from its beginning; the one that sounds already stops. */
  async toggle(document: string): Promise<void> {
    const again = this.player.playing && this.document === document;
    this.player.stop();
    if (again) return;
    this.performance = await this.play(document);
    if (!this.performance) return;
    this.score = readMusicXml(document);
    this.document = document;
    await this.player.start({ performance: this.performance, from: 0, to: this.performance.length });
  }

  sounds(document: string): boolean {
    return this.player.playing && this.document === document;
  }

  close(): void {
    this.player.close();
  }
}

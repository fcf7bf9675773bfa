import type { Command } from '$core/reading/commands/index';
import { apply, describe, readingAt, type Standing } from '$core/reading/log';
import type { Reading } from '$core/reading/reading';
import { Saving } from './saving.svelte';

/** The acts of a reading and what they make of it: shown at once, saved as they happen. */
export class ReadingLog {
  reading = $state.raw<Reading>() as Reading;
  /** What would be undone and done again next, in words; null when nothing. */
  canUndo = $state<string | null>(null);
  canRedo = $state<string | null>(null);
  readonly saving: Saving;

  /** @param changed called whenever the reading is another one @param tell a sentence for the user */
  constructor(
    readingId: number,
    history: string,
    standing: Standing,
    private readonly changed: () => void,
    tell: (sentence: string) => void
  ) {
    const takeIn = (fromElsewhere: number): void => {
      this.rebuild();
      if (fromElsewhere) tell(takenIn(fromElsewhere));
    };
    this.saving = new Saving(readingId, history, standing, takeIn, tell);
    this.reading = readingAt(this.saving.standing);
    this.nameNext();
  }

  act(...commands: Command[]): void {
    this.saving.add(commands);
    if (commands.some((c) => c.type === 'undo' || c.type === 'redo')) this.rebuild();
    else {
      this.reading = commands.reduce(apply, this.reading);
      this.nameNext();
      this.changed();
    }
  }

  undo(): void {
    if (this.canUndo) this.act({ type: 'undo' });
  }

  redo(): void {
    if (this.canRedo) this.act({ type: 'redo' });
  }

  close(): void {
    this.saving.close();
  }

  private rebuild(): void {
    this.reading = readingAt(this.saving.standing);
    this.nameNext();
    this.changed();
  }

  private nameNext(): void {
    const { done, undone } = this.saving.standing;
    this.canUndo = done.length ? describe(done[done.length - 1]) : null;
    this.canRedo = undone.length ? describe(undone[undone.length - 1]) : null;
  }
}

const takenIn = (count: number): string =>
  `${count === 1 ? 'A change' : `${count} changes`} made in another window ${count === 1 ? 'was' : 'were'} taken in; nothing of yours was lost.`;

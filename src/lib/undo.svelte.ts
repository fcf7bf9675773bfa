/** What was done and undone, for what is kept at once by each change. */
export class Undo<Step> {
  private done = $state.raw<readonly Step[]>([]);
  private undone = $state.raw<readonly Step[]>([]);

  get canUndo(): boolean {
    return this.done.length > 0;
  }

  get canRedo(): boolean {
    return this.undone.length > 0;
  }

  /** Something new was done: what was undone before it is gone. */
  add(step: Step): void {
    this.done = [...this.done, step];
    this.undone = [];
  }

  /** @returns the step that is to be undone; null where there is none */
  back(): Step | null {
    const step = this.done.at(-1);
    if (step === undefined) return null;
    this.done = this.done.slice(0, -1);
    this.undone = [...this.undone, step];
    return step;
  }

  /** @returns the step that is to be done again; null where there is none */
  again(): Step | null {
    const step = this.undone.at(-1);
    if (step === undefined) return null;
    this.undone = this.undone.slice(0, -1);
    this.done = [...this.done, step];
    return step;
  }
}

/** Ctrl Z undoes, Ctrl Shift Z and Ctrl Y do again; inside a field the browser's own undo is what the user means. */
export function undoKey(event: KeyboardEvent, what: { undo(): void; redo(): void }): void {
  if (!(event.ctrlKey || event.metaKey) || event.altKey) return;
  if (
    event.target instanceof HTMLElement &&
    event.target.closest('input:not([type=checkbox], [type=radio]), textarea, select, [contenteditable]')
  )
    return;
  const letter = event.key.toLowerCase();
  if (letter === 'z' && !event.shiftKey) what.undo();
  else if ((letter === 'z' && event.shiftKey) || letter === 'y') what.redo();
  else return;
  event.preventDefault();
}

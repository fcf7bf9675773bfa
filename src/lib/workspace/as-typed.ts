/** Pause in typing after which what stands there is saved. */
const PAUSE_MS = 800;

/** Saves as it is typed: after a pause, when the field is left, and before the page goes. */
export class AsTyped {
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly save: () => void) {}

  /** Something is typed that is not saved yet. */
  get waits(): boolean {
    return this.timer !== undefined;
  }

  readonly typed = (): void => {
    clearTimeout(this.timer);
    this.timer = setTimeout(this.now, PAUSE_MS);
  };

  /** Saves what is not saved yet. */
  readonly now = (): void => {
    if (!this.waits) return;
    this.drop();
    this.save();
  };

  /** Lets go of what was typed. */
  drop(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
  }
}

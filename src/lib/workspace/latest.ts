/** Of several questions of one kind that are under way only the last one's answer counts; a failure ends its own question and nothing else. */
export class Latest {
  private number = 0;

  /** Puts a question. @param take its answer, unless a later question was put meanwhile @param fail what is wrong, in the same case */
  async ask<T>(question: () => Promise<T>, take: (answer: T) => void, fail: (error: unknown) => void): Promise<void> {
    const mine = ++this.number;
    try {
      const answer = await question();
      if (mine === this.number) take(answer);
    } catch (error) {
      if (mine === this.number) fail(error);
    }
  }

  /** Whatever is under way does not count any more. */
  forget(): void {
    this.number++;
  }
}

/** What went wrong, as one sentence. */
export const sentenceOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

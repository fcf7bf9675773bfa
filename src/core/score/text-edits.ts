import type { TextSpan } from './model.ts';

interface Edit extends TextSpan {
  text: string;
  order: number;
}

/** Changes of a text at places that count in the text as it was; those that overlap an earlier one are left out. */
export class TextEdits {
  private readonly edits: Edit[] = [];

  replace({ from, to }: TextSpan, text: string): void {
    this.edits.push({ from, to, text, order: this.edits.length });
  }

  insert(at: number, text: string): void {
    this.replace({ from: at, to: at }, text);
  }

  /** The text, or a part of it, with the changes that lie in it. */
  apply(source: string, part: TextSpan = { from: 0, to: source.length }): string {
    const inside = this.edits
      .filter((e) => e.from >= part.from && e.to <= part.to)
      .sort((a, b) => a.from - b.from || Number(a.to > a.from) - Number(b.to > b.from) || a.order - b.order);
    const pieces: string[] = [];
    let at = part.from;
    for (const e of inside) {
      if (e.from < at) continue;
      pieces.push(source.slice(at, e.from), e.text);
      at = e.to;
    }
    pieces.push(source.slice(at, part.to));
    return pieces.join('');
  }
}

import type { Score } from '../score/model.ts';
import { attributesBefore } from '../score/musicxml/attributes-before.ts';
import { escapeXml } from '../score/musicxml/escape.ts';

/** A run of measures that is engraved on its own: half-open range of measure indices. */
export interface Chunk {
  from: number;
  to: number;
}

/**
 * The source's text from `from` to `to` with an id on every note, so that the engraving can be traced
 * back. System and page breaks of the source are left to the engraver.
 */
class IdWriter {
  private readonly notes: { at: number; id: string }[];

  constructor(
    private readonly source: string,
    score: Score
  ) {
    this.notes = score.notes.map((n) => ({ at: n.span.from, id: n.id })).sort((a, b) => a.at - b.at);
  }

  slice(from: number, to: number): string {
    let k = this.firstAt(from);
    const pieces: string[] = [];
    let at = from;
    for (; k < this.notes.length && this.notes[k].at < to; k++) {
      const { at: start, id } = this.notes[k];
      const tagEnd = this.source.indexOf('>', start);
      const tag = this.source.slice(start, tagEnd).replace(/\s(?:xml:)?id\s*=\s*(?:"[^"]*"|'[^']*')/, '');
      pieces.push(this.source.slice(at, start), tag.replace(/^<note/, `<note id="${escapeXml(id)}"`));
      at = tagEnd;
    }
    pieces.push(this.source.slice(at, to));
    return pieces.join('').replace(/<print\b[^>]*?(?:\/>|>[\s\S]*?<\/print>)/g, '');
  }

  private firstAt(offset: number): number {
    let low = 0;
    let high = this.notes.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.notes[middle].at < offset) low = middle + 1;
      else high = middle;
    }
    return low;
  }
}

/** Makes chunk documents of one score; parts may be left out. */
export function chunkWriter(
  source: string,
  score: Score,
  parts: readonly number[] = score.parts.map((p) => p.index)
): (chunk: Chunk) => string {
  const ids = new IdWriter(source, score);
  return ({ from, to }) => {
    const chosen = score.parts.filter((p) => parts.includes(p.index));
    const list = chosen
      .map((p) => `<score-part id="${escapeXml(p.id)}"><part-name>${chosen.length > 1 ? escapeXml(p.name) : ''}</part-name></score-part>`)
      .join('');
    const body = chosen.map((part) => {
      const measures: string[] = [];
      for (let k = from; k < to; k++) {
        const span = part.measureSpans[k];
        const inner = span ? ids.slice(span.inner.from, span.inner.to) : '';
        const { number, implicit } = score.measures[k];
        measures.push(
          `<measure id="m${k}" number="${escapeXml(number)}"${implicit ? ' implicit="yes"' : ''}>${k === from ? attributesBefore(part, from) : ''}${inner}</measure>`
        );
      }
      return `<part id="${escapeXml(part.id)}">${measures.join('')}</part>`;
    });
    return `<score-partwise version="4.0"><part-list>${list}</part-list>${body.join('')}</score-partwise>`;
  };
}

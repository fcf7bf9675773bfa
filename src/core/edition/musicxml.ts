import { cmp, mul, sub, toNumber, type Fraction } from '../score/fraction.ts';
import type { Measure, Note, Score } from '../score/model.ts';
import { escapeXml } from '../score/musicxml/escape.ts';
import { NumberPool, slurNumbers } from '../score/musicxml/number-pool.ts';
import { measureAt } from '../score/position.ts';
import { inWords, kindOf } from '../markings/describe.ts';
import type { Marking } from '../markings/marking.ts';
import { wordsXml } from '../markings/usual.ts';

/** Text to be put into the source at an offset. Several at one offset keep their order. */
interface Insertion {
  at: number;
  xml: string;
}

const LEVEL = '<level bracket="yes">editorial</level>';

const footnote = (m: Marking): string => {
  const words = [...m.because.map((b) => b.text), ...(m.remark ? [`To the player: ${m.remark}`] : [])].join(' ');
  return `<footnote>${escapeXml(words || 'Editorial.')}</footnote>`;
};

/** How far a sign was moved, on its first element; ten tenths are a staff space. MusicXML 4.0, tenths. */
function movedXml(type: string, { placing: { right = 0, up = 0 } = {} }: Marking): string {
  const moved = (right ? ` relative-x="${10 * right}"` : '') + (up ? ` relative-y="${10 * up}"` : '');
  return moved && !/type="stop"/.test(type) ? type.replace(/^<[\w-]+/, (name) => name + moved) : type;
}

/** Writer of one score's markings: finds where in the source's text each one belongs. */
class Splicer {
  private readonly insertions: Insertion[] = [];
  private readonly notes: Map<string, Note>;
  private readonly byMeasure = new Map<string, Note[]>();
  private readonly slurNumbers: NumberPool;
  private readonly wedgeNumbers = new NumberPool();

  constructor(
    private readonly source: string,
    private readonly score: Score
  ) {
    this.notes = new Map(score.notes.map((n) => [n.id, n]));
    for (const n of score.notes) {
      const key = `${n.part}|${n.measure}`;
      const list = this.byMeasure.get(key);
      if (list) list.push(n);
      else this.byMeasure.set(key, [n]);
    }
    this.slurNumbers = slurNumbers(score, this.notes);
    const wedges = new Map(score.directions.filter((d) => d.kind === 'wedge').map((d) => [d.id, d.number]));
    for (const h of score.hairpins) this.wedgeNumbers.occupy(h.part, Number(wedges.get(h.id) ?? 1), h.start, h.end);
  }

  add(m: Marking): void {
    const sign = kindOf(m.kind).musicXml(m);
    if ('slur' in sign) this.slur(m, sign.slur);
    else if ('wedge' in sign) {
      const { start, stop } = sign.wedge(this.wedgeNumbers.take(m.part, m.start, m.end ?? m.start));
      this.stretch(m, start, stop, sign.placement);
    } else if ('from' in sign) this.stretch(m, sign.from, sign.until, sign.placement);
    else if ('direction' in sign) this.direction(m, m.start, sign.direction, sign.placement, footnote(m));
    else {
      const note = m.note ? this.notes.get(m.note) : undefined;
      if (note && !note.rest)
        this.insertions.push({ at: note.notationsAt, xml: `<notations>${footnote(m)}${LEVEL}${sign.notation}</notations>` });
      // What has no note to hang on is said in words.
      else this.direction(m, m.start, wordsXml(inWords(m)), 'above', footnote(m));
    }
  }

  private slur(m: Marking, ends: (number: number) => { start: string; stop: string }): void {
    const from = m.note ? this.notes.get(m.note) : undefined;
    const to = m.endNote ? this.notes.get(m.endNote) : undefined;
    if (!from || !to || from === to) return;
    const { start, stop } = ends(this.slurNumbers.take(from.part, from.start, to.start));
    this.insertions.push({ at: from.notationsAt, xml: `<notations>${footnote(m)}${LEVEL}${start}</notations>` });
    this.insertions.push({ at: to.notationsAt, xml: `<notations>${LEVEL}${stop}</notations>` });
  }

  private stretch(m: Marking, from: string, until: string, placement: 'above' | 'below'): void {
    if (!m.end || cmp(m.end, m.start) <= 0) return;
    this.direction(m, m.start, from, placement, footnote(m));
    this.direction(m, m.end, until, placement, '');
  }

  /** A direction at a moment: before the note that begins there, else before the one after it with an offset. */
  private direction(m: Marking, at: Fraction, type: string, placement: string, note: string): void {
    const part = this.score.parts[m.part];
    if (!part) return;
    let measure = measureAt(this.score, at);
    // The end of a hairpin at a bar line belongs to the bar that it closes.
    if (/type="stop"/.test(type) && cmp(at, measure.start) === 0 && measure.index > 0) measure = this.score.measures[measure.index - 1];
    const { offset, anchor } = this.anchor(m, measure, at);
    const staff = part.staves > 1 ? `<staff>${Math.min(m.staff, part.staves)}</staff>` : '';
    // An offset is a decimal number of divisions; six digits are finer than any drawing of it.
    const shift = offset.n === 0 ? '' : `<offset>${Number(toNumber(mul(offset, this.divisions(m.part, measure))).toFixed(6))}</offset>`;
    this.insertions.push({
      at: anchor,
      xml: `<direction placement="${m.placing?.side ?? placement}"><direction-type>${movedXml(type, m)}</direction-type>${shift}${note}${LEVEL}${staff}</direction>`
    });
  }

  private anchor(m: Marking, measure: Measure, at: Fraction): { offset: Fraction; anchor: number } {
    const span = this.score.parts[m.part].measureSpans[measure.index];
    const notes = (this.byMeasure.get(`${m.part}|${measure.index}`) ?? []).filter((n) => !n.chord);
    const onStaff = notes.filter((n) => n.staff === m.staff);
    const ordered = [...onStaff, ...notes];
    const exact = ordered.find((n) => cmp(n.start, at) === 0);
    if (exact) return { offset: { n: 0, d: 1 }, anchor: exact.span.from };
    // Before the latest earlier note, moved on by an offset.
    const before = ordered.filter((n) => cmp(n.start, at) < 0).sort((a, b) => cmp(b.start, a.start))[0];
    if (before) return { offset: sub(at, before.start), anchor: before.span.from };
    return { offset: { n: 0, d: 1 }, anchor: span.inner.from };
  }

  /** Divisions in force in a part at a measure. */
  private divisions(part: number, measure: Measure): Fraction {
    let value: Fraction = { n: 1, d: 1 };
    for (const change of this.score.parts[part].changes) {
      if (change.measure > measure.index) break;
      if (change.divisions) value = change.divisions;
    }
    return value;
  }

  finish(): string {
    const ordered = this.insertions.map((x, k) => ({ ...x, k })).sort((a, b) => a.at - b.at || a.k - b.k);
    const pieces: string[] = [];
    let at = 0;
    for (const insertion of ordered) {
      pieces.push(this.source.slice(at, insertion.at), insertion.xml);
      at = insertion.at;
    }
    pieces.push(this.source.slice(at));
    return pieces.join('');
  }
}

/**
 * The source's own document with the markings written into it; every other character stays. Each marking
 * carries its reasons as <footnote> and a bracketed <level>. Without markings the text comes back unchanged.
 */
export function editionMusicXml(source: string, score: Score, markings: readonly Marking[]): string {
  if (markings.length === 0) return source;
  const splicer = new Splicer(source, score);
  for (const marking of [...markings].sort((a, b) => cmp(a.start, b.start))) splicer.add(marking);
  // The result is handed out as UTF-8 whatever the source was encoded in.
  return splicer.finish().replace(/^(\s*<\?xml[^>]*?encoding\s*=\s*["'])[^"']+/, '$1UTF-8');
}

import type { Measure } from '../model.ts';
import { integer } from './attributes.ts';
import { child, childText, type Element } from './scan.ts';

/** "1", "1, 2", "1-3" as ending numbers; [] when none can be read. */
function endingNumbers(text: string): number[] {
  const numbers: number[] = [];
  for (const item of text.split(/[,;\s]+/)) {
    const range = /^(\d+)\s*[-–]\s*(\d+)$/.exec(item.replace(/\.$/, ''));
    if (range) {
      for (let k = Number(range[1]); k <= Number(range[2]) && numbers.length < 64; k++) numbers.push(k);
    } else if (/^\d+\.?$/.test(item)) numbers.push(Number.parseInt(item, 10));
  }
  return numbers;
}

/** Writes what a <barline> says of repeats and endings into its measure. */
export function readBarline(e: Element, measure: Measure): void {
  const repeat = child(e, 'repeat');
  if (repeat?.attributes.direction === 'forward') measure.repeatStart = true;
  if (repeat?.attributes.direction === 'backward') measure.repeatEnd = Math.max(2, integer(repeat.attributes.times, 2));
  const ending = child(e, 'ending');
  if (ending) {
    const type = ending.attributes.type;
    if (type === 'start') measure.endingStart = endingNumbers(ending.attributes.number ?? '1');
    else if (type === 'stop' || type === 'discontinue') measure.endingStop = type;
  }
  const style = childText(e, 'bar-style');
  if (style && e.attributes.location !== 'left' && e.attributes.location !== 'middle') measure.barline = style;
  if (child(e, 'fermata')) measure.barFermata = true;
  if (child(e, 'segno')) measure.segno ??= e.attributes.segno ?? 'segno';
  if (child(e, 'coda')) measure.coda ??= e.attributes.coda ?? 'coda';
}

/** Jumps given by a <sound> element. */
export function readJump(attributes: Record<string, string>, measure: Measure): void {
  if (attributes.segno) measure.segno = attributes.segno;
  if (attributes.coda) measure.coda = attributes.coda;
  if (attributes.tocoda) measure.toCoda = attributes.tocoda;
  if (attributes.dalsegno) measure.dalSegno = attributes.dalsegno;
  if (attributes.dacapo === 'yes') measure.daCapo = true;
  if (attributes.fine) measure.fine = true;
}

/**
 * Jumps that are only printed as words ("D.C. al Fine"). They count where no <sound> says the same.
 */
export function readJumpWords(text: string, measure: Measure): void {
  const t = text.trim();
  if (/^(D\.?\s?C\.?|da\s+capo)(?![a-z])/i.test(t)) measure.daCapo = true;
  else if (/^(D\.?\s?S\.?|dal\s+segno)(?![a-z])/i.test(t)) measure.dalSegno ??= 'segno';
  else if (/^(to\s+coda|al\s+coda)(?![a-z])/i.test(t)) measure.toCoda ??= 'coda';
  else if (/^fine\.?$/i.test(t)) measure.fine = true;
}

import { frac, parseFraction, type Fraction } from '../fraction.ts';
import type { AttributeChange, Clef, KeySignature, TimeSignature } from '../model.ts';
import { stepOf, type Interval } from '../pitch.ts';
import { child, childText, type Element } from './scan.ts';

export const integer = (text: string | undefined, fallback: number): number => {
  const value = text === undefined ? NaN : Number.parseInt(text, 10);
  return Number.isFinite(value) ? value : fallback;
};

function readKey(element: Element): KeySignature {
  const mode = childText(element, 'mode');
  const fifths = childText(element, 'fifths');
  if (fifths !== undefined) {
    const key: KeySignature = { fifths: Math.max(-14, Math.min(14, integer(fifths, 0))) };
    if (mode) key.mode = mode;
    return key;
  }
  const steps: Record<number, number> = {};
  let last = -1;
  for (const c of element.children) {
    if (c.name === 'key-step') last = stepOf(c.text.trim());
    if (c.name === 'key-alter' && last >= 0) steps[last] = Number(c.text);
  }
  return { fifths: 0, steps };
}

/** A time signature from its printed parts: ("3", "4"), ("2+3", "8"), several pairs for composite meters. */
export function timeSignature(pairs: { beats: string; unit: string }[], symbol?: string): TimeSignature | null {
  let quarters: Fraction = frac(0);
  const groups: number[] = [];
  const unit = integer(pairs[0]?.unit, 0);
  if (!unit) return null;
  for (const pair of pairs) {
    const own = integer(pair.unit, unit);
    if (own <= 0) return null;
    for (const group of pair.beats.split('+')) {
      const count = integer(group, 0);
      if (count <= 0) return null;
      groups.push((count * unit) / own);
      quarters = frac(quarters.n * own + count * 4 * quarters.d, quarters.d * own);
    }
  }
  const time: TimeSignature = { text: pairs.map((p) => `${p.beats.replace(/\s/g, '')}/${p.unit}`).join('+'), groups, unit, quarters };
  if (symbol) time.symbol = symbol;
  return time;
}

/** Says why what a file states cannot be read, with its place. */
export type Refuse = (message: string) => never;

function readTime(element: Element, refuse: Refuse): TimeSignature | null {
  if (child(element, 'senza-misura')) return { text: null, groups: [], unit: 4, quarters: null };
  const pairs: { beats: string; unit: string }[] = [];
  for (const c of element.children) {
    if (c.name === 'beats') pairs.push({ beats: c.text.trim(), unit: '' });
    if (c.name === 'beat-type' && pairs.length) pairs[pairs.length - 1].unit = c.text.trim();
  }
  const wrong = pairs.find((p) => Number(p.unit) <= 0 && p.unit !== '');
  if (wrong) refuse(`A time signature of ${wrong.beats}/${wrong.unit} has no beat`);
  return timeSignature(pairs, element.attributes.symbol);
}

function readClef(element: Element): Clef {
  const clef: Clef = { sign: childText(element, 'sign') ?? 'G' };
  const line = childText(element, 'line');
  const octave = childText(element, 'clef-octave-change');
  if (line) clef.line = integer(line, 2);
  if (octave) clef.octave = integer(octave, 0);
  return clef;
}

function readTranspose(element: Element): Interval {
  const octaves = integer(childText(element, 'octave-change'), 0);
  return {
    diatonic: integer(childText(element, 'diatonic'), 0) + 7 * octaves,
    chromatic: integer(childText(element, 'chromatic'), 0) + 12 * octaves
  };
}

/** Reads one <attributes> element. Unknown children are reported through `unknown`, values that no music has through `refuse`. */
export function readAttributes(
  element: Element,
  measure: number,
  onset: Fraction,
  unknown: (name: string) => void,
  refuse: Refuse
): AttributeChange {
  const change: AttributeChange = { measure, onset };
  for (const c of element.children) {
    switch (c.name) {
      case 'divisions': {
        const value = parseFraction(c.text);
        if (!value || value.n <= 0) refuse(`A quarter of ${c.text.trim().slice(0, 20) || 'no'} divisions cannot be counted`);
        change.divisions = value;
        break;
      }
      case 'key':
        (change.keys ??= []).push({ staff: c.attributes.number ? integer(c.attributes.number, 1) : null, key: readKey(c) });
        break;
      case 'time': {
        // With one signature per staff the first one governs; staves in different meters share bar lengths.
        const time = change.time ? null : readTime(c, refuse);
        if (time) change.time = time;
        break;
      }
      case 'staves':
        change.staves = Math.max(1, Math.min(64, integer(c.text, 1)));
        break;
      case 'clef':
        (change.clefs ??= []).push({ staff: integer(c.attributes.number, 1), clef: readClef(c) });
        break;
      case 'transpose':
        change.transpose ??= readTranspose(c);
        break;
      case 'measure-style': {
        const rest = childText(c, 'multiple-rest');
        if (rest) change.multipleRest = integer(rest, 1);
        else if (!child(c, 'slash') && !child(c, 'beat-repeat')) unknown(c.children[0]?.name ?? c.name);
        break;
      }
      case 'staff-details':
      case 'part-symbol':
      case 'instruments':
      case 'footnote':
      case 'level':
        break;
      default:
        unknown(c.name);
    }
  }
  return change;
}

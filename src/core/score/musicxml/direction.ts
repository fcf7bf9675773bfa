import type { DirectionValue } from '../model.ts';
import { child, childText, type Element } from './scan.ts';

/** Value of the first dynamic sign in a <dynamics> element; combinations such as "sf" + "p" are joined. */
export function dynamicValue(e: Element): string | null {
  const values = e.children.map((c) => (c.name === 'other-dynamics' ? c.text.trim() : c.name));
  return values.length ? values.join('') : null;
}

function metronome(e: Element): DirectionValue | null {
  const units: { unit: string; dots: number }[] = [];
  let perMinute: string | undefined;
  for (const c of e.children) {
    if (c.name === 'beat-unit') units.push({ unit: c.text.trim(), dots: 0 });
    else if (c.name === 'beat-unit-dot' && units.length) units[units.length - 1].dots++;
    else if (c.name === 'per-minute') perMinute = c.text.trim();
    else if (c.name === 'metronome-note') {
      const dots = c.children.filter((d) => d.name === 'metronome-dot').length;
      units.push({ unit: childText(c, 'metronome-type') ?? 'quarter', dots });
    }
  }
  if (!units.length) return null;
  const value: DirectionValue = { kind: 'metronome', unit: units[0].unit, dots: units[0].dots };
  if (perMinute !== undefined) value.perMinute = perMinute;
  else if (units[1]) value.equals = units[1];
  return value;
}

function readType(e: Element): DirectionValue | null {
  const number = e.attributes.number ?? '1';
  switch (e.name) {
    case 'dynamics': {
      const value = dynamicValue(e);
      return value ? { kind: 'dynamic', value } : null;
    }
    case 'wedge': {
      const type = e.attributes.type;
      if (type !== 'crescendo' && type !== 'diminuendo' && type !== 'stop' && type !== 'continue') return null;
      return { kind: 'wedge', type, number, niente: e.attributes.niente === 'yes' };
    }
    case 'words':
      return e.text.trim() ? { kind: 'words', text: e.text.trim() } : null;
    case 'rehearsal':
      return { kind: 'rehearsal', text: e.text.trim() };
    case 'metronome':
      return metronome(e);
    case 'segno':
    case 'coda':
      return { kind: 'sign', name: e.name };
    case 'octave-shift':
    case 'pedal':
    case 'dashes':
    case 'bracket': {
      const span: DirectionValue = { kind: 'span', name: e.name, type: e.attributes.type ?? 'start', number };
      if (e.attributes.size) span.value = e.attributes.size;
      return span;
    }
    default: {
      const text = e.text.trim();
      return text ? { kind: 'other', name: e.name, text } : { kind: 'other', name: e.name };
    }
  }
}

/** The <sound> element's numbers; its other attributes (dacapo, segno, swing …) as they stand. */
export function readSound(e: Element): DirectionValue {
  const attributes: Record<string, string> = { ...e.attributes };
  const sound: DirectionValue = { kind: 'sound', attributes };
  if (attributes.tempo !== undefined && Number(attributes.tempo) > 0) sound.tempo = Number(attributes.tempo);
  if (attributes.dynamics !== undefined && Number(attributes.dynamics) >= 0) sound.dynamics = Number(attributes.dynamics);
  const swing = child(e, 'swing');
  if (swing) {
    sound.attributes.swing = child(swing, 'straight') ? 'straight' : `${childText(swing, 'first') ?? 1}:${childText(swing, 'second') ?? 1}`;
  }
  return sound;
}

const UNDERSTOOD_OTHER = new Set(['image', 'eyeglasses', 'principal-voice']);

/** Everything that one <direction> says. Signs without a meaning here are kept and reported. */
export function readDirection(e: Element, unknown: (name: string) => void): DirectionValue[] {
  const values: DirectionValue[] = [];
  for (const c of e.children) {
    if (c.name === 'direction-type') {
      for (const type of c.children) {
        const value = readType(type);
        if (!value) continue;
        if (value.kind === 'other' && !UNDERSTOOD_OTHER.has(value.name)) unknown(value.name);
        values.push(value);
      }
    } else if (c.name === 'sound') values.push(readSound(c));
  }
  return values;
}

/** A chord symbol as text: "Dm7", "G7/B". */
export function harmonyText(e: Element): string {
  const note = (parent: Element | undefined, prefix: string): string => {
    if (!parent) return '';
    const alter = Number(childText(parent, `${prefix}-alter`) ?? 0);
    return (childText(parent, `${prefix}-step`) ?? '') + (alter > 0 ? '#'.repeat(alter) : 'b'.repeat(-alter));
  };
  const root = note(child(e, 'root'), 'root') || (childText(e, 'function') ?? childText(e, 'numeral') ?? '');
  const kind = child(e, 'kind');
  const bass = note(child(e, 'bass'), 'bass');
  return root + (kind?.attributes.text ?? KIND_TEXT[kind?.text.trim() ?? ''] ?? '') + (bass ? `/${bass}` : '');
}

const KIND_TEXT: Record<string, string> = {
  minor: 'm',
  augmented: '+',
  diminished: 'dim',
  dominant: '7',
  'major-seventh': 'maj7',
  'minor-seventh': 'm7',
  'diminished-seventh': 'dim7',
  'half-diminished': 'm7b5',
  'major-sixth': '6',
  'minor-sixth': 'm6'
};

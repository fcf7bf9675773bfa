import { add, cmp, frac, lte, mul, sub, toNumber, type Fraction } from '../score/fraction.ts';
import type { Measure } from '../score/model.ts';
import { escapeXml } from '../score/musicxml/escape.ts';
import { measureAt } from '../score/position.ts';
import { ENGRAVING } from '../style/page-weights.ts';
import { kindOf, soundOf } from '../markings/describe.ts';
import type { MeiNote, MeiPlace } from '../markings/description.ts';
import type { Marking } from '../markings/marking.ts';
import { withOssias, type OssiaMei } from './ossia-mei.ts';
import type { Chunk } from './chunk.ts';

/** A row of analysis under the staff: text at a moment. */
export interface RowEntry {
  id: string;
  start: Fraction;
  text: string;
  /** Where it ends, for rows that are drawn as brackets. */
  until?: Fraction;
  /** Which row: part of the CSS class in the picture. */
  row: 'chords' | 'keys' | 'phrases' | 'rhythm' | 'count' | 'voices' | 'crossings' | 'lies';
  /** Its staff, counted through all parts; that of the row where it is not said. */
  staff?: number;
  /** Ids of two notes between which it is drawn as a short line. */
  between?: readonly [string, string];
}

/** Rows that stand above the first staff; the others stand below the last. */
const ABOVE: ReadonlySet<RowEntry['row']> = new Set(['keys', 'phrases', 'voices']);

/** What the engraver needs to know of a score: its bars and how many staves each part has. */
export interface Frame {
  measures: Measure[];
  parts: { index: number; staves: number }[];
}

/** MEI time stamp: beats from 1 in units of the meter's denominator, from the bar's real beginning. */
const tstamp = (measure: Measure, onset: Fraction): number => toNumber(add(mul(onset, frac(measure.time?.unit ?? 4, 4)), frac(1)));

/** Where a marking stands in the measure in which it begins, as MEI attributes. */
function placeIn(score: Frame, m: Marking, measure: Measure): MeiPlace {
  const identified = (id: string): string => `xml:id="${escapeXml(id)}" type="editorial ${m.kind}" resp="#editor"`;
  const identity = identified(m.id);
  const stamp = `tstamp="${tstamp(measure, sub(m.start, measure.start))}"`;
  const end = m.end ?? m.start;
  let last = measureAt(score, end);
  // What ends with a bar ends there, not on the first beat of the next.
  if (cmp(end, last.start) === 0 && last.index > measure.index) last = score.measures[last.index - 1];
  const { side, right, up } = m.placing ?? {};
  // The engraver moves by half spaces.
  const moved = (right ? ` ho="${2 * right}"` : '') + (up ? ` vo="${2 * up}"` : '');
  return {
    identity,
    again: identified(`${m.id}-2`),
    common: `${identity} staff="${staffNumber(score, m.part, m.staff)}"${moved}`,
    side: (usual) => `place="${side ?? usual}"`,
    curve: side ? ` curvedir="${side}"` : '',
    stamp,
    anchor: m.note ? `startid="#${escapeXml(m.note)}"` : stamp,
    beforeTheEnd: `tstamp="${breathStamp(m, measure)}"`,
    until: `tstamp2="${last.index - measure.index}m+${tstamp(last, sub(end, last.start))}"`
  };
}

/** A breath stands at the end of its note (`end`), a little before the next entry, between the two. */
function breathStamp(m: Marking, measure: Measure): number {
  const from = tstamp(measure, sub(m.start, measure.start));
  const to = m.end ? tstamp(measure, sub(m.end, measure.start)) : from + 1;
  return from + Math.max(0.5, to - from) * 0.75;
}

/** Staff number in the engraving: staves are counted through all parts. */
export function staffNumber(score: Frame, part: number, staff: number): number {
  let before = 0;
  for (const p of score.parts) {
    if (p.index === part) break;
    before += p.staves;
  }
  return before + staff;
}

/** Puts signs inside of their notes: articulations and accents. */
function withSignsInNotes(mei: string, signs: readonly { note: string; xml: string }[]): string {
  let result = mei;
  for (const { note, xml } of signs) {
    const at = result.indexOf(`xml:id="${note}"`);
    if (at < 0) continue;
    const close = result.indexOf('>', at);
    if (result[close - 1] === '/') {
      const name = /<(\w+)[^<]*$/.exec(result.slice(0, at))?.[1] ?? 'note';
      result = `${result.slice(0, close - 1)}>${xml}</${name}>${result.slice(close + 1)}`;
    } else result = result.slice(0, close + 1) + xml + result.slice(close + 1);
  }
  return result;
}

/** A note that is meant in place of a printed one. */
interface Emended {
  mark: string;
  note: string;
  instead: MeiNote;
}

/**
 * Puts the notes that are meant in the place of printed ones.
 * @param both the printed and the meant one side by side, as an encoding has them; else the meant one alone, small, under the other's id
 */
function withOtherNotes(mei: string, others: readonly Emended[], both: boolean): string {
  return others.reduce((text, { mark, note, instead }) => {
    const id = text.indexOf(`xml:id="${note}"`);
    const from = text.lastIndexOf('<note', id);
    const open = text.indexOf('>', id) + 1;
    if (id < 0 || from < 0) return text;
    const to = text[open - 2] === '/' ? open : text.indexOf('</note>', open) + '</note>'.length;
    const put = (printed: string): string => {
      const attributes = `pname="${instead.pname}" oct="${instead.oct}" accid="${instead.accid}"`;
      const bare = printed
        .replace(/<accid\b[^>]*?(?:\/>|>\s*<\/accid>)/g, '')
        .replace(/^<note[^>]*/, (tag) => tag.replace(/ (?:pname|oct|accid(?:\.ges)?|cue|type)="[^"]*"/g, ''));
      if (!both) return bare.replace('<note', `<note cue="true" type="editorial emendation" ${attributes}`);
      const meant = bare.replace(/xml:id="([^"]*)"/g, 'xml:id="$1-meant"').replace('<note', `<note ${attributes}`);
      return `<choice xml:id="${escapeXml(mark)}"><sic>${printed}</sic><corr resp="#editor">${meant}</corr></choice>`;
    };
    return text.slice(0, from) + put(text.slice(from, to)) + text.slice(to);
  }, mei);
}

/** Over chord symbols there is little room: a key that begins with a phrase is named with it. */
function keysWithPhrases(score: Frame, rows: readonly RowEntry[]): RowEntry[] {
  const bar = (r: RowEntry): number => measureAt(score, r.start).index;
  const phrases = rows.filter((r) => r.row === 'phrases' && r.until);
  const named = new Map<RowEntry, RowEntry>();
  for (const key of rows.filter((r) => r.row === 'keys')) {
    const phrase = phrases.find((p) => lte(key.start, p.start) && bar(p) === bar(key) && !named.has(p));
    if (phrase) named.set(phrase, key);
  }
  const taken = new Set(named.values());
  return rows.filter((r) => !taken.has(r)).map((r) => (named.has(r) ? { ...r, text: `${r.text}, ${named.get(r)!.text}` } : r));
}

/** An entry of a row of analysis at its moment. `symbols`: the page prints chord symbols, whose line the keys must leave free. */
function rowElement({ id, row, text }: RowEntry, staff: number, stamp: number, symbols: boolean): string {
  const common = `xml:id="${escapeXml(id)}" type="analysis ${row}" place="${ABOVE.has(row) ? 'above' : 'below'}" staff="${staff}" tstamp="${stamp}"`;
  // Chords and keys keep a line of their own; a count line too, in small print, because it has an entry for every part of a beat.
  if (row === 'chords' || (row === 'keys' && !symbols)) return `<harm ${common}>${escapeXml(text)}</harm>`;
  const small = text.startsWith('(') ? ENGRAVING.heldBeat : ENGRAVING.count;
  const [group, size] =
    row === 'count' || row === 'lies' ? [' vgrp="1"', ` fontsize="${row === 'lies' ? ENGRAVING.count : small}"`] : ['', ''];
  return `<dir ${common}${group}><rend fontstyle="normal"${size}>${escapeXml(text)}</rend></dir>`;
}

/** A dotted line from one note to another. */
const lineBetween = ({ id, row }: RowEntry, [from, to]: readonly [string, string]): string =>
  `<gliss xml:id="${escapeXml(id)}" type="analysis ${row}" startid="#${from}" endid="#${to}" lform="dotted"/>`;

/** A bracket over a stretch of time with its text at the beginning, as far as it lies in the chunk. */
function bracket(score: Frame, chunk: Chunk, r: RowEntry & { until: Fraction }): [Measure, string] | null {
  const [from, to] = [measureAt(score, r.start), measureAt(score, r.until)];
  if (to.index < chunk.from || from.index >= chunk.to) return null;
  const first = score.measures[Math.max(from.index, chunk.from)];
  const last = score.measures[Math.min(to.index, chunk.to - 1)];
  const begins = first === from ? tstamp(first, sub(r.start, first.start)) : 1;
  const ends = last === to ? tstamp(last, sub(r.until, last.start)) : tstamp(last, last.length);
  const common = `type="analysis ${r.row}" place="above" staff="1" tstamp="${begins}"`;
  const span = `<bracketSpan xml:id="${escapeXml(r.id)}" ${common} func="analytical" lform="solid" lwidth="narrow" tstamp2="${last.index - first.index}m+${ends}"/>`;
  const name =
    first === from
      ? `<dir xml:id="${escapeXml(r.id)}-name" ${common}><rend fontstyle="normal" fontsize="80%">${escapeXml(r.text)}</rend></dir>`
      : '';
  return [first, span + name];
}

/** Markings as they are placed: a breath is drawn where its note ends. */
export function placed(markings: readonly Marking[], note: (id: string) => { duration: Fraction } | undefined): Marking[] {
  return markings.map((m) => {
    const held = soundOf(m).pause && m.note ? note(m.note) : undefined;
    return held ? { ...m, end: add(m.start, held.duration) } : m;
  });
}

/** Staves that a source prints larger than its others (tablature often) in the usual size: their words grow with them and collide. */
const withoutOversize = (mei: string): string => mei.replace(/(<staffDef\b[^>]*?) scale="[1-9]\d\d+(?:\.\d+)?%"/g, '$1');

/**
 * Adds markings and analysis rows to the MEI that the engraver made of one chunk. Ids are kept, so every
 * sign in the picture can be traced to its marking; all of them bear the class "editorial".
 * @param both printed notes stand beside those that are meant in their place: for an encoding, not for a page
 */
export function editionMei(
  mei: string,
  score: Frame,
  chunk: Chunk,
  markings: readonly Marking[],
  rows: readonly RowEntry[] = [],
  both = false,
  ossias: readonly OssiaMei[] = []
): string {
  const inside = (start: Fraction): Measure | null => {
    const measure = measureAt(score, start);
    return measure.index >= chunk.from && measure.index < chunk.to ? measure : null;
  };
  const byMeasure = new Map<number, string>();
  const put = (measure: Measure, xml: string) => byMeasure.set(measure.index, (byMeasure.get(measure.index) ?? '') + xml);
  const inNotes: { note: string; xml: string }[] = [];
  const onNotes: { note: string; attribute: string }[] = [];
  const others: Emended[] = [];
  for (const m of markings) {
    const measure = inside(m.start);
    const sign = measure && kindOf(m.kind).mei(m, placeIn(score, m, measure));
    if (!measure || !sign) continue;
    if ('beside' in sign) put(measure, sign.beside);
    else if ('instead' in sign) {
      if (m.note) others.push({ mark: m.id, note: m.note, instead: sign.instead });
    } else if ('onNote' in sign) {
      if (m.note) onNotes.push({ note: m.note, attribute: sign.onNote });
    } else if (m.note) inNotes.push({ note: m.note, xml: sign.inNote });
  }
  const symbols = mei.includes('<harm');
  const lowest = score.parts.reduce((sum, p) => sum + p.staves, 0);
  for (const r of symbols ? keysWithPhrases(score, rows) : rows) {
    if (r.until) {
      const [first, xml] = bracket(score, chunk, r as RowEntry & { until: Fraction }) ?? [];
      if (first) put(first, xml!);
      continue;
    }
    const measure = inside(r.start);
    if (measure && r.between) put(measure, lineBetween(r, r.between));
    else if (measure)
      put(measure, rowElement(r, r.staff ?? (ABOVE.has(r.row) ? 1 : lowest), tstamp(measure, sub(r.start, measure.start)), symbols));
  }
  let result = withSignsInNotes(withOtherNotes(withoutOversize(mei), others, both), inNotes);
  for (const { note, attribute } of onNotes) result = result.replace(`xml:id="${note}"`, `$& ${attribute}`);
  for (const [index, xml] of byMeasure) {
    const at = result.indexOf(`xml:id="m${index}"`);
    const close = at < 0 ? -1 : result.indexOf('</measure>', at);
    if (close >= 0) result = result.slice(0, close) + xml + result.slice(close);
  }
  return withOssias(result, ossias);
}

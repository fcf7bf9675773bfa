import { ZERO, type Fraction } from '../fraction.ts';
import type { Note, NoteMark, SpanEnd } from '../model.ts';
import { stepOf, transpose, type Interval, type Pitch } from '../pitch.ts';
import { integer } from './attributes.ts';
import { child, childText, type Element } from './scan.ts';

/** Children of <note> that carry nothing for time, pitch or interpretation beyond what is read. */
const LAYOUT = new Set(['beam', 'voice', 'staff', 'duration', 'footnote', 'level', 'instrument', 'notehead-text', 'play', 'listen']);
const SPANNERS = new Set(['slur', 'glissando', 'slide']);

export interface NoteContext {
  part: number;
  measure: number;
  onset: Fraction;
  transpose: Interval;
  unknown: (name: string) => void;
  /** A dynamic inside <notations>. */
  dynamic: (element: Element) => void;
}

function readPitch(element: Element): Pitch | undefined {
  const step = stepOf((childText(element, 'step') ?? '').toUpperCase());
  if (step < 0) return undefined;
  const alter = Number(childText(element, 'alter') ?? 0);
  const octave = childText(element, 'octave');
  // What is no whole number stays none, so that the reader can say where it stands.
  return {
    step,
    alter: Number.isFinite(alter) ? alter : 0,
    octave: octave === undefined ? 4 : /^\s*-?\d+\s*$/.test(octave) ? Number(octave) : NaN
  };
}

const markOf = (group: NoteMark['group'], e: Element): NoteMark => {
  const mark: NoteMark = { group, name: e.name };
  const value = e.text.trim();
  if (value) mark.value = value;
  const place = e.attributes.placement ?? e.attributes.type;
  if (place) mark.placement = place;
  return mark;
};

function readOrnaments(e: Element, marks: NoteMark[], spans: SpanEnd[], unknown: (name: string) => void): void {
  for (const c of e.children) {
    if (c.name === 'accidental-mark') {
      const last = [...marks].reverse().find((m) => m.group === 'ornament');
      if (!last) continue;
      (last.accidentals ??= []).push(
        c.attributes.placement ? { value: c.text.trim(), placement: c.attributes.placement } : { value: c.text.trim() }
      );
    } else if (c.name === 'wavy-line') {
      spans.push({ kind: 'wavy-line', number: c.attributes.number ?? '1', type: c.attributes.type as SpanEnd['type'] });
    } else if (c.name === 'tremolo') {
      const type = c.attributes.type;
      if (type === 'start' || type === 'stop') spans.push({ kind: 'tremolo', number: '1', type });
      marks.push(markOf('ornament', c));
    } else {
      if (c.name === 'other-ornament') unknown('other-ornament');
      marks.push(markOf('ornament', c));
    }
  }
}

function readNotations(e: Element, context: NoteContext, marks: NoteMark[], spans: SpanEnd[]): void {
  for (const c of e.children) {
    if (SPANNERS.has(c.name)) {
      spans.push({
        kind: c.name as SpanEnd['kind'],
        number: c.attributes.number ?? '1',
        type: (c.attributes.type as SpanEnd['type']) ?? 'start'
      });
      continue;
    }
    switch (c.name) {
      case 'articulations':
        for (const a of c.children) marks.push(markOf('articulation', a));
        break;
      case 'technical':
        for (const a of c.children) {
          marks.push(markOf('technical', a));
          if (a.name === 'other-technical') context.unknown('other-technical');
        }
        break;
      case 'ornaments':
        readOrnaments(c, marks, spans, context.unknown);
        break;
      case 'fermata':
        marks.push(markOf('fermata', c));
        break;
      case 'arpeggiate':
      case 'non-arpeggiate': {
        const mark: NoteMark = { group: 'arpeggio', name: c.name };
        if (c.attributes.direction) mark.value = c.attributes.direction;
        marks.push(mark);
        break;
      }
      case 'dynamics':
        context.dynamic(c);
        break;
      case 'tied':
      case 'tuplet':
      case 'footnote':
      case 'level':
        break;
      case 'accidental-mark':
        marks.push(markOf('other', c));
        break;
      default:
        context.unknown(c.name);
    }
  }
}

/** Reads one <note>; `duration` is already in quarters. Ids, absolute start and staff defaults are the caller's. */
export function readNote(e: Element, context: NoteContext, duration: Fraction): Note {
  const note: Note = {
    id: e.attributes.id ?? '',
    part: context.part,
    measure: context.measure,
    onset: context.onset,
    start: ZERO,
    duration,
    voice: '1',
    staff: 1,
    span: { from: e.from, to: e.to },
    notationsAt: e.close
  };
  if (e.attributes['print-object'] === 'no') note.hidden = true;
  const marks: NoteMark[] = [];
  const spans: SpanEnd[] = [];
  let tieStart = false;
  let tieStop = false;
  let dots = 0;
  for (const c of e.children) {
    switch (c.name) {
      case 'pitch':
        note.pitch = readPitch(c);
        if (note.pitch) note.sounding = transpose(note.pitch, context.transpose);
        break;
      case 'unpitched':
        note.unpitched = true;
        break;
      case 'rest':
        note.rest = true;
        if (c.attributes.measure === 'yes') note.wholeMeasure = true;
        break;
      case 'chord':
        note.chord = true;
        break;
      case 'cue':
        note.cue = true;
        break;
      case 'grace': {
        note.grace = { slash: c.attributes.slash === 'yes' };
        if (c.attributes['steal-time-previous']) note.grace.stealPrevious = Number(c.attributes['steal-time-previous']);
        if (c.attributes['steal-time-following']) note.grace.stealFollowing = Number(c.attributes['steal-time-following']);
        break;
      }
      case 'tie':
        if (c.attributes.type === 'start') tieStart = true;
        if (c.attributes.type === 'stop') tieStop = true;
        break;
      case 'type':
        note.type = c.text.trim();
        break;
      case 'dot':
        dots++;
        break;
      case 'accidental':
        note.accidental = c.text.trim();
        if (c.attributes.cautionary === 'yes' || c.attributes.editorial === 'yes') note.courtesy = true;
        break;
      case 'time-modification':
        note.timeModification = {
          actual: integer(childText(c, 'actual-notes'), 1),
          normal: integer(childText(c, 'normal-notes'), 1)
        };
        break;
      case 'stem':
        note.stem = c.text.trim();
        break;
      case 'notehead':
        note.notehead = c.text.trim();
        break;
      case 'notations': {
        readNotations(c, context, marks, spans);
        // Files that give only the drawn tie still mean a tie.
        for (const tied of c.children) {
          if (tied.name !== 'tied') continue;
          if (tied.attributes.type === 'start') tieStart = true;
          if (tied.attributes.type === 'stop') tieStop = true;
        }
        break;
      }
      case 'lyric':
        if (note.notationsAt === e.close) note.notationsAt = c.from;
        (note.lyrics ??= []).push({
          number: c.attributes.number ?? '1',
          text: c.children
            .filter((t) => t.name === 'text' || t.name === 'elision')
            .map((t) => t.text)
            .join(''),
          syllabic: childText(c, 'syllabic')
        });
        break;
      default:
        if (!LAYOUT.has(c.name)) context.unknown(c.name);
        else if ((c.name === 'play' || c.name === 'listen') && note.notationsAt === e.close) note.notationsAt = c.from;
    }
  }
  const voice = childText(e, 'voice');
  if (voice) note.voice = voice;
  note.staff = Math.max(1, integer(childText(e, 'staff'), 1));
  if (dots) note.dots = dots;
  if (tieStart || tieStop) note.tie = { start: tieStart, stop: tieStop };
  if (marks.length) note.marks = marks;
  if (spans.length) note.spans = spans;
  // Some programs mark cue-size notes only by type size and leave <cue/> out; those do sound.
  if (note.cue && child(e, 'grace')) note.duration = ZERO;
  return note;
}

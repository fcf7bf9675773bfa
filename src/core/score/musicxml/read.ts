import { add, cmp, div, frac, lt, max, parseFraction, sub, toNumber, ZERO, type Fraction } from '../fraction.ts';
import {
  REMARK_FIELD,
  ScoreError,
  type Direction,
  type DirectionValue,
  type Measure,
  type Part,
  type Remark,
  type Score,
  type TextSpan
} from '../model.ts';
import { HIGHEST_OCTAVE, LOWEST_OCTAVE, type Interval } from '../pitch.ts';
import { connectHairpins, connectSlurs } from '../spans.ts';
import { integer, readAttributes } from './attributes.ts';
import { capRepeats } from '../repeats.ts';
import { readBarline, readJump, readJumpWords } from './barline.ts';
import { dynamicValue, harmonyText, readDirection, readSound } from './direction.ts';
import { readNote, type NoteContext } from './note.ts';
import { child, childText, scan, type Element } from './scan.ts';

/** More bars than any single piece has; a longer file is refused before it fills the memory. */
const MAX_MEASURES = 5_000;
const MAX_NOTES = 400_000;
/** Longest bar and longest piece, in quarters: unbarred cadenzas are far shorter; what is longer is a fault in the file. */
const MAX_BAR = 2_000;
const MAX_LENGTH = 100_000;
const NO_TRANSPOSE: Interval = { diatonic: 0, chromatic: 0 };

/** State of one part while it is read. */
interface PartState {
  part: Part;
  divisions: Fraction;
  transpose: Interval;
  /** Index of the measure that comes next. */
  next: number;
  noteCount: number;
}

/** Reads a whole MusicXML text (partwise or timewise, 1.0 to 4.0) into the score model. */
/** A name on one line: sources set names and titles in several lines for their own page. */
const oneLine = (text: string): string => text.replace(/\s+/g, ' ').trim();
/** What a file says, short enough for a sentence. */
const shown = (text: string): string => oneLine(text).slice(0, 20);

class Reader {
  readonly score: Score = {
    title: '',
    composer: '',
    credits: [],
    parts: [],
    measures: [],
    notes: [],
    directions: [],
    slurs: [],
    hairpins: [],
    harmonies: [],
    remarks: []
  };
  private readonly states = new Map<string, PartState>();
  private readonly remarks = new Map<string, Remark>();
  private readonly durations = new Map<string, Fraction>();
  private readonly ids = new Set<string>();
  private root = '';
  private state: PartState | null = null;
  private measure: Measure | null = null;
  private measureOpen: TextSpan | null = null;
  private cursor: Fraction = ZERO;
  private lastOnset: Fraction = ZERO;
  private reach: Fraction = ZERO;
  private restReach: Fraction = ZERO;
  private readonly reaches: Fraction[] = [];
  private readonly restReaches: Fraction[] = [];
  /** Printed jumps, applied at the end where no <sound> took their place. */
  private readonly jumpWords: { measure: number; text: string }[] = [];
  private soundJumps = false;

  open(name: string, attributes: Record<string, string>, span: TextSpan): void {
    if (name === 'score-partwise' || name === 'score-timewise') this.root = name;
    else if (name === 'part') {
      this.state = this.stateOf(attributes.id ?? 'P1');
      if (this.root === 'score-timewise' && this.measure) this.beginMeasure(span);
    } else if (name === 'measure') {
      if (this.root === 'score-timewise') this.measure = this.measureAt(this.score.measures.length, attributes);
      else if (this.state) {
        this.measure = this.measureAt(this.state.next, attributes);
        this.beginMeasure(span);
      }
    }
  }

  close(name: string, close: number, to: number): void {
    const inner = this.root === 'score-timewise' ? 'part' : 'measure';
    if (name === inner && this.measure && this.state) this.endMeasure(close, to);
    if (name === 'measure') this.measure = null;
    if (name === 'part') this.state = null;
  }

  element(e: Element, parent: string): void {
    if (this.state && this.measure) this.musicElement(e, this.state, this.measure);
    else if (parent === this.root) this.headerElement(e);
  }

  private stateOf(id: string): PartState {
    let state = this.states.get(id);
    if (!state) {
      let part = this.score.parts.find((p) => p.id === id);
      if (!part) {
        part = this.newPart(id, '');
        this.remark('repaired', `part ${id} is missing from the part list`);
      }
      state = { part, divisions: frac(1), transpose: NO_TRANSPOSE, next: 0, noteCount: 0 };
      this.states.set(id, state);
    }
    return state;
  }

  private newPart(id: string, name: string): Part {
    const part: Part = { index: this.score.parts.length, id, name, staves: 1, transpose: NO_TRANSPOSE, changes: [], measureSpans: [] };
    this.score.parts.push(part);
    return part;
  }

  private measureAt(index: number, attributes: Record<string, string>): Measure {
    if (index >= MAX_MEASURES)
      throw new ScoreError(`The file has more than ${MAX_MEASURES.toLocaleString('en')} measures, too many for one piece`);
    const known = this.score.measures[index];
    if (known) return known;
    const measure: Measure = {
      index,
      number: attributes.number ?? String(index + 1),
      implicit: attributes.implicit === 'yes',
      start: ZERO,
      length: ZERO,
      time: null,
      key: { fifths: 0 }
    };
    this.score.measures.push(measure);
    return measure;
  }

  private beginMeasure(span: TextSpan): void {
    this.measureOpen = span;
    this.cursor = ZERO;
    this.lastOnset = ZERO;
    this.reach = ZERO;
    this.restReach = ZERO;
  }

  private endMeasure(close: number, to: number): void {
    const state = this.state!;
    const index = this.measure!.index;
    const open = this.measureOpen!;
    state.part.measureSpans[index] = { outer: { from: open.from, to }, inner: { from: Math.min(open.to, close), to: close } };
    state.next = index + 1;
    this.reaches[index] = max(this.reaches[index] ?? ZERO, this.reach);
    this.restReaches[index] = max(this.restReaches[index] ?? ZERO, this.restReach);
  }

  private remark(kind: Remark['kind'], text: string, measure?: number): void {
    const key = `${kind}|${text}`;
    const known = this.remarks.get(key);
    if (known) known.count++;
    else this.remarks.set(key, measure === undefined ? { kind, text, count: 1 } : { kind, text, count: 1, measure });
  }

  private headerElement(e: Element): void {
    const score = this.score;
    switch (e.name) {
      case 'work':
        score.title = oneLine(childText(e, 'work-title') ?? score.title);
        break;
      case 'movement-title':
        score.movement = oneLine(e.text);
        break;
      case 'identification':
        for (const c of e.children) {
          if (c.name === 'creator' && (c.attributes.type === 'composer' || !score.composer)) score.composer = oneLine(c.text);
          if (c.name === 'miscellaneous')
            for (const field of c.children) if (field.attributes.name === REMARK_FIELD) this.remark('not-understood', field.text.trim());
          if (c.name === 'encoding') score.software = childText(c, 'software') ?? score.software;
        }
        break;
      case 'credit': {
        const text = e.children
          .filter((c) => c.name === 'credit-words')
          .map((c) => c.text.trim())
          .join(' ');
        if (text) score.credits.push({ type: childText(e, 'credit-type') ?? '', text });
        break;
      }
      case 'part-list':
        for (const c of e.children) if (c.name === 'score-part') this.scorePart(c);
        break;
      case 'defaults':
      case 'movement-number':
        break;
      default:
        this.remark('not-understood', `<${e.name}>`);
    }
  }

  private scorePart(e: Element): void {
    const part = this.newPart(e.attributes.id ?? `P${this.score.parts.length + 1}`, oneLine(childText(e, 'part-name') ?? ''));
    const abbreviation = childText(e, 'part-abbreviation');
    const instrument = child(e, 'score-instrument');
    const sound = instrument && (childText(instrument, 'instrument-sound') || childText(instrument, 'instrument-name'));
    if (abbreviation) part.abbreviation = abbreviation;
    if (sound) part.instrument = sound;
  }

  /** A duration in quarters; null where none is given. One that no music has is refused with its place. */
  private quarters(text: string | undefined, state: PartState): Fraction | null {
    if (text === undefined) return null;
    const key = `${text}|${state.divisions.n}/${state.divisions.d}`;
    let value = this.durations.get(key);
    if (!value) {
      const read = parseFraction(text);
      if (!read) this.refuse(`"${shown(text)}" is no duration`);
      if (read.n < 0) this.refuse(`A duration of ${shown(text)} is less than nothing`);
      value = div(read, state.divisions);
      this.durations.set(key, value);
    }
    return value;
  }

  private refuse(message: string): never {
    throw new ScoreError(message, { measure: this.measure?.number });
  }

  private advance(to: Fraction): void {
    this.cursor = to;
    if (lt(this.reach, to)) this.reach = to;
  }

  private musicElement(e: Element, state: PartState, measure: Measure): void {
    const unknown = (name: string) => this.remark('not-understood', `<${name}>`, measure.index);
    switch (e.name) {
      case 'note':
        this.note(e, state, measure, unknown);
        break;
      case 'backup': {
        const back = sub(this.cursor, this.quarters(childText(e, 'duration'), state) ?? ZERO);
        if (back.n < 0) this.refuse('A backup goes past the beginning of its bar');
        this.cursor = back;
        break;
      }
      case 'forward':
        this.advance(add(this.cursor, this.quarters(childText(e, 'duration'), state) ?? ZERO));
        break;
      case 'attributes':
        this.attributes(e, state, measure, unknown);
        break;
      case 'direction': {
        const offset = this.offset(e, state);
        const staff = integer(childText(e, 'staff'), 1);
        for (const value of readDirection(e, unknown)) {
          this.addDirection(value, state, measure, offset, staff, e.attributes.placement, e);
        }
        break;
      }
      case 'sound':
        this.addDirection(readSound(e), state, measure, this.offset(e, state), 1, undefined, e);
        break;
      case 'harmony':
        this.score.harmonies.push({
          part: state.part.index,
          measure: measure.index,
          onset: this.offset(e, state),
          start: ZERO,
          text: harmonyText(e),
          ...(child(e, 'kind') ? { kind: childText(e, 'kind')! } : {})
        });
        break;
      case 'barline':
        if (state.part.index === 0 || child(e, 'repeat') || child(e, 'ending')) readBarline(e, measure);
        break;
      case 'figured-bass':
        this.addDirection(
          {
            kind: 'other',
            name: 'figured-bass',
            text: e.children
              .filter((c) => c.name === 'figure')
              .map((f) => f.children.map((c) => c.text.trim()).join(''))
              .join(' ')
          },
          state,
          measure,
          this.cursor,
          1,
          'below',
          e
        );
        break;
      case 'print':
        break;
      default:
        unknown(e.name);
    }
  }

  private offset(e: Element, state: PartState): Fraction {
    const text = childText(e, 'offset');
    if (text === undefined) return this.cursor;
    const value = parseFraction(text);
    const at = value ? add(this.cursor, div(value, state.divisions)) : this.cursor;
    return at.n < 0 ? ZERO : at;
  }

  private attributes(e: Element, state: PartState, measure: Measure, unknown: (name: string) => void): void {
    const change = readAttributes(e, measure.index, this.cursor, unknown, (message) => this.refuse(message));
    if (change.divisions) state.divisions = change.divisions;
    if (change.staves) state.part.staves = Math.max(state.part.staves, change.staves);
    if (change.transpose) {
      if (state.noteCount === 0) state.part.transpose = change.transpose;
      state.transpose = change.transpose;
    }
    state.part.changes.push(change);
  }

  private addDirection(
    value: DirectionValue,
    state: PartState,
    measure: Measure,
    onset: Fraction,
    staff: number,
    placement: string | undefined,
    e: Element
  ): void {
    const id = `d${state.part.index}-${measure.index}-${e.from.toString(36)}-${this.score.directions.length}`;
    const place = { id, part: state.part.index, measure: measure.index, onset, start: ZERO, staff };
    const span = e.name === 'direction' ? { span: { from: e.from, to: e.to } } : {};
    this.score.directions.push((placement ? { ...place, placement, ...span, ...value } : { ...place, ...span, ...value }) as Direction);
    if (value.kind === 'sound') {
      readJump(value.attributes, measure);
      if (/dacapo|dalsegno|tocoda|fine/.test(Object.keys(value.attributes).join())) this.soundJumps = true;
    } else if (value.kind === 'words') this.jumpWords.push({ measure: measure.index, text: value.text });
    else if (value.kind === 'rehearsal') measure.rehearsal ??= value.text;
    else if (value.kind === 'sign') measure[value.name] ??= value.name;
  }

  private note(e: Element, state: PartState, measure: Measure, unknown: (name: string) => void): void {
    if (this.score.notes.length >= MAX_NOTES) throw new ScoreError('The file has more notes than any single piece');
    const isChord = child(e, 'chord') !== undefined;
    const isGrace = child(e, 'grace') !== undefined;
    const written = isGrace ? ZERO : this.quarters(childText(e, 'duration'), state);
    if (written === null) this.remark('repaired', 'a note without a readable duration', measure.index);
    const duration = written ?? ZERO;
    const onset = isChord ? this.lastOnset : this.cursor;
    const context: NoteContext = {
      part: state.part.index,
      measure: measure.index,
      onset,
      transpose: state.transpose,
      unknown,
      dynamic: (d) => {
        const value = dynamicValue(d);
        if (value)
          this.addDirection(
            { kind: 'dynamic', value },
            state,
            measure,
            onset,
            integer(childText(e, 'staff'), 1),
            d.attributes.placement,
            d
          );
      }
    };
    const note = readNote(e, context, duration);
    if (!note.pitch && !note.rest && !note.unpitched) {
      this.refuse('A note has no readable pitch');
    }
    if (note.pitch && !(note.pitch.octave >= LOWEST_OCTAVE && note.pitch.octave <= HIGHEST_OCTAVE))
      this.refuse(
        `A note in octave "${shown(childText(child(e, 'pitch')!, 'octave')!)}" cannot be heard: octaves go from ${LOWEST_OCTAVE} to ${HIGHEST_OCTAVE}`
      );
    if (!note.id || this.ids.has(note.id)) note.id = `n${state.part.index}-${state.noteCount}`;
    while (this.ids.has(note.id)) note.id += 'x';
    this.ids.add(note.id);
    state.noteCount++;
    if (note.staff > state.part.staves) state.part.staves = Math.min(64, note.staff);
    this.score.notes.push(note);
    if (isGrace) return;
    if (!isChord) {
      this.lastOnset = onset;
      const end = add(onset, duration);
      if (note.wholeMeasure) {
        // A whole-bar rest adapts to its bar: it counts for the bar's length only if nothing else does.
        this.restReach = max(this.restReach, end);
        this.cursor = end;
      } else this.advance(end);
    }
  }

  finish(): Score {
    const { score } = this;
    if (!this.root) throw new ScoreError('This is not a MusicXML file');
    if (score.parts.length === 0 || score.measures.length === 0)
      throw new ScoreError('The file holds no music: it has no part with measures');
    score.parts = score.parts.filter((p) => this.states.has(p.id));
    if (score.parts.length === 0) throw new ScoreError('The file holds no music: it has no part with measures');
    this.reindexParts();
    if (!score.title) score.title = score.movement ?? score.credits.find((c) => c.type === 'title')?.text ?? '';
    this.spreadSignatures();
    this.placeMeasures();
    if (!this.soundJumps) for (const { measure, text } of this.jumpWords) readJumpWords(text, score.measures[measure]);
    else for (const { measure, text } of this.jumpWords) if (/^fine\.?$/i.test(text.trim())) score.measures[measure].fine = true;
    connectSlurs(score, (text, measure) => this.remark('repaired', text, measure));
    connectHairpins(score, (text, measure) => this.remark('repaired', text, measure));
    capRepeats(score.measures, (text, measure) => this.remark('repaired', text, measure));
    score.remarks = [...this.remarks.values()];
    return score;
  }

  private checkLength(measure: Measure, end: Fraction): void {
    const { number } = measure;
    const long = (quarters: Fraction): string => Math.round(toNumber(quarters)).toLocaleString('en');
    if (toNumber(measure.length) > MAX_BAR)
      throw new ScoreError(`This bar would last ${long(measure.length)} quarters: a duration in it must be wrong`, { measure: number });
    if (toNumber(end) > MAX_LENGTH)
      throw new ScoreError(`Up to here the piece would last ${long(end)} quarters: durations or meters in it must be wrong`, {
        measure: number
      });
  }

  /** Parts that stand in the list but hold no music are left out; the others keep their order. */
  private reindexParts(): void {
    const moved = new Map(this.score.parts.map((p, i) => [p.index, i]));
    if ([...moved].every(([a, b]) => a === b)) return;
    this.score.parts.forEach((p, i) => (p.index = i));
    for (const list of [this.score.notes, this.score.directions, this.score.harmonies])
      for (const item of list) item.part = moved.get(item.part)!;
  }

  /** Key and meter in force, as written in the first part, into every measure. */
  private spreadSignatures(): void {
    const { changes } = this.score.parts[0];
    let k = 0;
    let time: Measure['time'] = null;
    let key: Measure['key'] = { fifths: 0 };
    for (const measure of this.score.measures) {
      while (k < changes.length && changes[k].measure <= measure.index) {
        const change = changes[k];
        // A change in the middle of a bar governs from the next one.
        if (change.measure === measure.index && change.onset.n > 0) break;
        if (change.time) time = change.time.text === null ? null : change.time;
        if (change.keys) key = change.keys[0].key;
        k++;
      }
      measure.time = time;
      measure.key = key;
    }
  }

  private placeMeasures(): void {
    const { score } = this;
    let start = ZERO;
    for (const measure of score.measures) {
      const reach = this.reaches[measure.index] ?? ZERO;
      const rest = this.restReaches[measure.index] ?? ZERO;
      const nominal = measure.time?.quarters ?? null;
      if (reach.n > 0)
        measure.length = measure.implicit || rest.n === 0 ? reach : max(reach, nominal ? (cmp(rest, nominal) > 0 ? nominal : rest) : rest);
      else if (rest.n > 0) measure.length = nominal && !measure.implicit ? nominal : rest;
      else measure.length = nominal ?? frac(4);
      measure.start = start;
      start = add(start, measure.length);
      this.checkLength(measure, start);
      const odd = nominal ? cmp(measure.length, nominal) : 0;
      if (odd > 0) this.remark('repaired', 'a bar longer than its meter', measure.index);
      // Short bars are at home at both ends of the piece and on both sides of a repeat sign.
      const next = score.measures[measure.index + 1];
      const atJoin = measure.index === 0 || !next || next.implicit || measure.repeatEnd || measure.implicit;
      if (odd < 0 && !atJoin) this.remark('repaired', 'a bar shorter than its meter', measure.index);
    }
    for (const list of [score.notes, score.directions, score.harmonies] as { measure: number; onset: Fraction; start: Fraction }[][]) {
      for (const item of list) item.start = add(score.measures[item.measure].start, item.onset);
    }
  }
}

/**
 * Reads MusicXML text into a score.
 * @throws ScoreError with one sentence and the line or measure when it is no readable score.
 */
export function readMusicXml(text: string): Score {
  const reader = new Reader();
  try {
    scan(text, reader);
    return reader.finish();
  } catch (error) {
    if (error instanceof RangeError) throw new ScoreError(`A time value cannot be held: ${error.message}`);
    throw error;
  }
}

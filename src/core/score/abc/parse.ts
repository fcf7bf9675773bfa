import { add, frac, lt, mul, sub, ZERO, type Fraction } from '../fraction.ts';
import { keyAlter } from '../accidentals.ts';
import { ScoreError, type KeySignature, type TimeSignature } from '../model.ts';
import { HIGHEST_OCTAVE, LOWEST_OCTAVE, stepOf, type Pitch } from '../pitch.ts';
import { ACCIDENTALS, readKeyField, readLengthField, readMeterField, readTempoField } from './fields.ts';
import type { AbcEvent, AbcSound, AbcTune, AbcVoice } from './model.ts';

/** One-letter decorations. Source: ABC 2.1, section 4.14 and 4.16 (predefined redefinable symbols). */
const SHORT_DECORATIONS: Record<string, string> = {
  '.': 'staccato',
  '~': 'roll',
  H: 'fermata',
  L: 'accent',
  M: 'lowermordent',
  O: 'coda',
  P: 'uppermordent',
  S: 'segno',
  T: 'trill',
  u: 'upbow',
  v: 'downbow'
};
/** Notes in the time of … for (p without further numbers. Source: ABC 2.1, section 4.13; 0 = by meter. */
const TUPLET_TIME: Record<number, number> = { 2: 3, 3: 2, 4: 3, 5: 0, 6: 2, 7: 0, 8: 3, 9: 0 };
const ACCIDENTAL_NAMES: Record<string, string> = { '^^': 'double-sharp', '^': 'sharp', '=': 'natural', _: 'flat', __: 'flat-flat' };

interface VoiceState {
  voice: AbcVoice;
  key: KeySignature;
  time: TimeSignature | null;
  unit: Fraction;
  /** Alterations carried in this bar, by written pitch. */
  carried: Map<string, number>;
  tuplet: { actual: number; normal: number; left: number; first: boolean } | null;
  broken: Fraction | null;
  pendingSlurs: number;
  pendingDecorations: string[];
  lastSound: AbcSound | null;
  /** First sound after the last line's beginning, for lyrics. */
  lineSounds: AbcSound[];
}

/** Largest number in a note length, above and below the stroke: more than a hundred whole notes, less than any flag shows. */
const LONGEST = 2_048;
/** Most bars that one sign of rest counts. */
const MOST_RESTS = 999;

/** Parser of one tune (the first of the file). */
class Parser {
  readonly tune: AbcTune = {
    title: '',
    composer: '',
    origin: '',
    time: null,
    key: { fifths: 0 },
    tempo: null,
    voices: [],
    layout: [],
    remarks: []
  };
  private readonly states = new Map<string, VoiceState>();
  private current: VoiceState | null = null;
  private unit: Fraction | null = null;
  /** One-letter decorations, as the tune may redefine them (U:). */
  private readonly shorts = { ...SHORT_DECORATIONS };
  private inBody = false;
  private clef = 'treble';
  private line = 0;
  private text = '';
  private pos = 0;

  parse(source: string): AbcTune {
    const lines = source.replace(/\r\n?/g, '\n').split('\n');
    const tunes = lines.filter((l) => /^X:/.test(l)).length;
    if (tunes > 1) this.tune.remarks.push(`the first of ${tunes} tunes was read, the others stay in the file`);
    let started = false;
    for (this.line = 1; this.line <= lines.length; this.line++) {
      let line = lines[this.line - 1];
      if (line.startsWith('%%')) {
        this.directive(line.slice(2).trim());
        continue;
      }
      // A line that holds only a comment is no line at all, and ends no tune. Source: ABC 2.1, section 2.2.1.
      if (line.trimStart().startsWith('%')) continue;
      line = line.replace(/(^|[^\\])%.*$/, '$1').trimEnd();
      if (line.trim() === '') {
        if (started && this.inBody) break;
        continue;
      }
      if (/^[A-Za-z+]:/.test(line) && !/^[|:]/.test(line)) {
        if (line[0] === 'X') started = true;
        this.field(line[0], line.slice(2).trim());
      } else if (this.inBody) this.music(line);
      else if (started) this.fail('Music stands before the key (K:) of the tune', 1);
    }
    if (!this.inBody) throw new ScoreError('The ABC text has no key field (K:), which ends the header of a tune');
    if (![...this.states.values()].some((s) => s.voice.events.some((e) => e.kind === 'sound')))
      throw new ScoreError('The ABC tune holds no notes');
    this.tune.voices = [...this.states.values()].map((s) => s.voice).filter((v) => v.events.some((e) => e.kind === 'sound'));
    return this.tune;
  }

  private fail(message: string, column = this.pos + 1): never {
    throw new ScoreError(message, { line: this.line, column, ...(this.inBody && this.current && { measure: this.barNow(this.current) }) });
  }

  /** The bar at hand as musicians count: an upbeat is none. */
  private barNow({ voice, time }: VoiceState): string {
    let length = ZERO;
    let bars = 0;
    for (const e of voice.events) {
      if (e.kind === 'sound' && !e.grace) length = add(length, e.duration);
      else if (e.kind === 'bar' && length.n) {
        const upbeat = bars === 0 && time?.quarters && lt(length, time.quarters);
        if (!upbeat) bars++;
        length = ZERO;
      }
    }
    return String(bars + 1);
  }

  private directive(text: string): void {
    const score = /^(?:score|staves)\s+(.*)$/.exec(text);
    if (score) this.tune.layout = readLayout(score[1]);
  }

  private get unitLength(): Fraction {
    if (this.unit) return this.unit;
    // Without L: the unit is 1/16 when the meter is below 3/4, else 1/8. Source: ABC 2.1, section 3.1.7.
    const q = this.tune.time?.quarters;
    return q && q.n / q.d < 3 ? frac(1, 4) : frac(1, 2);
  }

  private state(): VoiceState {
    return (this.current ??= this.voiceState('1', ''));
  }

  private voiceState(id: string, options: string): VoiceState {
    let state = this.states.get(id);
    if (!state) {
      const voice: AbcVoice = { id, name: '', clef: this.clef, transpose: 0, octave: 0, events: [] };
      state = {
        voice,
        key: this.tune.key,
        time: this.tune.time,
        unit: this.unitLength,
        carried: new Map(),
        tuplet: null,
        broken: null,
        pendingSlurs: 0,
        pendingDecorations: [],
        lastSound: null,
        lineSounds: []
      };
      this.states.set(id, state);
    }
    const name = /\b(?:name|nm)="([^"]*)"/.exec(options);
    const clef = /(?:clef=)?\b(treble|bass|alto|tenor|perc)([+-]8)?/.exec(options.replace(/"[^"]*"/g, ''));
    const transpose = /transpose=(-?\d+)/.exec(options);
    const octave = /octave=(-?\d+)/.exec(options);
    if (name) state.voice.name = name[1];
    if (clef) state.voice.clef = clef[1] + (clef[2] ?? '');
    if (transpose) state.voice.transpose = Number(transpose[1]);
    if (octave) state.voice.octave = Number(octave[1]);
    return state;
  }

  private field(name: string, value: string): void {
    switch (name) {
      case 'T':
        this.tune.title ||= value;
        break;
      case 'C':
        this.tune.composer ||= value;
        break;
      case 'O':
        this.tune.origin ||= value;
        break;
      case 'M': {
        const time = readMeterField(value);
        if (time === undefined) this.fail(`"${value}" is no meter`, 3);
        if (this.inBody) {
          this.state().time = time;
          this.push({ kind: 'meter', time });
        } else this.tune.time = time;
        break;
      }
      case 'L': {
        const unit = readLengthField(value);
        if (!unit) this.fail(`"${value}" is no note length`, 3);
        if (this.inBody) this.state().unit = unit;
        else this.unit = unit;
        break;
      }
      case 'Q': {
        const tempo: AbcEvent = { kind: 'tempo', ...readTempoField(value, this.unitLength) };
        if (this.inBody) this.push(tempo);
        else this.tune.tempo = tempo;
        break;
      }
      case 'K':
        this.keyField(value);
        break;
      case 'V': {
        const match = /^(\S+)\s*(.*)$/.exec(value);
        if (!match) this.fail('A voice (V:) needs a name', 3);
        const state = this.voiceState(match[1], match[2]);
        if (this.inBody) {
          this.current = state;
          state.lineSounds = [];
        }
        break;
      }
      case 'P':
        if (this.inBody) this.push({ kind: 'part', text: value });
        break;
      case 'U': {
        const user = /^([~H-Wh-w])\s*=\s*[!+]([^!+]+)[!+]/.exec(value);
        if (user) this.shorts[user[1]] = user[2];
        break;
      }
      case 'w':
        this.lyrics(value);
        break;
      default:
        break;
    }
  }

  private keyField(value: string): void {
    const field = readKeyField(value);
    if (!field) this.fail(`"${value}" is no key`, 3);
    if (!this.inBody) {
      this.tune.key = field.key;
      if (field.clef) this.clef = field.clef;
      for (const state of this.states.values()) {
        state.key = field.key;
        state.time = this.tune.time;
        state.unit = this.unitLength;
      }
      this.inBody = true;
      if (this.states.size === 0) {
        const state = this.state();
        state.voice.transpose = field.transpose ?? 0;
        state.voice.octave = field.octave ?? 0;
      } else this.current = [...this.states.values()][0];
      return;
    }
    const state = this.state();
    const clefOnly = field.clef && /^(clef=|treble|bass|alto|tenor)/.test(value.trim());
    if (!clefOnly) {
      state.key = field.key;
      this.push({ kind: 'key', key: field.key });
    }
    if (field.clef) this.push({ kind: 'clef', clef: field.clef });
  }

  private push(event: AbcEvent): void {
    this.state().voice.events.push(event);
  }

  private music(line: string): void {
    this.text = line;
    this.pos = 0;
    const state = this.state();
    state.lineSounds = [];
    while (this.pos < line.length) this.symbol();
    const last = this.state().lastSound;
    if (last && !line.endsWith('\\')) last.joined = false;
  }

  private take(pattern: RegExp): RegExpExecArray | null {
    pattern.lastIndex = this.pos;
    const match = pattern.exec(this.text);
    if (match) this.pos += match[0].length;
    return match;
  }

  private symbol(): void {
    const state = this.state();
    let m: RegExpExecArray | null;
    if (this.take(/[ \t]+/y)) {
      if (state.lastSound) state.lastSound.joined = false;
    } else if (this.take(/[\\`$]|y\d*/y)) return;
    else if ((m = this.take(/\[([A-Za-z]):([^\]]*)\]/y))) this.field(m[1], m[2].trim());
    else if ((m = this.take(/"([^"]*)"/y))) this.quoted(m[1]);
    else if ((m = this.take(/[!+]([^!+\s]+)[!+]/y))) this.decoration(m[1]);
    else if ((m = this.take(/\{(\/?)([^}]*)\}/y))) this.graceGroup(m[2], m[1] === '/', this.pos - m[0].length + 1 + m[1].length);
    else if ((m = this.take(/\((\d)(?::(\d*))?(?::(\d*))?/y))) this.tupletStart(m);
    else if (this.take(/\.?\(/y)) state.pendingSlurs++;
    else if (this.take(/\)/y)) {
      if (!state.lastSound) this.fail('A slur ends before any note');
      state.lastSound.slurStops++;
    } else if (this.take(/&/y)) this.push({ kind: 'overlay' });
    else if ((m = this.take(/(\[\||\|\]|\|\||:+\|*:+|:*\||\|+)(\]?)(:*)\s*(\[?\d[\d,\-.]*)?|\[(\d[\d,\-.]*)/y)) && m[0] !== '') this.bar(m);
    else if ((m = this.take(/([<>]+)/y))) this.brokenRhythm(m[1]);
    else if ((m = this.take(/[ZX](\d*)/y))) this.wholeRests(m[1] ? Number(m[1]) : 1);
    else if (this.text[this.pos] in this.shorts) this.decoration(this.shorts[this.text[this.pos++]]);
    else if (this.text[this.pos] === '[') this.chord();
    else if (/[A-Ga-gzx^_=]/.test(this.text[this.pos])) this.note();
    else this.fail(`"${this.text[this.pos]}" has no meaning here`);
  }

  private quoted(text: string): void {
    const place = text[0];
    if ('^_<>@'.includes(place) && text.length > 1) {
      this.push({ kind: 'words', text: text.slice(1).trim(), placement: place === '_' ? 'below' : 'above' });
    } else if (text) this.push({ kind: 'chord-symbol', text });
  }

  private decoration(name: string): void {
    this.state().pendingDecorations.push(name);
  }

  private tupletStart(m: RegExpExecArray): void {
    const actual = Number(m[1]);
    const compound = (this.state().time?.quarters ?? null) !== null && /^(6|9|12|15)\//.test(this.state().time!.text ?? '');
    const normal = m[2] ? Number(m[2]) : TUPLET_TIME[actual] || (compound ? 3 : 2);
    const count = m[3] ? Number(m[3]) : actual;
    if (actual < 2 || normal < 1 || count < 1) this.fail('A tuplet needs at least two notes', this.pos);
    this.state().tuplet = { actual, normal, left: count, first: true };
  }

  /** A pitch with its accidental, carried through the bar. */
  private pitch(): AbcSound['pitches'][number] | null {
    const m = this.take(/(\^\^|\^|__|_|=)?([A-Ga-g])([,']*)/y);
    if (!m) return null;
    const state = this.state();
    const step = stepOf(m[2].toUpperCase());
    let octave = m[2] === m[2].toUpperCase() ? 4 : 5;
    for (const c of m[3]) octave += c === ',' ? -1 : 1;
    octave += state.voice.octave;
    if (octave < LOWEST_OCTAVE || octave > HIGHEST_OCTAVE) this.fail(`"${m[0]}" is a note that nobody hears (octave ${octave})`);
    const key = `${step}|${octave}`;
    if (m[1]) state.carried.set(key, ACCIDENTALS[m[1]]);
    const alter = state.carried.get(key) ?? keyAlter(state.key, step);
    const pitch: Pitch = { step, alter, octave };
    return m[1] ? { pitch, accidental: ACCIDENTAL_NAMES[m[1]], tie: false } : { pitch, tie: false };
  }

  private length(): Fraction {
    const m = this.take(/(\d*)(\/*)(\d*)/y)!;
    const top = m[1] ? Number(m[1]) : 1;
    const bottom = !m[2] ? 1 : m[3] ? Number(m[3]) : 2 ** m[2].length;
    if (bottom === 0 || top === 0) this.fail('A note length of zero');
    if (top > LONGEST || bottom > LONGEST) this.fail(`"${m[0]}" is no length that a note can have`);
    return frac(top, bottom);
  }

  private sound(pitches: AbcSound['pitches'], length: Fraction, hidden: boolean): void {
    const state = this.state();
    let duration = mul(length, state.unit);
    if (state.broken) {
      duration = mul(duration, state.broken);
      state.broken = null;
    }
    const sound: AbcSound = {
      kind: 'sound',
      pitches,
      duration,
      decorations: state.pendingDecorations,
      slurStarts: state.pendingSlurs,
      slurStops: 0,
      joined: true,
      lyrics: []
    };
    if (hidden) sound.hidden = true;
    state.pendingDecorations = [];
    state.pendingSlurs = 0;
    if (state.tuplet) {
      const t = state.tuplet;
      sound.duration = mul(duration, frac(t.normal, t.actual));
      sound.tuplet = { actual: t.actual, normal: t.normal, start: t.first, stop: t.left === 1 };
      t.first = false;
      if (--t.left === 0) state.tuplet = null;
    }
    if (this.take(/-/y)) for (const p of pitches) p.tie = true;
    state.lastSound = sound;
    if (pitches.length) state.lineSounds.push(sound);
    this.push(sound);
  }

  private note(): void {
    const rest = this.take(/[zx]/y);
    if (rest) {
      this.sound([], this.length(), rest[0] === 'x');
      return;
    }
    const pitch = this.pitch();
    if (!pitch) this.fail('An accidental stands without its note');
    this.sound([pitch], this.length(), false);
  }

  private chord(): void {
    const start = this.pos++;
    const pitches: AbcSound['pitches'] = [];
    let inner: Fraction | null = null;
    while (this.text[this.pos] !== ']') {
      if (this.pos >= this.text.length) this.fail('A chord is not closed with "]"', start + 1);
      if (this.take(/\s+|[.~HLMOPSTuv]|![^!]*!/y)) continue;
      const pitch = this.pitch();
      if (!pitch) this.fail(`"${this.text[this.pos]}" has no meaning in a chord`);
      inner ??= this.length();
      if (/[\d/]/.test(this.text[this.pos] ?? '')) this.length();
      if (this.take(/-/y)) pitch.tie = true;
      pitches.push(pitch);
    }
    this.pos++;
    if (!pitches.length) this.fail('A chord without notes', start + 1);
    this.sound(pitches, mul(this.length(), inner ?? frac(1)), false);
  }

  private graceGroup(text: string, slash: boolean, at: number): void {
    const state = this.state();
    const outer = { text: this.text, pos: this.pos };
    const sounds: AbcSound[] = [];
    this.text = text;
    this.pos = 0;
    while (this.pos < text.length) {
      if (this.take(/[\s()]+|![^!]*!/y)) continue;
      const inChord = this.take(/\[/y);
      const pitches: AbcSound['pitches'] = [];
      do {
        const pitch = this.pitch();
        if (!pitch) {
          const column = at + this.pos + 1;
          this.text = outer.text;
          this.fail('A grace note cannot be read', column);
        }
        pitches.push(pitch);
      } while (inChord && !this.take(/\]/y));
      const length = this.length();
      // Bagpipe graces are counted in 32nds, others in the unit length halved. Source: ABC 2.1, section 4.12.
      sounds.push({
        kind: 'sound',
        pitches,
        grace: slash ? 'slash' : 'plain',
        duration: mul(length, frac(1, 4)),
        decorations: [],
        slurStarts: 0,
        slurStops: 0,
        joined: true,
        lyrics: []
      });
    }
    this.text = outer.text;
    this.pos = outer.pos;
    if (sounds.length) sounds[sounds.length - 1].joined = false;
    state.voice.events.push(...sounds);
  }

  private brokenRhythm(signs: string): void {
    const state = this.state();
    const last = state.lastSound;
    if (!last) this.fail('A broken rhythm stands before any note', this.pos);
    const part = frac(1, 2 ** signs.length);
    const longer = sub(frac(2), part);
    if (signs[0] === '>') {
      last.duration = mul(last.duration, longer);
      state.broken = part;
    } else {
      last.duration = mul(last.duration, part);
      state.broken = longer;
    }
  }

  private wholeRests(count: number): void {
    const state = this.state();
    const bar = state.time?.quarters ?? frac(4);
    for (let k = 0; k < Math.min(count, MOST_RESTS); k++) {
      if (k) this.push({ kind: 'bar', style: 'regular', repeatStart: false, repeatEnd: 0, ending: null });
      this.push({
        kind: 'sound',
        pitches: [],
        wholeMeasure: true,
        duration: bar,
        decorations: [],
        slurStarts: 0,
        slurStops: 0,
        joined: false,
        lyrics: []
      });
    }
  }

  private bar(m: RegExpExecArray): void {
    const state = this.state();
    const sign = m[5] ? '' : (m[1] + m[2] + m[3]).trim();
    const closing = /^(:+)\|/.exec(sign)?.[1].length ?? (/^::+$/.test(sign) ? 1 : 0);
    const style = sign.includes('||') ? 'light-light' : /\|\]|:\|/.test(sign) || /^::+$/.test(sign) ? 'light-heavy' : 'regular';
    const ending = (m[4] ?? m[5] ?? '').replace('[', '').replace(/[.,\s]+$/, '');
    if (state.lastSound) state.lastSound.joined = false;
    state.carried = new Map();
    this.push({
      kind: 'bar',
      style: m[5] ? 'none' : style,
      repeatStart: /\|:|:$/.test(sign) && /:$/.test(sign),
      repeatEnd: closing ? closing + 1 : 0,
      ending: ending || null
    });
  }

  /** Aligns syllables with the notes of the line before. Source: ABC 2.1, section 5.1. */
  private lyrics(text: string): void {
    const sounds = this.state().lineSounds;
    let k = 0;
    for (const token of text.match(/[^\s\-_*|]+-?|[-_*|]/g) ?? []) {
      if (k >= sounds.length) break;
      if (token === '|') continue;
      if (token === '-' || token === '_' || token === '*') k++;
      else sounds[k++].lyrics.push(token.replace(/~/g, ' '));
    }
  }
}

/** "{1 2}", "(1 2) 3", "[V1 V2]": parts, each a list of staves, each a list of voices. */
function readLayout(text: string): string[][][] {
  const parts: string[][][] = [];
  let part: string[][] | null = null;
  let staff: string[] | null = null;
  for (const token of text.match(/[{}()[\]|]|[^\s{}()[\]|]+/g) ?? []) {
    if (token === '{') parts.push((part = []));
    else if (token === '}') part = null;
    else if (token === '(') {
      staff = [];
      if (part) part.push(staff);
      else parts.push([staff]);
    } else if (token === ')') staff = null;
    else if (/[[\]|]/.test(token)) continue;
    else if (staff) staff.push(token);
    else if (part) part.push([token]);
    else parts.push([[token]]);
  }
  return parts;
}

/**
 * Reads the first tune of an ABC 2.1 text.
 * @throws ScoreError with line and character when something cannot be read.
 */
export function parseAbc(source: string): AbcTune {
  return new Parser().parse(source);
}

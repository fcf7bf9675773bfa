import { cmp, div, frac, lcm, lt, mul, sub, toNumber, add, ZERO, type Fraction } from '../fraction.ts';
import { escapeXml } from '../musicxml/escape.ts';
import { REMARK_FIELD } from '../model.ts';
import { DECORATIONS } from './decorations.ts';
import { clefXml, diatonicOf, harmonyXml, keyXml, lyricsXml, pitchXml, timeXml } from './elements.ts';
import { metronomeXml } from '../metronome.ts';
import type { AbcEvent, AbcSound, AbcTune, AbcVoice } from './model.ts';

const TYPES: [string, Fraction][] = [
  ['breve', frac(8)],
  ['whole', frac(4)],
  ['half', frac(2)],
  ['quarter', frac(1)],
  ['eighth', frac(1, 2)],
  ['16th', frac(1, 4)],
  ['32nd', frac(1, 8)],
  ['64th', frac(1, 16)],
  ['128th', frac(1, 32)],
  ['256th', frac(1, 64)]
];
const FLAGS: Record<string, number> = { eighth: 1, '16th': 2, '32nd': 3, '64th': 4, '128th': 5, '256th': 6 };
/** The written value of a length: type and dots; null when it needs a tie. */
function valueOf(length: Fraction): { type: string; dots: number } | null {
  for (const [type, base] of TYPES) {
    for (let dots = 0; dots <= 3; dots++) {
      const dotted = mul(base, frac(2 ** (dots + 1) - 1, 2 ** dots));
      if (cmp(dotted, length) === 0) return { type, dots };
    }
  }
  return null;
}

/** Splits a length that no single note can show into the longest values that fit. */
export function splitLength(length: Fraction): Fraction[] {
  if (valueOf(length)) return [length];
  for (const [, base] of TYPES) {
    if (lt(base, length)) return [base, ...splitLength(sub(length, base))];
  }
  return [length];
}

interface Bar {
  events: AbcEvent[];
  end: Extract<AbcEvent, { kind: 'bar' }> | null;
}

/** A voice's events, bar by bar. */
export function barsOf(voice: AbcVoice): Bar[] {
  const bars: Bar[] = [];
  let events: AbcEvent[] = [];
  for (const event of voice.events) {
    if (event.kind !== 'bar') {
      events.push(event);
      continue;
    }
    const empty = !events.some((e) => e.kind === 'sound');
    if (empty && bars.length) {
      // A second bar line right after one (a line break, "| |:"): what it says is added to the first.
      const last = bars[bars.length - 1];
      if (last.end) {
        last.end = {
          ...last.end,
          style: event.style === 'none' || event.style === 'regular' ? last.end.style : event.style,
          repeatStart: last.end.repeatStart || event.repeatStart,
          repeatEnd: last.end.repeatEnd || event.repeatEnd,
          ending: event.ending ?? last.end.ending
        };
      }
      continue;
    }
    if (empty) {
      // A bar line at the very beginning opens the first bar.
      bars.push({ events: [], end: event });
      continue;
    }
    bars.push({ events, end: event });
    events = [];
  }
  if (events.some((e) => e.kind === 'sound')) bars.push({ events, end: null });
  return bars;
}

/** Layers of a bar: "&" starts again at the bar's beginning. */
export function layersOf(events: AbcEvent[]): AbcEvent[][] {
  const layers: AbcEvent[][] = [[]];
  for (const e of events) {
    if (e.kind === 'overlay') layers.push([]);
    else layers[layers.length - 1].push(e);
  }
  return layers;
}

const layerLength = (events: AbcEvent[]): Fraction =>
  events.reduce((sum, e) => (e.kind === 'sound' && !e.grace ? add(sum, e.duration) : sum), ZERO);

class Writer {
  private readonly out: string[] = [];
  private divisions = 1;
  private slurNumber = 0;
  /** Staves under a percussion clef. */
  private readonly struck = new Set<number>();
  private readonly openSlurs: number[] = [];
  private readonly tiesOpen = new Set<string>();
  /** An ending lasts until a repeat, a double bar or the next ending. */
  private openEnding: string | null = null;

  constructor(private readonly tune: AbcTune) {
    for (const voice of tune.voices) {
      for (const e of voice.events) {
        if (e.kind === 'sound' && !e.grace) this.divisions = lcm(this.divisions, e.duration.d);
      }
    }
    this.divisions = Math.min(lcm(this.divisions, 4), 1_000_000);
  }

  write(): string {
    const { tune } = this;
    const parts = this.partLayout();
    this.out.push('<?xml version="1.0" encoding="UTF-8"?>', '<score-partwise version="4.0">');
    if (tune.title) this.out.push(`  <work><work-title>${escapeXml(tune.title)}</work-title></work>`);
    const creator = tune.composer ? `<creator type="composer">${escapeXml(tune.composer)}</creator>` : '';
    // What the ABC holds beyond this document is said in it, so that it comes back as a remark.
    const remarks = tune.remarks.map((r) => `<miscellaneous-field name="${REMARK_FIELD}">${escapeXml(r)}</miscellaneous-field>`).join('');
    const miscellaneous = remarks ? `<miscellaneous>${remarks}</miscellaneous>` : '';
    if (creator || remarks) this.out.push(`  <identification>${creator}${miscellaneous}</identification>`);
    this.out.push('  <part-list>');
    parts.forEach((staves, k) => {
      const name =
        staves
          .flat()
          .map((v) => v.name)
          .find(Boolean) ?? '';
      this.out.push(`    <score-part id="P${k + 1}"><part-name>${escapeXml(name)}</part-name></score-part>`);
    });
    this.out.push('  </part-list>');
    parts.forEach((staves, k) => this.part(`P${k + 1}`, staves));
    this.out.push('</score-partwise>', '');
    return this.out.join('\n');
  }

  private partLayout(): AbcVoice[][][] {
    const byId = new Map(this.tune.voices.map((v) => [v.id, v]));
    const parts = this.tune.layout
      .map((part) =>
        part.map((staff) => staff.map((id) => byId.get(id)).filter((v): v is AbcVoice => v !== undefined)).filter((s) => s.length)
      )
      .filter((p) => p.length);
    const placed = new Set(parts.flat(2));
    for (const voice of this.tune.voices) if (!placed.has(voice)) parts.push([[voice]]);
    return parts;
  }

  private part(id: string, staves: AbcVoice[][]): void {
    const lanes = staves.flatMap((voices, staff) => voices.map((voice) => ({ staff: staff + 1, bars: barsOf(voice), voice })));
    // The opening bar line, where there is one, belongs before the first bar.
    const opening = lanes.map((l) => (l.bars[0] && l.bars[0].events.length === 0 ? l.bars.shift()!.end : null))[0];
    const count = Math.max(...lanes.map((l) => l.bars.length));
    let time = this.tune.time;
    let number = 0;
    let filled = ZERO;
    let before: Bar['end'] = opening ?? null;
    this.out.push(`  <part id="${id}">`);
    for (let k = 0; k < count; k++) {
      for (const e of lanes[0].bars[k]?.events ?? [])
        if (e.kind === 'meter' && !lanes[0].bars[k].events.slice(0, lanes[0].bars[k].events.indexOf(e)).some((x) => x.kind === 'sound'))
          time = e.time;
      const length = lanes.reduce((m, l) => {
        const own = layerLength(layersOf(l.bars[k]?.events ?? [])[0]);
        return lt(m, own) ? own : m;
      }, ZERO);
      const full = time?.quarters ?? null;
      const short = full !== null && lt(length, full);
      const completes: boolean = short && filled.n > 0 && cmp(add(filled, length), full!) <= 0;
      const pickup = short && k === 0;
      if (!pickup && !completes) number++;
      filled = short && !completes ? length : ZERO;
      const implicit = pickup || completes;
      const label = pickup ? '0' : completes ? `X${k}` : String(number);
      this.out.push(`    <measure number="${label}"${implicit ? ' implicit="yes"' : ''}>`);
      this.leftBarline(before);
      if (k === 0) this.firstAttributes(staves, id === 'P1');
      let voiceNumber = 0;
      lanes.forEach((lane) => {
        const bar = lane.bars[k];
        const layers = layersOf(bar?.events ?? []);
        layers.forEach((layer) => {
          voiceNumber++;
          if (voiceNumber > 1) this.out.push(`      <backup><duration>${this.ticks(length)}</duration></backup>`);
          this.layer(layer, voiceNumber, lane.staff, staves.length > 1);
          const own = layerLength(layer);
          if (lt(own, length)) this.out.push(`      <forward><duration>${this.ticks(sub(length, own))}</duration></forward>`);
        });
      });
      const end: Bar['end'] = lanes[0].bars[k]?.end ?? null;
      this.rightBarline(end, k === count - 1);
      this.out.push('    </measure>');
      before = end;
    }
    this.out.push('  </part>');
  }

  private ticks(length: Fraction): number {
    return toNumber(mul(length, frac(this.divisions)));
  }

  private leftBarline(before: Bar['end']): void {
    if (!before) return;
    const ending = before.ending;
    if (ending) this.openEnding = ending;
    if (before.repeatStart || ending) {
      const style = before.repeatStart ? '<bar-style>heavy-light</bar-style>' : '';
      this.out.push(
        `      <barline location="left">${style}${ending ? `<ending number="${ending}" type="start"/>` : ''}${before.repeatStart ? '<repeat direction="forward"/>' : ''}</barline>`
      );
    }
  }

  private rightBarline(end: Bar['end'], last: boolean): void {
    const closes =
      this.openEnding !== null && (last || !end || end.repeatEnd > 0 || end.ending !== null || /light-(light|heavy)/.test(end.style));
    const ending = closes ? `<ending number="${this.openEnding}" type="${end?.repeatEnd ? 'stop' : 'discontinue'}"/>` : '';
    const times = end && end.repeatEnd > 2 ? ` times="${end.repeatEnd}"` : '';
    const style = end && /light-/.test(end.style) ? `<bar-style>${end.style}</bar-style>` : '';
    if (closes) this.openEnding = null;
    if (!end?.repeatEnd && !ending && !style) return;
    this.out.push(
      `      <barline location="right">${style}${ending}${end?.repeatEnd ? `<repeat direction="backward"${times}/>` : ''}</barline>`
    );
  }

  /** Under a percussion clef notes have a place and no pitch. */
  private strikes(clef: string, staff: number): void {
    if (/^perc/.test(clef)) this.struck.add(staff);
    else this.struck.delete(staff);
  }

  private firstAttributes(staves: AbcVoice[][], first: boolean): void {
    const { tune } = this;
    const transpose = staves[0][0].transpose;
    this.struck.clear();
    staves.forEach((voices, k) => this.strikes(voices[0].clef, k + 1));
    const own = [
      `<divisions>${this.divisions}</divisions>`,
      keyXml(tune.key),
      timeXml(tune.time),
      staves.length > 1 ? `<staves>${staves.length}</staves>` : '',
      ...staves.map((voices, k) => clefXml(voices[0].clef, staves.length > 1 ? k + 1 : null)),
      transpose ? `<transpose><diatonic>${diatonicOf(transpose)}</diatonic><chromatic>${transpose}</chromatic></transpose>` : ''
    ];
    this.out.push(`      <attributes>${own.join('')}</attributes>`);
    if (first && tune.tempo?.kind === 'tempo') this.tempo(tune.tempo);
  }

  private layer(events: AbcEvent[], voice: number, staff: number, many: boolean): void {
    let group: AbcSound[] = [];
    const flush = () => {
      const beams = beamsOf(group);
      group.forEach((s, k) => this.sound(s, beams[k], voice, staff, many));
      group = [];
    };
    for (const e of events) {
      if (e.kind === 'sound' && !e.grace) {
        const value = valueOf(shown(e));
        const beamable = e.pitches.length > 0 && value !== null && FLAGS[value.type] !== undefined;
        if (!beamable) flush();
        group.push(e);
        if (!beamable || !e.joined) flush();
      } else {
        if (e.kind !== 'sound' || group.length === 0) flush();
        else if (e.kind === 'sound') {
          // Grace notes inside a beam: the beam goes on around them, in document order.
          group.push(e);
          continue;
        }
        if (e.kind === 'sound') group.push(e);
        else this.direction(e, staff, many);
      }
    }
    flush();
  }

  private direction(e: AbcEvent, staff: number, many: boolean): void {
    const tail = many ? `<staff>${staff}</staff>` : '';
    switch (e.kind) {
      case 'words':
        this.out.push(
          `      <direction placement="${e.placement}"><direction-type><words>${escapeXml(e.text)}</words></direction-type>${tail}</direction>`
        );
        break;
      case 'part':
        this.out.push(
          `      <direction placement="above"><direction-type><rehearsal>${escapeXml(e.text)}</rehearsal></direction-type>${tail}</direction>`
        );
        break;
      case 'chord-symbol':
        this.out.push(harmonyXml(e.text));
        break;
      case 'tempo':
        this.tempo(e);
        break;
      case 'key':
        this.out.push(`      <attributes>${keyXml(e.key)}</attributes>`);
        break;
      case 'meter':
        this.out.push(`      <attributes>${timeXml(e.time)}</attributes>`);
        break;
      case 'clef':
        this.strikes(e.clef, staff);
        this.out.push(`      <attributes>${clefXml(e.clef, many ? staff : null)}</attributes>`);
        break;
      default:
        break;
    }
  }

  private tempo(e: Extract<AbcEvent, { kind: 'tempo' }>): void {
    const words = e.text ? `<direction-type><words>${escapeXml(e.text)}</words></direction-type>` : '';
    const value = e.unit ? valueOf(e.unit) : null;
    const mark = value ? `<direction-type>${metronomeXml({ unit: value.type, dots: value.dots }, e.perMinute ?? '')}</direction-type>` : '';
    const sound = e.unit && e.perMinute ? `<sound tempo="${Number((Number(e.perMinute) * toNumber(e.unit)).toFixed(3))}"/>` : '';
    if (words || mark) this.out.push(`      <direction placement="above">${words}${mark}${sound}</direction>`);
  }

  private sound(s: AbcSound, beams: string, voice: number, staff: number, many: boolean): void {
    const notations = { articulations: '', ornaments: '', technical: '', notations: '' };
    for (const name of s.decorations) {
      const target = DECORATIONS[name];
      const tail = many ? `<staff>${staff}</staff>` : '';
      if (!target) {
        this.out.push(
          `      <direction placement="above"><direction-type><other-direction>${escapeXml(name)}</other-direction></direction-type>${tail}</direction>`
        );
      } else if (target.group === 'direction') {
        // A hairpin's end stands after its last note, so it is written behind it below.
        if (target.xml.includes('type="stop"')) continue;
        this.out.push(`      <direction placement="${target.placement}"><direction-type>${target.xml}</direction-type>${tail}</direction>`);
      } else notations[target.group] += target.xml;
    }
    const pieces = s.grace || s.wholeMeasure ? [s.duration] : splitLength(shown(s));
    const scale = s.tuplet ? frac(s.tuplet.normal, s.tuplet.actual) : frac(1);
    /** Ids of what a sound becomes: its own for the first note, numbered for those of a chord and those that are tied to it. */
    const idOf = (piece: number, n: number): string => {
      const known = s.ids?.[piece * Math.max(1, s.pitches.length) + n];
      if (known) return ` id="${known}"`;
      return s.id ? ` id="${s.id}${n ? `-${n + 1}` : ''}${piece ? `-t${piece}` : ''}"` : '';
    };
    pieces.forEach((piece, k) => {
      const first = k === 0;
      const last = k === pieces.length - 1;
      const duration = s.grace || s.wholeMeasure ? piece : mul(piece, scale);
      if (s.pitches.length === 0) this.rest(s, idOf(k, 0), duration, piece, voice, staff, many);
      s.pitches.forEach((p, n) =>
        this.pitchNote(
          s,
          p,
          idOf(k, n),
          n > 0,
          duration,
          piece,
          first,
          last,
          n === 0 ? beams : '',
          n === 0 ? notations : null,
          voice,
          staff,
          many
        )
      );
    });
    for (const name of s.decorations) {
      const target = DECORATIONS[name];
      if (target?.group === 'direction' && target.xml.includes('type="stop"')) {
        this.out.push(
          `      <direction placement="below"><direction-type>${target.xml}</direction-type>${many ? `<staff>${staff}</staff>` : ''}</direction>`
        );
      }
    }
  }

  private rest(s: AbcSound, id: string, duration: Fraction, piece: Fraction, voice: number, staff: number, many: boolean): void {
    const value = s.wholeMeasure ? null : valueOf(piece);
    this.out.push(
      `      <note${id}${s.hidden ? ' print-object="no"' : ''}><rest${s.wholeMeasure ? ' measure="yes"' : ''}/><duration>${this.ticks(duration)}</duration><voice>${voice}</voice>` +
        (value ? `<type>${value.type}</type>${'<dot/>'.repeat(value.dots)}` : '') +
        tupletModification(s) +
        (many ? `<staff>${staff}</staff>` : '') +
        tupletNotation(s) +
        '</note>'
    );
  }

  private pitchNote(
    s: AbcSound,
    p: AbcSound['pitches'][number],
    id: string,
    inChord: boolean,
    duration: Fraction,
    piece: Fraction,
    first: boolean,
    last: boolean,
    beams: string,
    marks: { articulations: string; ornaments: string; technical: string; notations: string } | null,
    voice: number,
    staff: number,
    many: boolean
  ): void {
    const key = `${voice}|${p.pitch.step}|${p.pitch.octave}`;
    const tieStop = s.grace ? false : !first || this.tiesOpen.delete(key);
    const tieStart = !s.grace && (!last || p.tie);
    if (tieStart && last) this.tiesOpen.add(key);
    const value = valueOf(s.grace ? graceValue(piece) : piece) ?? { type: 'eighth', dots: 0 };
    const ties = (tieStop ? '<tie type="stop"/>' : '') + (tieStart ? '<tie type="start"/>' : '');
    const tied = (tieStop ? '<tied type="stop"/>' : '') + (tieStart ? '<tied type="start"/>' : '');
    let slurs = '';
    if (!inChord && last)
      for (let k = 0; k < s.slurStops && this.openSlurs.length; k++) slurs += `<slur number="${this.openSlurs.pop()}" type="stop"/>`;
    if (!inChord && first) {
      for (let k = 0; k < s.slurStarts; k++) {
        this.slurNumber = (this.slurNumber % 6) + 1;
        this.openSlurs.push(this.slurNumber);
        slurs += `<slur number="${this.slurNumber}" type="start"/>`;
      }
    }
    let notations = tied + slurs + (inChord ? '' : tupletNotationInner(s, first, last));
    if (marks && first) {
      for (const group of ['ornaments', 'technical', 'articulations'] as const)
        if (marks[group]) notations += `<${group}>${marks[group]}</${group}>`;
      notations += marks.notations;
    }
    const { pitch } = p;
    this.out.push(
      `      <note${id}>` +
        (s.grace ? `<grace${s.grace === 'slash' ? ' slash="yes"' : ''}/>` : '') +
        (inChord ? '<chord/>' : '') +
        pitchXml(pitch, this.struck.has(staff)) +
        (s.grace ? '' : `<duration>${this.ticks(duration)}</duration>`) +
        ties +
        `<voice>${voice}</voice><type>${value.type}</type>` +
        '<dot/>'.repeat(value.dots) +
        (p.accidental && first ? `<accidental>${p.accidental}</accidental>` : '') +
        tupletModification(s) +
        (many ? `<staff>${staff}</staff>` : '') +
        (first && last ? beams : '') +
        (notations ? `<notations>${notations}</notations>` : '') +
        (inChord || !first ? '' : lyricsXml(s.lyrics)) +
        '</note>'
    );
  }
}

const graceValue = (length: Fraction): Fraction => (valueOf(length) ? length : frac(1, 4));
const shown = (s: AbcSound): Fraction => (s.tuplet ? div(s.duration, frac(s.tuplet.normal, s.tuplet.actual)) : s.duration);
const tupletModification = (s: AbcSound): string =>
  s.tuplet
    ? `<time-modification><actual-notes>${s.tuplet.actual}</actual-notes><normal-notes>${s.tuplet.normal}</normal-notes></time-modification>`
    : '';
const tupletNotationInner = (s: AbcSound, first: boolean, last: boolean): string =>
  (s.tuplet?.start && first ? '<tuplet type="start"/>' : '') + (s.tuplet?.stop && last ? '<tuplet type="stop"/>' : '');
const tupletNotation = (s: AbcSound): string => {
  const inner = tupletNotationInner(s, true, true);
  return inner ? `<notations>${inner}</notations>` : '';
};
/** Beam elements for a group of notes written without a space; grace notes inside are beamed among themselves. */
function beamsOf(group: AbcSound[]): string[] {
  const beams = notesBeamed(group);
  for (let from = 0; from < group.length; from++) {
    let to = from;
    while (group[to]?.grace) to++;
    for (let k = from; to - from > 1 && k < to; k++) {
      const levels = FLAGS[valueOf(graceValue(group[k].duration))?.type ?? ''] ?? 0;
      const value = k === from ? 'begin' : k === to - 1 ? 'end' : 'continue';
      for (let level = 1; level <= levels; level++) beams[k] += `<beam number="${level}">${value}</beam>`;
    }
    from = to;
  }
  return beams;
}

/** The same for the notes themselves. */
function notesBeamed(group: AbcSound[]): string[] {
  const flags = group.map((s) => (s.grace ? -1 : (FLAGS[valueOf(shown(s))?.type ?? ''] ?? 0)));
  const real = flags.map((f, k) => ({ f, k })).filter((x) => x.f > 0);
  const beams = group.map(() => '');
  if (real.length < 2) return beams;
  real.forEach(({ f, k }, n) => {
    for (let level = 1; level <= f; level++) {
      const before = n > 0 && real[n - 1].f >= level;
      const after = n < real.length - 1 && real[n + 1].f >= level;
      const value = before && after ? 'continue' : after ? 'begin' : before ? 'end' : n > 0 ? 'backward hook' : 'forward hook';
      beams[k] += `<beam number="${level}">${value}</beam>`;
    }
  });
  return beams;
}

/** Writes a tune as a MusicXML 4.0 document. */
export const writeAbcTune = (tune: AbcTune): string => new Writer(tune).write();

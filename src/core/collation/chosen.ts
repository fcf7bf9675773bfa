import { cmp, eq, format, type Fraction } from '../score/fraction.ts';
import type { Direction, Note, Score } from '../score/model.ts';
import { pitchName } from '../score/pitch.ts';
import { escapeXml } from '../score/musicxml/escape.ts';
import { slurNumbers, type NumberPool } from '../score/musicxml/number-pool.ts';
import { readMusicXml } from '../score/musicxml/read.ts';
import { TextEdits } from '../score/text-edits.ts';
import { inPartsOf } from './align-parts.ts';
import { collate, type Collation } from './collate.ts';
import { NOTHING, type SourceChoice, type SourceDifference } from './difference.ts';

/** A further source of a piece. */
export interface OtherSource {
  hash: string;
  name: string;
  document: string;
}

/** A further source laid beside the one that the pages follow. */
export interface Collated extends OtherSource, Collation {
  /** With its parts in the order of the first source. */
  score: Score;
}

/** Lays every further source beside the first. */
export const collateAll = (score: Score, others: readonly OtherSource[]): Collated[] =>
  others.map((o) => {
    const other = readMusicXml(o.document);
    return { ...o, score: inPartsOf(score, other), ...collate(score, other) };
  });

/** Ids that the reader gives to notes without one; they count through the part and would shift. */
const COUNTED = /^n\d+-\d+x*$/;

/** A chosen text without the ids that were only needed to keep places; for handing it out. */
export const withoutCountedIds = (document: string): string => document.replace(/(<note\b[^>]*?) id="n\d+-\d+x*"/g, '$1');

const element = (name: string): RegExp => new RegExp(`<${name}\\b[^>]*?(?:/>|>[\\s\\S]*?</${name}>)`, 'g');
const without = (xml: string, ...names: string[]): string => names.reduce((text, name) => text.replace(element(name), ''), xml);
const all = (xml: string, name: string): string => xml.match(element(name))?.join('') ?? '';
const attribute = (tag: string, name: string, value: string): string =>
  tag.replace(new RegExp(`\\s${name}="[^"]*"`), '').replace(/^<note\b/, `<note ${name}="${escapeXml(value)}"`);

const textOf = (n: Note, document: string): string => document.slice(n.span.from, n.span.to);

/** Elements of a note's notations by kind of difference. */
const SIGNS = {
  articulation: ['articulations', 'technical', 'fermata', 'arpeggiate', 'non-arpeggiate'],
  ornament: ['ornaments']
} as const;

/**
 * The text of an edition that follows several sources: the first source's document with the readings of the others that
 * were chosen. Notes keep their ids, so that what hangs on them stays. Without such choices it comes back unchanged.
 */
export function chosenDocument(document: string, score: Score, others: readonly Collated[], choices: readonly SourceChoice[]): string {
  const taken = others.flatMap((o) =>
    o.differences
      .filter((d) => d.takeable && choices.some((c) => c.take === 'theirs' && c.source === o.hash && c.difference === d.id))
      .map((difference) => ({ difference, other: o }))
  );
  if (!taken.length) return document;
  const writer = new Chooser(document, score);
  // Whole bars last: what was chosen for single signs in them gives way to them.
  for (const { difference, other } of taken) if (difference.kind !== 'rhythm') writer.take(difference, other);
  for (const { difference, other } of taken) if (difference.kind === 'rhythm') writer.takeBar(difference, other);
  return writer.finish();
}

class Chooser {
  private readonly edits = new TextEdits();
  private readonly notes: Map<string, Note>;
  private readonly bars = new Map<string, string>();
  /** Notes that were changed, with their text as it stands; several choices may meet at one note. */
  private readonly changed = new Map<Note, string>();
  private readonly slurNumbers: NumberPool;
  private readonly taken = new Set<string>();
  private fresh = 0;

  constructor(
    private readonly source: string,
    private readonly score: Score
  ) {
    this.notes = new Map(score.notes.map((n) => [n.id, n]));
    this.slurNumbers = slurNumbers(score, this.notes);
  }

  finish(): string {
    for (const n of this.score.notes) {
      const text = this.changed.get(n);
      if (this.bars.has(`${n.part}|${n.measure}`)) continue;
      if (text !== undefined) this.edits.replace(n.span, text);
      else if (COUNTED.test(n.id)) this.edits.insert(n.span.from + '<note'.length, ` id="${n.id}"`);
    }
    for (const [key, text] of this.bars) {
      const [part, measure] = key.split('|').map(Number);
      this.edits.replace(this.score.parts[part].measureSpans[measure].inner, text);
    }
    return this.edits.apply(this.source);
  }

  take(d: SourceDifference, other: Collated): void {
    const theirs = d.theirNotes.flatMap((id) => other.score.notes.find((n) => n.id === id) ?? []);
    const ours = d.ourNotes.flatMap((id) => this.notes.get(id) ?? []);
    switch (d.kind) {
      case 'notes':
        this.takeNote(d, ours[0], theirs[0], other);
        break;
      case 'articulation':
      case 'ornament':
        this.takeSigns(d.kind, ours, theirs, other);
        break;
      case 'slur':
        this.takeSlur(ours, theirs, other);
        break;
      default:
        this.takeDirection(d, other);
    }
  }

  /** One of our notes as it stands now. */
  private own(n: Note): string {
    return this.changed.get(n) ?? attribute(this.source.slice(n.span.from, n.span.to), 'id', n.id);
  }

  /** Further notations of one of our notes, before its lyrics as the schema orders them. */
  private notate(n: Note, notations: string): void {
    this.changed.set(
      n,
      this.own(n).replace(/(<lyric\b[\s\S]*)?<\/note>$/, (end) => `<notations>${notations}</notations>${end}`)
    );
  }

  /** Another height, a note more in a chord, or one less. */
  private takeNote(d: SourceDifference, ours: Note | undefined, theirs: Note | undefined, other: Collated): void {
    const pitchOf = (n: Note): string => all(textOf(n, other.document), 'pitch');
    const accidentalOf = (n: Note): string => all(textOf(n, other.document), 'accidental');
    if (ours && theirs) {
      this.changed.set(ours, this.repitched(ours, pitchOf(theirs), accidentalOf(theirs)));
      return;
    }
    if (theirs) {
      const chord = this.score.notes.filter(
        (n) => n.part === d.part && n.measure === d.measure && eq(n.onset, d.onset) && !n.rest && !n.grace && n.staff === theirs.staff
      );
      const last = chord.at(-1);
      if (!last) return;
      const bare = without(this.repitched(last, pitchOf(theirs), accidentalOf(theirs)), 'notations', 'lyric', 'beam', 'tie', 'chord');
      const open = /^<note\b[^>]*>/.exec(bare)![0];
      this.edits.insert(last.span.to, `${attribute(open, 'id', this.freshId())}<chord/>${bare.slice(open.length)}`);
      return;
    }
    if (!ours) return;
    const chord = this.score.notes.filter(
      (n) => n.part === ours.part && n.voice === ours.voice && n.measure === ours.measure && eq(n.onset, ours.onset) && !n.grace
    );
    const k = chord.indexOf(ours);
    if (chord.length === 1) {
      // A note alone leaves its rest.
      const rest = without(this.own(ours).replace(element('pitch'), '<rest/>'), 'accidental', 'notations', 'tie', 'lyric', 'beam', 'stem');
      this.changed.set(ours, rest);
    } else {
      this.changed.set(ours, '');
      // The next one leads the chord now.
      if (k === 0) this.changed.set(chord[1], this.own(chord[1]).replace(element('chord'), ''));
    }
  }

  private repitched(n: Note, pitch: string, accidental: string): string {
    const text = this.own(n).replace(element('accidental'), '').replace(element('pitch'), pitch);
    if (!accidental) return text;
    // After the type and its dots, as the schema orders them.
    const places = [...text.matchAll(/<\/type>|<dot\b[^>]*\/>|<\/voice>|<\/duration>/g)];
    const after = places.findLast((m) => m[0] !== '</voice>' && m[0] !== '</duration>') ?? places.at(-1);
    const at = after ? after.index + after[0].length : text.length - '</note>'.length;
    return text.slice(0, at) + accidental + text.slice(at);
  }

  private takeSigns(kind: 'articulation' | 'ornament', ours: readonly Note[], theirs: readonly Note[], other: Collated): void {
    const mine = ours.filter((n) => !n.grace);
    const lead = mine[0];
    if (!lead) return;
    const signs = theirs.filter((n) => !n.grace).flatMap((n) => SIGNS[kind].map((name) => all(textOf(n, other.document), name)));
    for (const n of mine) this.changed.set(n, without(this.own(n), ...SIGNS[kind]).replace(/<notations>\s*<\/notations>/g, ''));
    if (signs.join('')) this.notate(lead, signs.join(''));
    if (kind === 'articulation') return;
    for (const n of ours) if (n.grace) this.changed.set(n, '');
    for (const n of theirs)
      if (n.grace) {
        const text = textOf(n, other.document);
        this.edits.insert(lead.span.from, attribute(text, 'id', this.freshId()));
      }
  }

  private takeSlur(ours: readonly Note[], theirs: readonly Note[], other: Collated): void {
    if (ours.length === 2) {
      const [from, to] = ours;
      const starts = (from.spans ?? []).filter((s) => s.kind === 'slur' && s.type === 'start').map((s) => s.number);
      const number = starts.find((s) => to.spans?.some((e) => e.kind === 'slur' && e.type === 'stop' && e.number === s)) ?? starts[0];
      const drop = (n: Note, type: string): void => {
        const slur = new RegExp(`<slur\\b(?=[^>]*\\btype="${type}")(?![^>]*\\bnumber="(?!${number}")[^"]*")[^>]*?(?:/>|>\\s*</slur>)`);
        this.changed.set(
          n,
          this.own(n)
            .replace(slur, '')
            .replace(/<notations>\s*<\/notations>/g, '')
        );
      };
      drop(from, 'start');
      drop(to, 'stop');
    }
    if (theirs.length === 2) {
      const [from, to] = theirs.map((n) => this.ourNote(n, other));
      if (!from || !to || from === to) return;
      const number = this.slurNumbers.take(from.part, from.start, to.start);
      this.notate(from, `<slur type="start" number="${number}"/>`);
      this.notate(to, `<slur type="stop" number="${number}"/>`);
    }
  }

  /** Our note at the place of one of theirs. */
  private ourNote(theirs: Note, other: Collated): Note | undefined {
    const measure = other.bars.find((p) => p.b === theirs.measure)?.a;
    return this.score.notes.find(
      (n) => n.part === theirs.part && n.measure === measure && eq(n.onset, theirs.onset) && n.staff === theirs.staff && !n.rest && !n.grace
    );
  }

  /** Dynamics, hairpins, tempo and other words: our elements at the place go, theirs come before the note there. */
  private takeDirection(d: SourceDifference, other: Collated): void {
    const place = { part: d.part, measure: d.measure };
    for (const e of this.directions(this.score, place, d.ours, d.onset)) this.edits.replace(e.span!, '');
    if (d.other === null) return;
    for (const e of this.directions(other.score, { part: d.part, measure: d.other }, d.theirs, d.onset)) {
      const ours = other.bars.find((p) => p.b === e.measure)?.a;
      if (ours === null || ours === undefined) continue;
      // Words and metronome may stand in one element: it comes once.
      const key = `${other.hash}|${e.span!.from}`;
      if (this.taken.has(key)) continue;
      this.taken.add(key);
      const text = without(other.document.slice(e.span!.from, e.span!.to), 'offset');
      this.edits.insert(this.anchor(d.part, ours, e.onset), text.replace(/^<direction\b([^>]*?)\sid="[^"]*"/, '<direction$1'));
    }
  }

  /** The elements of one source that say what a difference names. */
  private directions(score: Score, { part, measure }: { part: number; measure: number }, says: string, onset: Fraction): Direction[] {
    if (says === NOTHING) return [];
    const here = score.directions.filter((e) => e.part === part && e.measure === measure && e.span);
    const hairpin = /^(crescendo|diminuendo) (to|from) /.exec(says);
    if (hairpin) {
      const begins = here.filter((e) => e.kind === 'wedge' && e.type === hairpin[1]);
      const first = begins.find((e) => eq(e.onset, onset)) ?? begins[0];
      if (first?.kind !== 'wedge') return [];
      const last = score.directions.find(
        (e) => e.part === part && e.kind === 'wedge' && e.type === 'stop' && e.number === first.number && cmp(e.start, first.start) > 0
      );
      return last?.span ? [first, last] : [first];
    }
    const told = (e: Direction): boolean => {
      if (e.kind === 'dynamic') return says === e.value || says.startsWith(`${e.value} on beat`);
      if (e.kind === 'words') return says === e.text.trim() || says.startsWith(`${e.text.trim()} on beat`);
      return e.kind === 'metronome' && says.includes(`= ${e.perMinute}`);
    };
    const found = here.filter(told);
    return found
      .filter((e) => eq(e.onset, onset))
      .slice(0, 1)
      .concat(found.some((e) => eq(e.onset, onset)) ? [] : found.slice(0, 1));
  }

  /** Where a direction at a moment is put in: before the first note that begins there or later, else at the bar's end. */
  private anchor(part: number, measure: number, onset: Fraction): number {
    const notes = this.score.notes.filter((n) => n.part === part && n.measure === measure && !n.chord);
    const at = notes.find((n) => eq(n.onset, onset)) ?? notes.find((n) => cmp(n.onset, onset) > 0);
    return at?.span.from ?? this.score.parts[part].measureSpans[measure].inner.to;
  }

  /** Takes the other's notes for a whole bar of a part; our own words, dynamics, attributes and bar lines stay. */
  takeBar(d: SourceDifference, other: Collated): void {
    if (d.other === null) return;
    const span = other.score.parts[d.part].measureSpans[d.other].inner;
    const ours = this.score.parts[d.part].measureSpans[d.measure].inner;
    const text = this.source.slice(ours.from, ours.to);
    const edits = new TextEdits();
    const inner = other.document.slice(span.from, span.to);
    for (const name of ['attributes', 'direction', 'sound', 'print', 'barline', 'harmony'])
      for (const found of inner.matchAll(element(name)))
        edits.replace({ from: span.from + found.index, to: span.from + found.index + found[0].length }, '');
    const theirNotes = other.score.notes.filter((n) => n.part === d.part && n.measure === d.other);
    const free = this.score.notes.filter((n) => n.part === d.part && n.measure === d.measure && !n.rest);
    for (const n of theirNotes) {
      // A note that both have keeps its id, so that what hangs on it stays.
      const k = n.pitch
        ? free.findIndex(
            (o) => o.pitch && o.staff === n.staff && Boolean(o.grace) === Boolean(n.grace) && pitchName(o.pitch) === pitchName(n.pitch!)
          )
        : -1;
      const id = k >= 0 ? free.splice(k, 1)[0].id : this.freshId();
      const close = other.document.indexOf('>', n.span.from);
      const tag = other.document.slice(n.span.from, close);
      edits.replace({ from: n.span.from, to: close }, attribute(tag, 'id', id));
    }
    const elements = new Map(
      this.score.directions.filter((e) => e.span && e.part === d.part && e.measure === d.measure).map((e) => [e.span!.from, e])
    );
    for (const e of elements.values()) {
      const at = theirNotes.find((n) => !n.chord && cmp(n.onset, e.onset) >= 0)?.span.from ?? span.to;
      edits.insert(at, without(this.source.slice(e.span!.from, e.span!.to), 'offset'));
    }
    const [mine, their] = [divisions(this.score, d.part, d.measure), divisions(other.score, d.part, d.other)];
    const set = (value: string): string => `<attributes><divisions>${value}</divisions></attributes>`;
    const head = all(text, 'attributes') + (mine === their ? '' : set(their));
    const tail = mine === their ? '' : set(mine);
    const [left, right] = [
      text.match(/<barline\b[^>]*location="left"[\s\S]*?<\/barline>/)?.[0] ?? '',
      text.match(/<barline\b(?![^>]*location="left")[\s\S]*?<\/barline>/)?.[0] ?? ''
    ];
    this.bars.set(`${d.part}|${d.measure}`, left + head + edits.apply(other.document, span) + tail + right);
  }

  private freshId(): string {
    return `taken-${++this.fresh}`;
  }
}

/** Divisions in force in a bar, as they are written. */
function divisions(score: Score, part: number, measure: number): string {
  let value = '1';
  for (const c of score.parts[part].changes) {
    if (c.measure > measure) break;
    if (c.divisions) value = format(c.divisions);
  }
  return value;
}

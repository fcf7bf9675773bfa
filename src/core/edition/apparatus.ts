import type { Collated } from '../collation/chosen.ts';
import { inDocumentOrder } from '../collation/align-parts.ts';
import { NOTHING, type SourceChoice, type SourceDifference } from '../collation/difference.ts';
import { add, eq, frac, mul, toNumber } from '../score/fraction.ts';
import type { Note, Score } from '../score/model.ts';
import { escapeXml } from '../score/musicxml/escape.ts';
import { staffNumber } from './mei.ts';

/** A further source with the MEI that the engraver made of it. */
export interface SourceMei extends Collated {
  mei: string;
}

/** The sources of an edition: the one that the pages follow as it came in, and the others. */
export interface Sources {
  name: string;
  score: Score;
  mei: string;
  others: readonly SourceMei[];
  choices: readonly SourceChoice[];
}

/** Id of a source in the header, by its place; the first is that which the pages follow. */
const sourceId = (k: number): string => `source-${k + 1}`;

/** Descriptions of the sources for the header. MEI 5, sourceDesc. */
export const sourceDescription = ({ name, others }: Sources): string =>
  `<sourceDesc>${[name, ...others.map((o) => o.name)]
    .map((n, k) => `<source xml:id="${sourceId(k)}"><bibl><title>${escapeXml(n)}</title></bibl></source>`)
    .join('')}</sourceDesc>`;

interface Found {
  from: number;
  to: number;
}

/** A whole element that begins at an offset. */
function elementAt(xml: string, from: number): Found {
  const name = /^<([\w:]+)/.exec(xml.slice(from, from + 60))?.[1] ?? '';
  const open = xml.indexOf('>', from);
  if (xml[open - 1] === '/') return { from, to: open + 1 };
  const tags = new RegExp(`<(/?)${name}\\b[^>]*?(/?)>`, 'g');
  tags.lastIndex = from;
  for (let depth = 0; ;) {
    const tag = tags.exec(xml);
    if (!tag) return { from, to: xml.length };
    if (tag[1]) depth--;
    else if (!tag[2]) depth++;
    if (depth === 0) return { from, to: tag.index + tag[0].length };
  }
}

const byId = (xml: string, id: string): Found | null => {
  const at = xml.indexOf(`xml:id="${escapeXml(id)}"`);
  return at < 0 ? null : elementAt(xml, xml.lastIndexOf('<', at));
};

const measureOf = (xml: string, index: number): Found | null => byId(xml, `m${index}`);

/** The layers of some staves in a measure. */
function layersOf(xml: string, measure: Found, staves: ReadonlySet<number>): Map<string, Found> {
  const layers = new Map<string, Found>();
  for (const staff of xml.slice(measure.from, measure.to).matchAll(/<staff\b[^>]*\bn="(\d+)"/g)) {
    if (!staves.has(Number(staff[1]))) continue;
    const at = elementAt(xml, measure.from + staff.index);
    let k = 0;
    for (const layer of xml.slice(at.from, at.to).matchAll(/<layer\b/g))
      layers.set(`${staff[1]}|${k++}`, elementAt(xml, at.from + layer.index));
  }
  return layers;
}

const content = (xml: string, { from, to }: Found): Found => {
  const open = xml.indexOf('>', from);
  return xml[open - 1] === '/' ? { from: open + 1, to: open + 1 } : { from: open + 1, to: xml.lastIndexOf('</', to - 1) };
};

const CONTROLS: Partial<Record<SourceDifference['kind'], string>> = {
  dynamic: 'dynam|hairpin',
  tempo: 'tempo|dir',
  words: 'dir|tempo',
  slur: 'slur'
};

/** The element outside of the staves that says what a difference names. */
function control(xml: string, score: Score, d: SourceDifference, measure: number, says: string, notes: readonly string[]): Found | null {
  const bar = measureOf(xml, measure);
  const names = CONTROLS[d.kind];
  if (!bar || !names || says === NOTHING) return null;
  const stamp = toNumber(add(mul(d.onset, frac(score.measures[measure].time?.unit ?? 4, 4)), frac(1)));
  const hairpin = /^(cres|dim)/.exec(says)?.[1];
  const word = says.replace(/ on beat .*$/, '');
  const candidates = [...xml.slice(bar.from, bar.to).matchAll(new RegExp(`<(?:${names})\\b[^>]*>`, 'g'))].map((m) => ({
    tag: m[0],
    at: elementAt(xml, bar.from + m.index)
  }));
  const alike = candidates.filter(({ tag, at }) => {
    if (d.kind === 'slur') return notes.some((n) => tag.includes(`startid="#${n}"`));
    if (d.kind === 'dynamic' && hairpin && / (to|from) /.test(says)) return tag.includes(`form="${hairpin}"`);
    const text = xml.slice(at.from, at.to).replace(/<[^>]*>/g, '');
    return d.kind === 'tempo' ? text.includes(word.split('= ').at(-1)!) : text.trim() === word;
  });
  return (alike.find(({ tag }) => tag.includes(`tstamp="${stamp}"`)) ?? alike[0])?.at ?? null;
}

/** The elements in one source at which a difference stands; by layer for the rhythm of a bar. */
function places(xml: string, score: Score, d: SourceDifference, side: 'ours' | 'theirs'): Map<string, Found> {
  const measure = side === 'ours' ? d.measure : d.other;
  const notes = side === 'ours' ? d.ourNotes : d.theirNotes;
  if (measure === null) return new Map();
  const one = (f: Found | null): Map<string, Found> => new Map(f ? [['', f]] : []);
  if (CONTROLS[d.kind]) return one(control(xml, score, d, measure, side === 'ours' ? d.ours : d.theirs, notes));
  if (d.kind === 'rhythm') {
    const bar = measureOf(xml, measure);
    const frame = { measures: score.measures, parts: inDocumentOrder(score.parts) };
    const byNote = new Map(score.notes.map((n) => [n.id, n]));
    const staves = new Set(notes.map((n) => staffNumber(frame, d.part, byNote.get(n)?.staff ?? 1)));
    if (!bar) return new Map();
    const layers = layersOf(xml, bar, staves);
    return new Map([...layers].map(([key, f]) => [key, content(xml, f)]));
  }
  const note = notes.map((n) => byId(xml, n)).find((f) => f !== null);
  if (!note) return new Map();
  if (d.kind === 'notes') return one(note);
  // Signs stand in the chord where there is one; small notes stand before it and are told with it.
  return one(note);
}

/** Ids of a second reading must not be those of the first; notes that it points to are the edition's. */
const secondary = (xml: string, prefix: string, noteOf: ReadonlyMap<string, string>): string =>
  xml
    .replace(/xml:id="([^"]*)"/g, `xml:id="${prefix}-$1"`)
    .replace(/(startid|endid)="#([^"]*)"/g, (_, name: string, id: string) => `${name}="#${noteOf.get(id) ?? id}"`)
    .replace(/\bplist="[^"]*"/g, '');

/** Notes of another source by the edition's notes at the same places. */
function noteMap(ours: Score, other: Collated): Map<string, string> {
  const barOf = new Map(other.bars.flatMap((p) => (p.a !== null && p.b !== null ? [[p.b, p.a] as const] : [])));
  const at = (n: Note, measure: number): string => `${n.part}|${measure}|${n.staff}|${n.onset.n}/${n.onset.d}`;
  const known = new Map(ours.notes.filter((n) => !n.rest && !n.grace).map((n) => [at(n, n.measure), n.id]));
  const map = new Map<string, string>();
  for (const n of other.score.notes) {
    const bar = barOf.get(n.measure);
    const id = bar === undefined || n.rest || n.grace ? undefined : known.get(at(n, bar));
    if (id) map.set(n.id, id);
  }
  return map;
}

/**
 * Puts the readings of all sources into the MEI of an edition: each difference becomes an <app> with the chosen reading
 * as <lem> and the other as <rdg>, both pointing to their sources. MEI 5, module critapp. What cannot be told in the
 * music (bars that a source lacks, meters, keys) stands in the commentary only.
 */
export function withApparatus(mei: string, score: Score, sources: Sources): string {
  let result = mei;
  const same = new Map(score.notes.map((n) => [n.id, n.id]));
  sources.others.forEach((other, k) => {
    const noteOf = noteMap(score, other);
    for (const d of other.differences) {
      const choice = sources.choices.find((c) => c.source === other.hash && c.difference === d.id);
      const theirsTaken = choice?.take === 'theirs' && d.takeable;
      // The text has the chosen reading; the other comes from its own source.
      const elsewhere = theirsTaken ? places(sources.mei, sources.score, d, 'ours') : places(other.mei, other.score, d, 'theirs');
      const said: SourceDifference = theirsTaken
        ? {
            ...d,
            ours: d.theirs,
            ourNotes: d.ourNotes.length && d.kind !== 'slur' ? d.ourNotes : d.theirNotes.flatMap((n) => noteOf.get(n) ?? [])
          }
        : d;
      const here = places(result, score, said, 'ours');
      const other2 = theirsTaken ? sources.mei : other.mei;
      const [lemSource, rdgSource] = theirsTaken ? [k + 1, 0] : [0, k + 1];
      const because = choice?.because ? `<annot type="because">${escapeXml(choice.because)}</annot>` : '';
      const app = (lem: string, rdg: string, n: number): string => {
        const id = `app-${k + 1}-${escapeXml(d.id)}${n ? `-${n}` : ''}`;
        return `<app xml:id="${id}" type="${d.kind}"><lem source="#${sourceId(lemSource)}">${lem}${because}</lem><rdg source="#${sourceId(rdgSource)}">${rdg}</rdg></app>`;
      };
      const keys = [...new Set([...here.keys(), ...elsewhere.keys()])];
      // From the last place to the first, so that the offsets stay.
      const edits = keys
        .map((key, n) => {
          const [mine, theirs] = [here.get(key), elsewhere.get(key)];
          const rdg = theirs
            ? secondary(other2.slice(theirs.from, theirs.to), `${rdgSource}-${escapeXml(d.id)}`, theirsTaken ? same : noteOf)
            : '';
          return { mine, rdg, n };
        })
        .filter(({ mine, rdg }) => mine || rdg)
        .sort((x, y) => (y.mine?.from ?? 0) - (x.mine?.from ?? 0));
      for (const { mine, rdg, n } of edits) {
        if (mine) result = result.slice(0, mine.from) + app(result.slice(mine.from, mine.to), rdg, n) + result.slice(mine.to);
        else result = beside(result, score, d, app('', rdg, n));
      }
    }
  });
  return result;
}

/** Puts an entry whose first reading is empty where it belongs: into its measure, or after the note that it stands with. */
function beside(mei: string, score: Score, d: SourceDifference, app: string): string {
  if (d.kind === 'notes') {
    const note = score.notes.find((n) => n.part === d.part && n.measure === d.measure && eq(n.onset, d.onset) && !n.rest && !n.grace);
    const at = note && byId(mei, note.id);
    // A note more makes a chord, which only the commentary tells where there is none yet.
    const inChord = at && /<chord\b(?:(?!<\/chord>)[\s\S])*$/.test(mei.slice(Math.max(0, at.from - 2000), at.from));
    return at && inChord ? mei.slice(0, at.to) + app + mei.slice(at.to) : mei;
  }
  const bar = measureOf(mei, d.measure);
  if (!bar) return mei;
  const close = mei.lastIndexOf('</measure>', bar.to);
  return mei.slice(0, close) + app + mei.slice(close);
}

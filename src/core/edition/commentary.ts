import type { Facts } from '../analysis/facts.ts';
import { cmp, sub } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import { barLabel, measureAt, positionIn } from '../score/position.ts';
import type { Reading } from '../reading/commands.ts';
import { beatWords } from '../reading/places.ts';
import type { Marking, MarkingKind, Proposal } from '../reading/markings.ts';
import { SOURCES, type SourceKey } from '../style/bibliography.ts';
import { PROFILES } from '../style/profiles.ts';

/** One bar's entry in the commentary. */
export interface CommentaryEntry {
  measure: number;
  bar: string;
  lines: { what: string; because: string; remark?: string }[];
  /** Proposals that were set aside, with what they would have said. */
  notTaken: string[];
  /** The instructor's own brief that begins with this bar, and the last bar that it is for. */
  written: { text: string; to: string }[];
}

const NAMES: Record<MarkingKind, string> = {
  dynamic: 'dynamic',
  hairpin: 'hairpin',
  slur: 'slur',
  articulation: 'articulation',
  accent: 'accent',
  breath: 'breath',
  comma: 'comma',
  tempo: 'tempo word',
  metronome: 'metronome mark',
  fermata: 'fermata',
  text: 'words',
  fingering: 'fingering',
  bowing: 'bowing'
};

const capital = (text: string): string => text[0].toUpperCase() + text.slice(1);

/** "hairpin crescendo", "comma", "“from above”". */
const named = (m: Pick<Marking, 'kind' | 'value'>): string =>
  m.kind === 'text' ? `“${m.value}”` : NAMES[m.kind] === m.value ? m.value : `${NAMES[m.kind]} ${m.value.replace(/-/g, ' ')}`;

/** A reason without the name of the bar under which it stands already. */
function inItsBar(text: string, bar: string): string {
  const start = text.toLowerCase().startsWith(bar.toLowerCase()) ? /^[^:]*: /.exec(text)?.[0] : undefined;
  // "bars 4–5" or "bar 14" are no "bar 1".
  const own = start && /^[,:]/.test(text.slice(bar.length));
  return own ? capital(text.slice(start.length)) : capital(text);
}

const cited = (keys: readonly SourceKey[] | undefined): string =>
  keys?.length ? ` (${keys.map((k) => SOURCES[k].short).join('; ')})` : '';

/** What was decided, bar by bar, with the reasons and the alternatives that were not taken. */
export function commentary(score: Score, reading: Reading, proposals: readonly Proposal[]): CommentaryEntry[] {
  const entries = new Map<number, CommentaryEntry>();
  const entry = (time: Marking['start']): { entry: CommentaryEntry; beat: string } => {
    const measure = measureAt(score, time);
    let found = entries.get(measure.index);
    if (!found) {
      found = { measure: measure.index, bar: capital(barLabel(score.measures, measure)), lines: [], notTaken: [], written: [] };
      entries.set(measure.index, found);
    }
    return { entry: found, beat: beatWords(positionIn(measure, sub(time, measure.start)).beat) };
  };
  for (const m of [...reading.markings].sort((a, b) => cmp(a.start, b.start))) {
    const place = entry(m.start);
    const because = m.because.map((b) => inItsBar(b.text, place.entry.bar) + cited(b.sources)).join(' ');
    const line = { what: `Beat ${place.beat}: ${named(m)}`, because: because || 'The instructor’s decision.' };
    place.entry.lines.push(m.remark ? { ...line, remark: m.remark } : line);
  }
  for (const p of proposals) {
    if (reading.decisions[p.key]?.status !== 'set aside') continue;
    const place = entry(p.marking.start);
    place.entry.notTaken.push(
      `Beat ${place.beat}: ${named(p.marking)} was considered and not taken. ${inItsBar(p.marking.because[0].text, place.entry.bar)}`
    );
  }
  for (const b of reading.briefs) {
    const [first, last] = [score.measures[b.from], score.measures[b.to]];
    if (!first || !last) continue;
    entry(first.start).entry.written.push({ text: b.text, to: b.to > b.from ? barLabel(score.measures, last) : '' });
  }
  return [...entries.values()].sort((a, b) => a.measure - b.measure);
}

/** Paragraphs of the preface, from what is known. */
export function preface(score: Score, facts: Facts, reading: Reading, sourceName: string): string[] {
  const profile = PROFILES[reading.period];
  const first = facts.keys[0];
  const others = [...new Set(facts.keys.slice(1).map((k) => k.name))].filter((name) => name !== first?.name);
  const meters = [...new Set(score.measures.map((m) => m.time?.text ?? 'free meter'))];
  const tempo = score.directions.flatMap((d) =>
    d.kind === 'metronome' && d.perMinute ? [`${d.dots ? 'dotted ' : ''}${d.unit} = ${d.perMinute}`] : []
  );
  const paragraphs = [
    `The piece has ${score.measures.length} bars in ${meters.join(', ')}${first ? `. It begins in ${first.name}` : ''}${others.length ? ` and goes through ${others.join(', ')}` : ''}. It divides into ${facts.phrases.length} phrase${facts.phrases.length === 1 ? '' : 's'}.`,
    `This reading is ${profile.name.toLowerCase()} in style. ${profile.summary}`
  ];
  if (tempo.length) paragraphs.push(`The page gives ${tempo.join(', then ')}.`);
  for (const [id, note] of Object.entries(reading.survey)) {
    if (!note.preface) continue;
    const words = note.text ?? `${id.split('/').slice(1).join('/')}: ${note.comment ?? ''}`;
    paragraphs.push(/[.!?]$/.test(words) ? words : `${words}.`);
  }
  paragraphs.push(`Source: ${sourceName}. Everything printed in the source stands here unchanged.`);
  return paragraphs;
}

export interface LegendLine {
  sign: string;
  meaning: string;
}

const LEGEND: Partial<Record<MarkingKind, LegendLine>> = {
  dynamic: { sign: '[mf]', meaning: 'editorial dynamic, in square brackets' },
  hairpin: { sign: 'dashed hairpin', meaning: 'editorial crescendo or diminuendo' },
  slur: { sign: 'dashed slur', meaning: 'editorial slur' },
  breath: { sign: 'comma above the staff', meaning: 'breath' },
  comma: { sign: 'comma above the staff', meaning: 'a small parting: leave the note early' },
  tempo: { sign: '[poco rit.]', meaning: 'editorial words on time, in square brackets' },
  text: { sign: '[words]', meaning: 'editorial words, in square brackets' },
  fingering: { sign: 'small figure', meaning: 'editorial fingering' },
  bowing: { sign: 'small bow sign', meaning: 'editorial bowing' }
};

/** The signs that this edition uses, explained. */
export function legend(markings: readonly Marking[]): LegendLine[] {
  const used = new Set(markings.map((m) => m.kind));
  const lines: LegendLine[] = [{ sign: 'full black', meaning: 'everything that stands in the source' }];
  for (const [kind, line] of Object.entries(LEGEND)) if (used.has(kind as MarkingKind)) lines.push(line);
  if (['accent', 'articulation', 'fermata', 'metronome'].some((k) => used.has(k as MarkingKind))) {
    lines.push({ sign: 'named in the commentary', meaning: 'editorial accents, articulation, fermatas and metronome marks' });
  }
  return lines;
}

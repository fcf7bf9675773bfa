import { capital, listed } from '../../sentences.ts';
import type { Reading } from '../../reading/reading.ts';
import { dynamicLevels } from '../../reading/in-force.ts';
import { hairpinWords } from '../../reading/hairpin-levels.ts';
import { inWords } from '../../markings/describe.ts';
import type { Marking } from '../../markings/marking.ts';
import { heading, paragraph, span, type RichBlock } from '../../reading/rich-text.ts';
import { cmp, sub } from '../../score/fraction.ts';
import type { Score } from '../../score/model.ts';
import { barLabel, measureAt, positionIn, beatWords } from '../../score/position.ts';
import { shortNames, type SourceKey } from '../../style/bibliography.ts';
import type { Edition } from './edition.ts';

/** What stands at one place, and why. */
export interface CommentaryLine {
  /** "Beat 3: comma". */
  what: string;
  /** "comma": the same wherever the same is said. */
  sign: string;
  because: string;
  remark?: string;
}

/** One bar's entry in the commentary. */
export interface CommentaryEntry {
  measure: number;
  bar: string;
  lines: CommentaryLine[];
  /** Proposals that were set aside, with what they would have said. */
  notTaken: string[];
  /** The instructor's own brief that begins with this bar, and the last bar that it is for. */
  written: { text: string; to: string }[];
  /** Notes that may be misprints, and what was decided. */
  suspect: string[];
}

/** A reason without the name of the bar under which it stands already. */
function inItsBar(text: string, bar: string): string {
  const start = text.toLowerCase().startsWith(bar.toLowerCase()) ? /^[^:]*: /.exec(text)?.[0] : undefined;
  // "bars 4–5" or "bar 14" are no "bar 1".
  const own = start && /^[,:]/.test(text.slice(bar.length));
  return own ? capital(text.slice(start.length)) : capital(text);
}

const cited = (keys: readonly SourceKey[] | undefined): string => {
  const named = shortNames(keys);
  return named.length ? ` (${named.join('; ')})` : '';
};

/** What is commented on: a score and what was decided about it. */
export type Commented = Pick<Edition, 'score' | 'reading' | 'proposals'> & { details: Pick<Edition['details'], 'suspects'> };

/** What was decided, bar by bar, with the reasons, the alternatives that were not taken and the notes that are suspect. */
export function commentary({ score, reading, proposals, details }: Commented): CommentaryEntry[] {
  const entries = new Map<number, CommentaryEntry>();
  const entry = (time: Marking['start']): { entry: CommentaryEntry; beat: string } => {
    const measure = measureAt(score, time);
    let found = entries.get(measure.index);
    if (!found) {
      const bar = capital(barLabel(score.measures, measure));
      found = { measure: measure.index, bar, lines: [], notTaken: [], written: [], suspect: [] };
      entries.set(measure.index, found);
    }
    return { entry: found, beat: beatWords(positionIn(measure, sub(time, measure.start)).beat) };
  };
  const levels = dynamicLevels(score, reading.markings);
  for (const m of [...reading.markings].sort((a, b) => cmp(a.start, b.start))) {
    const place = entry(m.start);
    const because = m.because.map((b) => inItsBar(b.text, place.entry.bar) + cited(b.sources)).join(' ');
    const way = hairpinWords(score, levels, m);
    const sign = inWords(m) + (way ? `, ${way}` : '');
    const line = { what: `Beat ${place.beat}: ${sign}`, sign, because: because || 'The instructor’s decision.' };
    place.entry.lines.push(m.remark ? { ...line, remark: m.remark } : line);
  }
  for (const p of proposals) {
    if (reading.decisions[p.key]?.status !== 'set aside') continue;
    const place = entry(p.marking.start);
    place.entry.notTaken.push(
      `Beat ${place.beat}: ${inWords(p.marking)} was considered and not taken. ${inItsBar(p.marking.because[0].text, place.entry.bar)}`
    );
  }
  for (const b of reading.briefs) {
    const [first, last] = [score.measures[b.from], score.measures[b.to]];
    if (!first || !last) continue;
    entry(first.start).entry.written.push({ text: b.text, to: b.to > b.from ? barLabel(score.measures, last) : '' });
  }
  for (const s of details.suspects) {
    const place = entry(s.start);
    place.entry.suspect.push(
      `Beat ${place.beat}: ${s.printed} is printed where ${s.expected} would be expected. ${capital(s.evidence)}. ${decided(reading, s.start)}`
    );
  }
  return [...entries.values()].sort((a, b) => a.measure - b.measure);
}

/** How the reading treats suspect notes at a place. */
function decided(reading: Reading, at: Marking['start']): string {
  const local = reading.localAnswers.findLast((a) => a.key === 'suspect-notes' && cmp(a.from, at) <= 0 && cmp(at, a.to) < 0);
  const option = local?.option ?? reading.schools['suspect-notes']?.option;
  if (!option) return 'It stands as printed; nothing has been decided yet.';
  return `Decided: ${option.replace(/-/g, ' ')}.`;
}

/** Where a section begins in the commentary: its letter, its bars and its keys. */
function sectionHeads(score: Score, { sections }: Edition['facts']): { measure: number; title: string }[] {
  return sections.map((s) => {
    const [first, last] = [measureAt(score, s.start), measureAt(score, s.last)];
    const bars = `${barLabel(score.measures, first)} to ${barLabel(score.measures, last)}`;
    return {
      measure: first.index,
      title: `Section ${s.label}: ${bars}, ${s.opens === s.closes ? `in ${s.opens}` : `${s.opens} to ${s.closes}`}`
    };
  });
}

/** What makes two lines one: the same sign for the same reason. A word to the player is for its own place. */
const nameOf = (l: CommentaryLine): string => `${l.sign}|${l.because}|${l.remark ?? ''}`;

/** Lines that say the same in several bars of a section, with those bars. */
function sameThroughout(entries: readonly CommentaryEntry[]): Map<string, [CommentaryLine, string[]]> {
  const found = new Map<string, [CommentaryLine, string[]]>();
  for (const e of entries)
    for (const l of e.lines) {
      if (l.remark) continue;
      const known = found.get(nameOf(l));
      if (known) known[1].push(e.bar);
      else found.set(nameOf(l), [l, [e.bar]]);
    }
  return new Map([...found].filter(([, [, bars]]) => new Set(bars).size > 1));
}

const withoutBeat = (text: string): string => text.replace(/^Beat [^:]*: /, '');

/** What was set aside in several bars of a section for the same reason, with those bars. */
function declinedThroughout(entries: readonly CommentaryEntry[]): Map<string, string[]> {
  const found = new Map<string, string[]>();
  for (const e of entries) for (const t of e.notTaken) found.set(withoutBeat(t), [...(found.get(withoutBeat(t)) ?? []), e.bar]);
  return new Map([...found].filter(([, bars]) => new Set(bars).size > 1));
}

/** "bars 4, 8 and 12"; bars that have no number are named one by one. */
function listOf(names: readonly string[]): string {
  const bars = [...new Set(names)];
  const numbered = bars.every((b) => /^Bar \S+$/.test(b));
  const list = bars.map((b) => (numbered ? b.slice('Bar '.length) : b.charAt(0).toLowerCase() + b.slice(1)));
  return `${numbered ? 'bars ' : ''}${listed(list)}`;
}

/** The commentary as text: sections, in them what holds for several bars, and then the bars. */
export function commentaryText(edition: Edition): RichBlock[] {
  const heads = sectionHeads(edition.score, edition.facts);
  const blocks: RichBlock[] = [];
  let next = 0;
  const entries = commentary(edition);
  let together = sameThroughout([]);
  let declined = declinedThroughout([]);
  for (const e of entries) {
    let head = -1;
    while (next < heads.length && heads[next].measure <= e.measure) head = next++;
    if (head >= 0) {
      blocks.push(heading(heads[head].title));
      const until = heads[next]?.measure ?? Infinity;
      const own = entries.filter((x) => x.measure >= e.measure && x.measure < until);
      together = sameThroughout(own);
      declined = declinedThroughout(own);
      for (const [line, bars] of together.values())
        blocks.push(paragraph([span(`${capital(line.sign)} in ${listOf(bars)}. `, 'bold'), span(line.because)]));
      for (const [text, bars] of declined) blocks.push(paragraph([span(`${capital(listOf(bars))}: ${text}`, 'italic')]));
    }
    const lines = e.lines.filter((l) => !together.has(nameOf(l)));
    const notTaken = e.notTaken.filter((t) => !declined.has(withoutBeat(t)));
    if (!lines.length && !e.written.length && !e.suspect.length && !notTaken.length) continue;
    blocks.push(heading(e.bar, 3));
    for (const b of e.written) blocks.push(paragraph([...(b.to ? [span(`To ${b.to}: `, 'italic')] : []), span(b.text)]));
    for (const l of lines)
      blocks.push(
        paragraph([span(`${l.what}. `, 'bold'), span(l.because), ...(l.remark ? [span(' To the player: ', 'italic'), span(l.remark)] : [])])
      );
    for (const t of [...e.suspect, ...notTaken]) blocks.push(paragraph([span(t, 'italic')]));
  }
  return blocks;
}

import { cmp } from './fraction.ts';
import type { Hairpin, Note, Score, SpanEnd } from './model.ts';

type Report = (text: string, measure: number) => void;

/**
 * Joins the starts and stops of slurs and similar lines, in document order. Numbers are reused freely
 * between voices, so an end takes the open line of its own voice first, then of its staff; a stop
 * that is written before its start (a second voice's, say) waits for it.
 */
export function connectSlurs(score: Score, report: Report): void {
  const open = new Map<string, Note[]>();
  const waiting = new Map<string, Note[]>();
  const list = (map: Map<string, Note[]>, key: string): Note[] => {
    let found = map.get(key);
    if (!found) map.set(key, (found = []));
    return found;
  };
  /** Takes the best partner out of the candidates: same voice, then same staff, then any; latest first. */
  const take = (candidates: Note[], near: Note, fits: (n: Note) => boolean): Note | undefined => {
    let best = -1;
    let bestRank = -1;
    candidates.forEach((n, k) => {
      const rank = n.voice === near.voice ? 2 : n.staff === near.staff ? 1 : 0;
      if (fits(n) && rank >= bestRank) [best, bestRank] = [k, rank];
    });
    return best < 0 ? undefined : candidates.splice(best, 1)[0];
  };
  const stop = (note: Note, end: SpanEnd, key: string) => {
    const from = take(list(open, key), note, (n) => cmp(n.start, note.start) <= 0);
    if (from) score.slurs.push({ kind: end.kind, from: from.id, to: note.id });
    else list(waiting, key).push(note);
  };
  const start = (note: Note, end: SpanEnd, key: string) => {
    const to = take(list(waiting, key), note, (n) => cmp(n.start, note.start) > 0);
    if (to) score.slurs.push({ kind: end.kind, from: note.id, to: to.id });
    else list(open, key).push(note);
  };
  for (const note of score.notes) {
    if (!note.spans) continue;
    const keyOf = (end: SpanEnd) => `${note.part}|${end.kind}|${end.number}`;
    for (const end of note.spans) if (end.type === 'stop') stop(note, end, keyOf(end));
    for (const end of note.spans) if (end.type === 'start') start(note, end, keyOf(end));
  }
  for (const [key, notes] of open) for (const n of notes) report(`a ${key.split('|')[1]} without an end`, n.measure);
  for (const [key, notes] of waiting) for (const n of notes) report(`a ${key.split('|')[1]} without a beginning`, n.measure);
}

/** Joins wedge starts and stops into hairpins with a beginning and an end in score time. */
export function connectHairpins(score: Score, report: Report): void {
  const wedges = score.directions.filter((d) => d.kind === 'wedge');
  wedges.sort((a, b) => cmp(a.start, b.start) || (a.type === 'stop' ? 0 : 1) - (b.type === 'stop' ? 0 : 1));
  const open = new Map<string, (typeof wedges)[number]>();
  for (const wedge of wedges) {
    const key = `${wedge.part}|${wedge.number}`;
    if (wedge.type === 'crescendo' || wedge.type === 'diminuendo') {
      if (open.has(key)) report('a hairpin without an end', wedge.measure);
      open.set(key, wedge);
    } else if (wedge.type === 'stop') {
      const from = open.get(key);
      open.delete(key);
      if (!from || from.type === 'stop' || from.type === 'continue') {
        report('a hairpin without a beginning', wedge.measure);
        continue;
      }
      const hairpin: Hairpin = {
        id: from.id,
        kind: from.type,
        part: from.part,
        staff: from.staff,
        ...(from.placement ? { placement: from.placement } : {}),
        start: from.start,
        end: wedge.start,
        niente: from.niente || wedge.niente
      };
      score.hairpins.push(hairpin);
    }
  }
  for (const wedge of open.values()) report('a hairpin without an end', wedge.measure);
}

/**
 * An edition critic: reads an edition back from its MusicXML and counts what a strict teacher would not hand out. It has its own
 * reading of every rule, apart from the code that drafts. What is added to a score is what its edition has and the source lacks;
 * for the composers' own signs everything that is printed counts as added.
 */
import { add, toNumber } from '../../../../src/core/score/fraction.ts';
import type { Direction, Note, Score } from '../../../../src/core/score/model.ts';

export const FAULTS = [
  'crowding',
  'two marks on a note',
  'short hairpin',
  'hairpin over a rest',
  'hairpin away from its goal',
  'against print',
  'against each other',
  'level in force already',
  'breath at a forbidden place',
  'slur at a forbidden place',
  'time not given back',
  'words twice',
  'question to the editor',
  'unlifted echo',
  'false level',
  'same reason again'
] as const;
export type Fault = (typeof FAULTS)[number];

export interface Found {
  fault: Fault;
  bar: string;
  what: string;
}

const LEVELS = ['pppp', 'ppp', 'pp', 'p', 'mp', 'mf', 'f', 'ff', 'fff', 'ffff'];
const stepOf = (sign: string): number => LEVELS.indexOf(sign);

interface Sign {
  kind: 'dynamic' | 'words' | 'hairpin' | 'slur' | 'mark';
  value: string;
  part: number;
  staff: number;
  at: number;
  to: number;
  measure: number;
  note?: string;
}

/** Every sign of a score, with times in quarters. */
export function signsOf(score: Score): Sign[] {
  const byId = new Map(score.notes.map((n) => [n.id, n]));
  const found: Sign[] = [];
  const words = (d: Direction): string | null =>
    d.kind === 'words' ? d.text : d.kind === 'metronome' ? `${d.unit} = ${d.perMinute}` : null;
  for (const d of score.directions) {
    const at = toNumber(d.start);
    if (d.kind === 'dynamic') found.push({ kind: 'dynamic', value: d.value, part: d.part, staff: d.staff, at, to: at, measure: d.measure });
    else if (words(d) !== null)
      found.push({ kind: 'words', value: words(d)!, part: d.part, staff: d.staff, at, to: at, measure: d.measure });
  }
  for (const h of score.hairpins) {
    const at = toNumber(h.start);
    found.push({ kind: 'hairpin', value: h.kind, part: h.part, staff: h.staff, at, to: toNumber(h.end), measure: barAt(score, at) });
  }
  for (const s of score.slurs) {
    const [a, b] = [byId.get(s.from), byId.get(s.to)];
    if (s.kind === 'slur' && a && b)
      found.push({
        kind: 'slur',
        value: 'slur',
        part: a.part,
        staff: a.staff,
        at: toNumber(a.start),
        to: toNumber(b.start),
        measure: a.measure,
        note: a.id
      });
  }
  for (const n of score.notes)
    for (const m of n.marks ?? [])
      // Fingers, strings and frets are no signs of expression.
      if (m.group === 'articulation' || m.group === 'fermata' || /bow|breath|caesura/.test(m.name))
        found.push({
          kind: 'mark',
          value: m.name,
          part: n.part,
          staff: n.staff,
          at: toNumber(n.start),
          to: toNumber(n.start),
          measure: n.measure,
          note: n.id
        });
  return found;
}

const barAt = (score: Score, at: number): number =>
  Math.max(
    0,
    score.measures.findLastIndex((m) => toNumber(m.start) <= at + 1e-6)
  );
const nameOf = (s: Sign): string => `${s.kind}|${s.value}|${s.part}|${s.at.toFixed(4)}|${s.to.toFixed(4)}`;

/** Signs of one score that another lacks. */
export function addedTo(source: Score, edition: Score): { added: Sign[]; printed: Sign[] } {
  const left = new Map<string, number>();
  for (const s of signsOf(source)) left.set(nameOf(s), (left.get(nameOf(s)) ?? 0) + 1);
  const added: Sign[] = [];
  const printed: Sign[] = [];
  for (const s of signsOf(edition)) {
    const k = left.get(nameOf(s)) ?? 0;
    if (k > 0) {
      left.set(nameOf(s), k - 1);
      printed.push(s);
    } else added.push(s);
  }
  return { added, printed };
}

/** Notes of a part by time, without small and cue notes. */
function sounding(score: Score, part: number): { from: number; to: number; note: Note }[] {
  return score.notes
    .filter((n) => n.part === part && !n.rest && !n.grace && !n.cue)
    .map((note) => ({ note, from: toNumber(note.start), to: toNumber(add(note.start, note.duration)) }))
    .sort((a, b) => a.from - b.from);
}

function silentWithin(notes: { from: number; to: number }[], from: number, to: number): boolean {
  let reached = from;
  for (const n of notes) {
    if (n.to <= from) continue;
    if (n.from >= to) break;
    if (n.from - reached >= 0.5) return true;
    reached = Math.max(reached, n.to);
  }
  return to - reached >= 0.5;
}

const SLOWS = /\b(rit|rall|ritard|settle|slower|allarg)/i;
const BACK = /a tempo|tempo i|in tempo/i;

/** Everything that is wrong with the added signs. `reasons` are the commentary's sentences by place, where there are any. */
export function critique(
  edition: Score,
  added: Sign[],
  printed: Sign[],
  reasons: { measure: number; part: number; text: string }[] = []
): Found[] {
  const found: Found[] = [];
  const fault = (name: Fault, s: { measure: number }, what: string): void =>
    void found.push({ fault: name, bar: edition.measures[s.measure]?.number ?? '', what });
  const all = [...printed, ...added];
  const end = toNumber(add(edition.measures.at(-1)!.start, edition.measures.at(-1)!.length));
  for (const part of edition.parts) {
    const own = added.filter((s) => s.part === part.index);
    if (!own.length) continue;
    const notes = sounding(edition, part.index);
    const levels = all.filter((s) => s.part === part.index && s.kind === 'dynamic' && stepOf(s.value) >= 0).sort((a, b) => a.at - b.at);
    const hairpins = all.filter((s) => s.part === part.index && s.kind === 'hairpin');
    const slurs = all.filter((s) => s.part === part.index && s.kind === 'slur');
    const inForce = (at: number, before = false): Sign | undefined =>
      levels.findLast((l) => (before ? l.at < at - 1e-6 : l.at <= at + 1e-6));

    const perBar = new Map<number, Sign[]>();
    for (const s of own) perBar.set(s.measure, [...(perBar.get(s.measure) ?? []), s]);
    for (const list of perBar.values()) {
      // Dots in a row, or the slurs of a figure, are one thing said.
      const said = new Set(list.filter((s) => s.kind !== 'slur').map((s) => `${s.kind} ${s.value} ${s.staff}`));
      if (said.size > 3) fault('crowding', list[0], [...said].join(', '));
    }

    const onNote = new Map<string, Sign[]>();
    for (const s of own) if (s.kind === 'mark') onNote.set(s.note!, [...(onNote.get(s.note!) ?? []), s]);
    // A dot beside a dash or an accent says something else; a dash beside an accent says the same twice.
    for (const list of onNote.values())
      if (list.length > 1 && !list.some((s) => /staccat|fermata|bow/.test(s.value)))
        fault('two marks on a note', list[0], list.map((s) => s.value).join(' and '));

    for (const s of own) {
      if (s.kind === 'hairpin') {
        const bar = toNumber(edition.measures[s.measure].length);
        if (s.to - s.at <= 1) fault('short hairpin', s, `${s.value} of ${s.to - s.at} quarters`);
        if (silentWithin(notes, s.at, s.to)) fault('hairpin over a rest', s, s.value);
        const goal = levels.find((l) => l.at >= s.to - 1e-6 && l.at - s.to <= bar);
        const from = inForce(s.at);
        if (goal && from && (s.value === 'crescendo' ? stepOf(goal.value) <= stepOf(from.value) : stepOf(goal.value) >= stepOf(from.value)))
          // To a subito piano a crescendo leads all the way.
          if (!(s.value === 'crescendo' && printed.includes(goal)))
            fault('hairpin away from its goal', s, `${s.value} from ${from.value} to ${goal.value}`);
        if (hairpins.some((h) => h !== s && h.at < s.to - 1e-6 && s.at < h.to - 1e-6))
          fault(
            printed.some((h) => hairpins.includes(h) && h.at < s.to && s.at < h.to) ? 'against print' : 'against each other',
            s,
            'two hairpins at once'
          );
        if (levels.some((l) => l.at > s.at + 1e-6 && l.at < s.to - 1e-6)) fault('against each other', s, 'a level inside a hairpin');
      } else if (s.kind === 'dynamic' && stepOf(s.value) >= 0) {
        const others = levels.filter((l) => l !== s && Math.abs(l.at - s.at) < 1e-6 && l.value !== s.value);
        if (others.some((o) => printed.includes(o))) fault('against print', s, `${s.value} where ${others[0].value} is printed`);
        else if (others.length) fault('against each other', s, `${s.value} and ${others[0].value}`);
        const before = inForce(s.at, true);
        const grew = hairpins.some((h) => h.to <= s.at + 1e-6 && h.to > (before?.at ?? -1));
        // After a rest a level is said again.
        const bar = toNumber(edition.measures[s.measure].length);
        const entry = silentWithin(notes, Math.max(0, s.at - bar), s.at);
        if (before?.value === s.value && before.staff === s.staff && !grew && !entry) fault('level in force already', s, s.value);
      } else if (s.kind === 'slur') {
        const last = notes.find((n) => Math.abs(n.from - s.to) < 1e-6);
        if (silentWithin(notes, s.at, last?.to ?? s.to)) fault('slur at a forbidden place', s, 'over a rest');
        const voice = (x: Sign): string | undefined => notes.find((n) => n.note.id === x.note)?.note.voice;
        if (slurs.some((o) => o !== s && o.staff === s.staff && voice(o) === voice(s) && o.at < s.at && s.at < o.to && o.to < s.to))
          fault('slur at a forbidden place', s, 'across another');
        const sung = notes.filter((n) => n.from > s.at && n.from <= s.to && n.note.lyrics?.length);
        if (sung.length) fault('slur at a forbidden place', s, 'over two syllables');
        const dots = printed.filter((o) => o.value === 'staccato' && o.part === s.part && o.staff === s.staff);
        if (dots.some((o) => o.at >= s.at && o.at <= s.to)) fault('slur at a forbidden place', s, 'over dots');
      } else if (s.kind === 'mark') {
        const note = notes.find((n) => n.note.id === s.note);
        if (/breath|caesura/.test(s.value) && note) {
          if (slurs.some((o) => o.at <= s.at && s.at < o.to)) fault('breath at a forbidden place', s, 'inside a slur');
          if (note.note.tie?.start) fault('breath at a forbidden place', s, 'inside a tie');
          if (note.note.lyrics?.some((l) => l.syllabic === 'begin' || l.syllabic === 'middle'))
            fault('breath at a forbidden place', s, 'inside a word');
          if (!notes.some((n) => Math.abs(n.from - note.to) < 1e-6)) fault('breath at a forbidden place', s, 'before a rest');
        }
        const other = printed.find(
          (o) =>
            o.kind === 'mark' &&
            o.note === s.note &&
            /staccat/.test(o.value) !== /staccat/.test(s.value) &&
            /staccat|tenuto/.test(o.value) &&
            /staccat|tenuto/.test(s.value)
        );
        if (other) fault('against print', s, `${s.value} where ${other.value} is printed`);
      }
    }
  }
  const words = added.filter((s) => s.kind === 'words').sort((a, b) => a.at - b.at);
  const spoken = all.filter((s) => s.kind === 'words').sort((a, b) => a.at - b.at);
  for (const s of words) {
    if (/\?\s*$|^read |^still /i.test(s.value)) fault('question to the editor', s, s.value);
    if (spoken.some((o) => o !== s && o.part === s.part && o.measure === s.measure && o.value === s.value))
      fault('words twice', s, s.value);
    const bar = toNumber(edition.measures[s.measure].length);
    if (SLOWS.test(s.value) && end - s.at > 4 * bar && !spoken.some((o) => o.at > s.at && (BACK.test(o.value) || / = \d/.test(o.value))))
      fault('time not given back', s, s.value);
    if (BACK.test(s.value) && words.some((o) => o !== s && BACK.test(o.value) && Math.abs(o.at - s.at) <= 2 * bar))
      fault('words twice', s, s.value);
  }
  for (const r of reasons) {
    if (/repeats the .* note for note/.test(r.text)) {
      const echo = added.find((s) => s.kind === 'dynamic' && s.measure === r.measure && s.part === r.part);
      const later = echo && all.some((s) => s.kind === 'dynamic' && s.part === r.part && s.at > echo.at);
      if (echo && !later && end - echo.at > 4 * toNumber(edition.measures[r.measure].length)) fault('unlifted echo', r, r.text);
    }
    const quoted = /\bfrom (p+|mp|mf|f+) to(?:ward)? (p+|mp|mf|f+)\b/.exec(r.text);
    const held = all
      .filter((s) => s.kind === 'dynamic' && s.part === r.part && stepOf(s.value) >= 0 && s.measure <= r.measure)
      .sort((a, b) => a.at - b.at)
      .at(-1);
    if (quoted && held?.value !== quoted[1]) fault('false level', r, r.text);
  }
  const plain = (t: string): string => t.replace(/^[^:]*: /, '').replace(/\d+/g, '#');
  reasons.forEach((r, k) => {
    const again = reasons.slice(0, k).some((o) => o.part === r.part && plain(o.text) === plain(r.text) && r.measure - o.measure <= 1);
    if (again && !/level of before|harmony|group of the hemiola|three groups/.test(r.text)) fault('same reason again', r, r.text);
  });
  return found;
}

import type { Facts } from '../analysis/facts.ts';
import { alteredNotes } from '../score/accidentals.ts';
import { add, cmp, toNumber, ZERO } from '../score/fraction.ts';
import type { Note, Score } from '../score/model.ts';
import { midi, pitchName } from '../score/pitch.ts';
import { playedLength, unfold } from '../score/repeats.ts';
import { dynamicStep } from '../style/dynamics.ts';
import { lookUp } from '../style/terms/lookup.ts';

/** One line of the survey: what is there, how it is to be understood, and in which bars. */
export interface SurveyLine {
  label: string;
  value: string;
  /** Measure indices that the line leads to. */
  bars: number[];
}

export interface SurveyGroup {
  title: string;
  lines: SurveyLine[];
}

export interface Survey {
  groups: SurveyGroup[];
}

const unique = (bars: number[]): number[] => [...new Set(bars)].sort((a, b) => a - b);

/** Counts things by name, with the bars they stand in, most frequent first. */
function tally<T>(
  items: Iterable<T>,
  name: (item: T) => string | null,
  bar: (item: T) => number
): { name: string; count: number; bars: number[] }[] {
  const counts = new Map<string, { count: number; bars: number[] }>();
  for (const item of items) {
    const key = name(item);
    if (key === null) continue;
    const entry = counts.get(key) ?? { count: 0, bars: [] };
    entry.count++;
    entry.bars.push(bar(item));
    counts.set(key, entry);
  }
  return [...counts].map(([key, e]) => ({ name: key, count: e.count, bars: unique(e.bars) })).sort((a, b) => b.count - a.count);
}

const signature = (fifths: number): string =>
  fifths === 0 ? 'no sharps or flats' : `${Math.abs(fifths)} ${fifths > 0 ? 'sharp' : 'flat'}${Math.abs(fifths) === 1 ? '' : 's'}`;

function plan(score: Score, facts: Facts): SurveyGroup {
  const lines: SurveyLine[] = [];
  const played = unfold(score.measures).length;
  lines.push({ label: 'Bars', value: `${score.measures.length} as written, ${played} as played`, bars: [] });
  const total = score.measures.reduce((sum, m) => add(sum, m.length), ZERO);
  lines.push({
    label: 'Length',
    value: `${toNumber(total)} quarters as written, ${toNumber(playedLength(score.measures))} as played`,
    bars: []
  });
  for (const t of tally(
    score.measures.filter((m, k) => k === 0 || m.time?.text !== score.measures[k - 1].time?.text),
    (m) => m.time?.text ?? 'free meter',
    (m) => m.index
  )) {
    lines.push({ label: 'Meter', value: t.name, bars: t.bars });
  }
  for (const t of tally(
    score.measures.filter((m, k) => k === 0 || m.key.fifths !== score.measures[k - 1].key.fifths),
    (m) => signature(m.key.fifths),
    (m) => m.index
  )) {
    lines.push({ label: 'Key signature', value: t.name, bars: t.bars });
  }
  for (const k of facts.keys) {
    const bar = score.measures.findLastIndex((m) => cmp(m.start, k.start) <= 0);
    lines.push({ label: 'Key', value: `${k.name} (${Math.round(100 * k.confidence)} % sure: ${k.evidence})`, bars: [bar] });
  }
  const repeats = score.measures.filter((m) => m.repeatEnd || m.daCapo || m.dalSegno || m.endingStart);
  if (repeats.length)
    lines.push({
      label: 'Repeats and jumps',
      value: repeats
        .map((m) => (m.repeatEnd ? 'repeat' : m.daCapo ? 'da capo' : m.dalSegno ? 'dal segno' : `ending ${m.endingStart}`))
        .join(', '),
      bars: repeats.map((m) => m.index)
    });
  return { title: 'Plan', lines };
}

function tempoAndTerms(score: Score): SurveyGroup {
  const lines: SurveyLine[] = [];
  for (const d of score.directions) {
    if (d.kind !== 'metronome') continue;
    const unit = d.unit + (d.dots ? ', dotted' : '');
    lines.push({
      label: 'Metronome',
      value: d.perMinute !== undefined ? `${unit} = ${d.perMinute}` : `${unit} = ${d.equals?.unit ?? '?'} before`,
      bars: [d.measure]
    });
  }
  const words = score.directions.filter((d) => d.kind === 'words');
  for (const t of tally(
    words,
    (d) => d.text.replace(/\s+/g, ' '),
    (d) => d.measure
  )) {
    const { terms, unknown } = lookUp(t.name);
    const meaning = terms.map((x) => `${x.translation} (${x.language}; ${x.effects.join(', ')})`).join(' · ');
    lines.push({
      label: t.name,
      value: (meaning || 'not in the dictionary') + (meaning && unknown.length ? ` · not known: ${unknown.join(', ')}` : ''),
      bars: t.bars
    });
  }
  return { title: 'Tempo and terms', lines };
}

function loudness(score: Score): SurveyGroup {
  const marks = score.directions.filter((d) => d.kind === 'dynamic');
  const lines: SurveyLine[] = tally(
    marks,
    (d) => d.value,
    (d) => d.measure
  ).map((t) => ({ label: t.name, value: `${t.count}×`, bars: t.bars }));
  const steps = marks
    .map((d) => ({ d, step: dynamicStep(d.value) }))
    .filter((x): x is { d: (typeof marks)[number]; step: number } => x.step !== null);
  if (steps.length) {
    const low = steps.reduce((a, b) => (b.step < a.step ? b : a));
    const high = steps.reduce((a, b) => (b.step > a.step ? b : a));
    lines.unshift({ label: 'Range', value: `${low.d.value} to ${high.d.value}`, bars: unique([low.d.measure, high.d.measure]) });
  } else lines.push({ label: 'Range', value: 'no dynamic is printed', bars: [] });
  for (const kind of ['crescendo', 'diminuendo'] as const) {
    const pins = score.hairpins.filter((h) => h.kind === kind);
    if (pins.length)
      lines.push({
        label: `${kind} hairpin`,
        value: `${pins.length}×`,
        bars: unique(pins.map((h) => score.measures.findLastIndex((m) => cmp(m.start, h.start) <= 0)))
      });
  }
  return { title: 'Dynamics', lines };
}

function range(score: Score): SurveyGroup {
  const lines: SurveyLine[] = [];
  for (const part of score.parts) {
    const notes = score.notes.filter(
      (n): n is Note & { pitch: NonNullable<Note['pitch']>; sounding: NonNullable<Note['sounding']> } =>
        n.part === part.index && n.sounding !== undefined && !n.cue
    );
    if (!notes.length) continue;
    const low = notes.reduce((a, b) => (midi(b.sounding) < midi(a.sounding) ? b : a));
    const high = notes.reduce((a, b) => (midi(b.sounding) > midi(a.sounding) ? b : a));
    const label = part.name || 'Part';
    lines.push({ label, value: `${pitchName(low.pitch)} to ${pitchName(high.pitch)} written`, bars: unique([low.measure, high.measure]) });
    if (part.transpose.chromatic)
      lines.push({
        label: `${label}, sounding`,
        value: `${pitchName(low.sounding)} to ${pitchName(high.sounding)}`,
        bars: unique([low.measure, high.measure])
      });
  }
  return { title: 'Range', lines };
}

function rhythm(score: Score): SurveyGroup {
  const sounding = score.notes.filter((n) => !n.rest && !n.cue && !n.grace && !n.chord);
  const values = new Map<string, { length: number; count: number; bars: number[] }>();
  for (const n of sounding) {
    const tuplet = n.timeModification ? ` (${n.timeModification.actual} in the time of ${n.timeModification.normal})` : '';
    const name = `${n.dots ? 'dotted '.repeat(n.dots) : ''}${n.type ?? `${toNumber(n.duration)} quarters`}${tuplet}`;
    const entry = values.get(name) ?? { length: toNumber(n.duration), count: 0, bars: [] };
    entry.count++;
    entry.bars.push(n.measure);
    values.set(name, entry);
  }
  const lines = [...values]
    .sort((a, b) => b[1].length - a[1].length)
    .map(([label, v]) => ({ label, value: `${v.count}×`, bars: unique(v.bars) }));
  return { title: 'Note values, longest first', lines };
}

const MARK_TITLES: [group: string, title: string][] = [
  ['ornament', 'Ornaments'],
  ['articulation', 'Articulation'],
  ['technical', 'Technique'],
  ['fermata', 'Fermatas']
];

function marks(score: Score): SurveyGroup[] {
  const groups: SurveyGroup[] = [];
  for (const [group, title] of MARK_TITLES) {
    const found = score.notes.flatMap((n) => (n.marks ?? []).filter((m) => m.group === group).map((m) => ({ m, n })));
    const lines = tally(
      found,
      ({ m }) => m.name.replace(/-/g, ' ') + (m.value && group === 'technical' ? ` ${m.value}` : ''),
      ({ n }) => n.measure
    ).map((t) => ({ label: t.name, value: `${t.count}×`, bars: t.bars }));
    if (group === 'ornament') {
      const graces = score.notes.filter((n) => n.grace && !n.cue);
      if (graces.length) lines.push({ label: 'grace notes', value: `${graces.length}×`, bars: unique(graces.map((n) => n.measure)) });
    }
    if (lines.length) groups.push({ title, lines });
  }
  return groups;
}

function accidentals(score: Score): SurveyGroup {
  const altered = alteredNotes(score);
  const carried = altered.filter((a) => !a.printed);
  const lines: SurveyLine[] = [
    {
      label: 'All',
      value: `${altered.length} notes differ from the key signature, ${carried.length} of them without a printed sign`,
      bars: []
    }
  ];
  for (const t of tally(
    altered,
    (a) => pitchName(a.note.pitch!).replace(/-?\d+$/, ''),
    (a) => a.note.measure
  ))
    lines.push({ label: t.name, value: `${t.count}×`, bars: t.bars });
  if (carried.length)
    lines.push({
      label: 'Carried through the bar',
      value: carried
        .map((a) => pitchName(a.note.pitch!))
        .filter((x, k, all) => all.indexOf(x) === k)
        .join(', '),
      bars: unique(carried.map((a) => a.note.measure))
    });
  return { title: 'Accidentals', lines };
}

/** The first look at a score: everything counted, translated and located. */
export function survey(score: Score, facts: Facts): Survey {
  const groups = [
    plan(score, facts),
    tempoAndTerms(score),
    loudness(score),
    range(score),
    rhythm(score),
    ...marks(score),
    accidentals(score)
  ];
  if (score.remarks.length) {
    groups.push({
      title: 'Reading report',
      lines: score.remarks.map((r) => ({
        label: r.kind === 'repaired' ? 'Read all the same' : 'Kept but not understood',
        value: `${r.text}${r.count > 1 ? `, ${r.count}×` : ''}`,
        bars: r.measure === undefined ? [] : [r.measure]
      }))
    });
  }
  return { groups: groups.filter((g) => g.lines.length) };
}

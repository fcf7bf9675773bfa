import { dynamicLevels, levelInForce, loudnessWords } from '../reading/in-force.ts';
import { cmp, lte, type Fraction } from '../score/fraction.ts';
import { metronomeXml, printMetronome } from '../score/metronome.ts';
import { ScoreError, type Direction, type Score } from '../score/model.ts';
import { attributesBefore } from '../score/musicxml/attributes-before.ts';
import { escapeXml } from '../score/musicxml/escape.ts';
import { barLabel } from '../score/position.ts';
import { DYNAMIC_STEPS, dynamicAt } from '../style/dynamics.ts';
import { GRADUAL } from '../style/performance-weights.ts';
import { setsATempo } from '../style/tempo-words.ts';
import { timeActIn } from '../style/terms/read-words.ts';
import { dynamicXml } from '../markings/kinds/dynamic.ts';

/** Bars of an excerpt: measure indices, both included. */
export interface ExcerptRange {
  from: number;
  to: number;
}

/** A sign that was given before the excerpt and still holds where it begins. */
export interface InForce {
  /** A level, words on loudness that are under way, or a tempo. */
  kind: 'dynamic' | 'loudness' | 'tempo';
  /** As printed: "p", "cresc.", "Andante", "quarter = 72". */
  text: string;
  /** Measure in which it stands. */
  measure: number;
  part: number;
  staff: number;
  direction: Direction;
}

const before = (d: { start: Fraction }, at: Fraction): boolean => cmp(d.start, at) < 0;

const found = (kind: InForce['kind'], text: string, d: Direction): InForce => ({
  kind,
  text,
  measure: d.measure,
  part: d.part,
  staff: d.staff,
  direction: d
});

/** Level and words on loudness that hold in one part where a bar begins. */
function loudnessInForce(score: Score, part: number, measure: number): InForce[] {
  const at = score.measures[measure].start;
  const result: InForce[] = [];
  const own = score.directions.filter((d) => d.part === part);
  const said = own.some((d) => d.kind === 'dynamic' && cmp(d.start, at) === 0);
  const level = levelInForce(dynamicLevels(score), part, at);
  if (level && before(level, at) && !said) {
    const d = own.findLast((x) => (x.kind === 'dynamic' || x.kind === 'words') && cmp(x.start, level.start) === 0);
    const text = (DYNAMIC_STEPS as readonly string[]).includes(level.sign) ? level.sign : dynamicAt(level.step);
    if (d) result.push(found('dynamic', text, d));
  }
  const word = loudnessWords(score).findLast((w) => w.part === part && before(w, at));
  if (word?.act.kind === 'swell' && !said) {
    const d = own.find((x) => x.id === word.id)!;
    const ends = own.find((x) => x.kind === 'span' && x.name === 'dashes' && x.type === 'stop' && cmp(x.start, word.start) > 0);
    const over =
      (level && cmp(level.start, word.start) > 0) ||
      score.hairpins.some((h) => h.part === part && cmp(h.start, word.start) >= 0 && before(h, at)) ||
      (ends ? lte(ends.start, at) : measure - d.measure > GRADUAL.mostBars);
    if (!over) result.push(found('loudness', word.text, d));
  }
  return result;
}

const asPrinted = (d: Direction): string => (d.kind === 'words' ? d.text : d.kind === 'metronome' && d.perMinute ? printMetronome(d) : '');

/** The tempo that holds where a bar begins: words and number of one moment, and what has been done to them since. */
function tempoInForceAt(score: Score, measure: number): InForce[] {
  const at = score.measures[measure].start;
  const sets = (d: Direction): boolean => d.kind === 'metronome' || (d.kind === 'words' && setsATempo(d.text) && !timeActIn(d.text));
  if (score.directions.some((d) => cmp(d.start, at) === 0 && (sets(d) || (d.kind === 'words' && timeActIn(d.text) !== null)))) return [];
  const earlier = score.directions.filter((d) => before(d, at)).sort((a, b) => cmp(a.start, b.start));
  let first: Direction[] = [];
  let tempo: Direction[] = [];
  let change: Direction | null = null;
  for (const d of earlier) {
    if (sets(d)) {
      // Words and metronome mark of one moment belong together.
      tempo = tempo.length && cmp(tempo[0].start, d.start) === 0 ? [...tempo, d] : [d];
      if (!first.length || cmp(first[0].start, d.start) === 0) first = tempo;
      change = null;
    }
    const act = d.kind === 'words' ? timeActIn(d.text) : null;
    if (act?.kind === 'restore') {
      change = null;
      if (d.kind === 'words' && /prim|\b[I1]\b/i.test(d.text)) tempo = first;
    } else if (act && act.kind !== 'wait') change = d;
  }
  // Who slows is over it with the phrase; who hurries goes on where the page says its end later, as in the performance.
  const kind = change?.kind === 'words' ? timeActIn(change.text)!.kind : null;
  const said = score.directions.some((d) => {
    if (cmp(d.start, at) < 0) return false;
    const act = d.kind === 'words' ? timeActIn(d.text) : null;
    return sets(d) || (act !== null && act.kind !== 'wait' && act.kind !== 'free');
  });
  const gradual = kind === 'slow' || (kind === 'fast' && !said);
  if (change && gradual && measure - change.measure > GRADUAL.mostBars) change = null;
  return [...tempo, ...(change ? [change] : [])].filter((d) => asPrinted(d)).map((d) => found('tempo', asPrinted(d), d));
}

/** Dynamics and tempo marks in force where a bar begins, the dynamic by part, with what is said there anew left out. */
export const inForceAt = (score: Score, measure: number): InForce[] => [
  ...score.parts.flatMap((part) => loudnessInForce(score, part.index, measure)),
  ...tempoInForceAt(score, measure)
];

/** Quarters a minute by the last <sound> before a moment; null where none is given. */
function soundTempo(score: Score, at: Fraction): number | null {
  const d = score.directions.findLast((x) => x.kind === 'sound' && x.tempo !== undefined && before(x, at));
  return d?.kind === 'sound' ? (d.tempo ?? null) : null;
}

function directionXml(score: Score, item: InForce, staves: number): string {
  const since = barLabel(score.measures, score.measures[item.measure]);
  const note = `<footnote>In force since ${escapeXml(since)} of the whole.</footnote><level bracket="yes">editorial</level>`;
  const staff = staves > 1 ? `<staff>${item.staff}</staff>` : '';
  const d = item.direction;
  if (item.kind === 'dynamic')
    return `<direction placement="below"><direction-type>${dynamicXml(item.text)}</direction-type>${note}${staff}</direction>`;
  const content =
    d.kind === 'metronome' && d.perMinute
      ? metronomeXml(d, escapeXml(d.perMinute), ' parentheses="yes"')
      : `<words>[${escapeXml(item.text)}]</words>`;
  return `<direction placement="${item.kind === 'loudness' ? 'below' : 'above'}"><direction-type>${content}</direction-type>${note}${staff}</direction>`;
}

/**
 * The MusicXML document of some bars of a score, cut from the source's own text. Where it begins it says the
 * meter, keys, clefs, tempo and dynamics that are in force there.
 * @throws ScoreError when the range is not within the score.
 */
export function excerptDocument(source: string, score: Score, { from, to }: ExcerptRange): string {
  if (from < 0 || to >= score.measures.length || from > to) throw new ScoreError('The excerpt does not lie within the piece');
  const list = /<part-list\b[\s\S]*?<\/part-list>/.exec(source)?.[0] ?? '';
  const [first, last] = [score.measures[from], score.measures[to]];
  const bars = from === to ? barLabel(score.measures, first) : `bars ${first.number}–${last.number}`;
  const title = score.title ? `${score.title}, ${bars}` : bars;
  const inForce = from === 0 ? [] : inForceAt(score, from);
  const tempo = from === 0 ? null : soundTempo(score, first.start);
  const parts = score.parts.map((part) => {
    const measures = score.measures.slice(from, to + 1).map((measure) => {
      const span = part.measureSpans[measure.index];
      const inner = span ? source.slice(span.inner.from, span.inner.to) : '';
      let head = '';
      if (measure.index === from && from > 0) {
        head =
          attributesBefore(part, from, true) +
          inForce
            .filter((x) => x.part === part.index)
            .map((x) => directionXml(score, x, part.staves))
            .join('') +
          (part.index === 0 && tempo ? `<sound tempo="${tempo}"/>` : '');
      }
      return `<measure number="${escapeXml(measure.number)}"${measure.implicit ? ' implicit="yes"' : ''}>${head}${inner}</measure>`;
    });
    return `<part id="${escapeXml(part.id)}">\n${measures.join('\n')}\n</part>`;
  });
  const composer = score.composer ? `<identification><creator type="composer">${escapeXml(score.composer)}</creator></identification>` : '';
  return `<?xml version="1.0" encoding="UTF-8"?>\n<score-partwise version="4.0">\n<work><work-title>${escapeXml(title)}</work-title></work>${composer}\n${list}\n${parts.join('\n')}\n</score-partwise>\n`;
}

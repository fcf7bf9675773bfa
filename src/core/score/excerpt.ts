import { cmp, type Fraction } from './fraction.ts';
import { ScoreError, type Direction, type Score } from './model.ts';
import { attributesBefore } from './musicxml/attributes-before.ts';
import { escapeXml } from './musicxml/escape.ts';
import { barLabel } from './position.ts';

/** Bars of an excerpt: measure indices, both included. */
export interface ExcerptRange {
  from: number;
  to: number;
}

/** A sign that was given before the excerpt and still holds where it begins. */
export interface InForce {
  kind: 'dynamic' | 'tempo';
  /** As printed: "p", "Andante", "quarter = 72". */
  text: string;
  /** Measure in which it stands. */
  measure: number;
  part: number;
  staff: number;
  direction: Direction;
}

/** Words that set a tempo until the next one; a ritardando or an expression does not. Common usage. */
const TEMPO_WORDS =
  /\b(grave|larg|lent|adagio|andant|moderat|allegr|viva|presto|prestissimo|tempo|mosso|animat|maestoso|langsam|lebhaft|schnell|mäßig|mässig|bewegt|ruhig|vif|modéré|slow|fast|lively|swing|march|waltz|valse|menuet|minuet)/i;

const before = (d: Direction, at: Fraction): boolean => cmp(d.start, at) < 0;

/** Dynamics and tempo marks in force where a bar begins, the dynamic by part, with what is said there anew left out. */
export function inForceAt(score: Score, measure: number): InForce[] {
  const at = score.measures[measure].start;
  const found: InForce[] = [];
  const here = score.directions.filter((d) => cmp(d.start, at) === 0);
  for (const part of score.parts) {
    const dynamic = score.directions.findLast(
      (d) => d.kind === 'dynamic' && d.part === part.index && before(d, at) && !/^(s|r)?f+z|^sf$|^rf$/.test(d.value)
    );
    if (dynamic?.kind === 'dynamic' && !here.some((d) => d.kind === 'dynamic' && d.part === part.index))
      found.push({
        kind: 'dynamic',
        // After fp, sfp and the like what stays is the last letter's level.
        text: /^(?:s?f+z?)(p+)$/.exec(dynamic.value)?.[1] ?? dynamic.value,
        measure: dynamic.measure,
        part: part.index,
        staff: dynamic.staff,
        direction: dynamic
      });
  }
  const isTempo = (d: Direction): boolean => d.kind === 'metronome' || (d.kind === 'words' && TEMPO_WORDS.test(d.text));
  if (!here.some(isTempo)) {
    const latest = score.directions.filter((d) => isTempo(d) && before(d, at)).sort((a, b) => cmp(a.start, b.start));
    const last = latest.at(-1);
    // Words and metronome mark of one moment belong together.
    for (const d of latest.filter((x) => last && cmp(x.start, last.start) === 0)) {
      const text =
        d.kind === 'words' ? d.text : d.kind === 'metronome' && d.perMinute ? `${d.dots ? 'dotted ' : ''}${d.unit} = ${d.perMinute}` : '';
      if (text) found.push({ kind: 'tempo', text, measure: d.measure, part: d.part, staff: d.staff, direction: d });
    }
  }
  return found;
}

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
    return `<direction placement="below"><direction-type><dynamics>${/^(p+|f+|mp|mf)$/.test(item.text) ? `<${item.text}/>` : `<other-dynamics>${escapeXml(item.text)}</other-dynamics>`}</dynamics></direction-type>${note}${staff}</direction>`;
  const content =
    d.kind === 'metronome' && d.perMinute
      ? `<metronome parentheses="yes"><beat-unit>${d.unit}</beat-unit>${'<beat-unit-dot/>'.repeat(d.dots)}<per-minute>${escapeXml(d.perMinute)}</per-minute></metronome>`
      : `<words>[${escapeXml(item.text)}]</words>`;
  return `<direction placement="above"><direction-type>${content}</direction-type>${note}${staff}</direction>`;
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

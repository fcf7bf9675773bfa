import { fittingOssias, ossiaDocument, ossiaScore, type Ossia } from '../reading/ossia.ts';
import { lcm, mul, frac } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import { escapeXml } from '../score/musicxml/escape.ts';

/**
 * A document with its printed ossias, each as a part of its own whose staff is one of kind "ossia" and is empty outside of its
 * bars. MusicXML 4.0, staff-type.
 */
export function withOssiaParts(document: string, score: Score, ossias: readonly Ossia[]): string {
  const printed = fittingOssias(score, ossias).filter((o) => o.printed);
  if (!printed.length) return document;
  const list = printed
    .map(({ id, label }) => `<score-part id="${escapeXml(id)}"><part-name print-object="no">${escapeXml(label)}</part-name></score-part>`)
    .join('');
  const parts = printed.map((o) => `<part id="${escapeXml(o.id)}">${measuresOf(score, o)}</part>`).join('');
  const ends = document.lastIndexOf('</score-partwise>');
  return (document.slice(0, ends) + parts + document.slice(ends)).replace('</part-list>', `${list}</part-list>`);
}

function measuresOf(score: Score, ossia: Ossia): string {
  const text = ossiaDocument(ossia);
  const [part] = ossiaScore(ossia).parts;
  const { diatonic, chromatic } = score.parts[ossia.part].transpose;
  const transpose =
    diatonic || chromatic ? `<transpose><diatonic>${diatonic}</diatonic><chromatic>${chromatic}</chromatic></transpose>` : '';
  const kind = `<staff-details><staff-type>ossia</staff-type></staff-details>${transpose}`;
  const divisions = score.measures.reduce((n, m) => lcm(n, m.length.d), 1);
  return score.measures
    .map((m) => {
      const head = `<measure number="${escapeXml(m.number)}"${m.implicit ? ' implicit="yes"' : ''}>`;
      const at = m.index - ossia.from;
      if (at >= 0 && m.index <= ossia.to) {
        const { inner } = part.measureSpans[at];
        const music = text.slice(inner.from, inner.to);
        return head + (at === 0 ? music.replace(/<\/attributes>/, `${kind}</attributes>`) : music) + '</measure>';
      }
      const sets = m.index === 0 || at === ossia.to - ossia.from + 1 ? `<attributes><divisions>${divisions}</divisions></attributes>` : '';
      const duration = mul(m.length, frac(divisions)).n;
      return `${head}${sets}<note print-object="no"><rest measure="yes"/><duration>${duration}</duration></note></measure>`;
    })
    .join('');
}

import type { Score } from '../score/model.ts';
import { findMetronome } from '../score/metronome.ts';
import { lookUp, phrasesOf, type Phrase } from '../style/terms/lookup.ts';
import { effectWords } from '../style/terms/effect-words.ts';
import { readWords } from '../style/terms/read-words.ts';
import { GroupBuilder, tally, type SurveyGroup } from './line.ts';

/** Names of instruments that stand in scores as words, and their abbreviations. Common practice. */
const INSTRUMENTS =
  /^(tutti|solo|ob|fl|cl|fag|bn|bsn|cor|hn|hr|tr|tpt|trb|timp|viol|vl|vln|vla|vc|vcl|cb|kb|bc|b\.\s?c|cemb|org|pf|pfte|oboe|flute|violin|viola|violoncell|cello|clarinet|bassoon|horn|trumpet|piano solo)\b/i;

/** "dying away (Italian: slower and slower, fading)": the words as one, with their language and what they do. */
function phraseMeaning({ terms, translation }: Phrase): string {
  const languages = [...new Set(terms.map((t) => t.language))].join(', ');
  const effect = effectWords(readWords(terms.map((t) => t.term).join(' ')));
  return `${translation} (${languages}${effect ? `: ${effect}` : ''})`;
}

/** All printed terms with language, translation and effect; unknown words are asked of the teacher. */
export function terms(score: Score): SurveyGroup {
  const group = new GroupBuilder('Terms');
  const words = score.directions.filter((d) => d.kind === 'words');
  for (const t of tally(
    words,
    (d) => d.text.replace(/\s+/g, ' '),
    (d) => d.measure
  )) {
    const { terms: found, unknown } = lookUp(t.name);
    const meaning = phrasesOf(found).map(phraseMeaning).join(' · ');
    if (!meaning && (findMetronome(t.name) || !/\p{L}{2}/u.test(t.name))) continue;
    if (!meaning && INSTRUMENTS.test(t.name)) {
      group.add(t.name, 'names who plays', t.bars);
      continue;
    }
    const rest = unknown.length ? `not in the dictionary: ${unknown.join(', ')}` : '';
    group.add(t.name, [meaning, rest].filter(Boolean).join(' · '), t.bars, unknown.length ? { ask: true } : {});
  }
  return group.group;
}

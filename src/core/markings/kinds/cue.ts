import { escapeXml } from '../../score/musicxml/escape.ts';
import type { MarkingDescription } from '../description.ts';
import { anyWords, neverAgainstPrint, sameWords, wordsXml } from '../usual.ts';

export const cue: MarkingDescription = {
  name: 'cue to the accompaniment',
  says: 'What the accompaniment does here, or what the player waits or listens for.',
  hangs: 'moment',
  values: anyWords('piano waits'),
  inWords: (value) => `cue “${value}”`,
  legend: { sign: '→ words', meaning: 'editorial cue to the accompaniment' },
  mei: (m, { common, side, stamp }) => ({
    beside: `<dir ${common} ${side('below')} ${stamp}><rend fontstyle="normal" fontsize="80%">→ ${escapeXml(m.value)}</rend></dir>`
  }),
  musicXml: (m) => ({ direction: wordsXml(`→ ${m.value}`), placement: 'below' }),
  clashes: sameWords,
  againstPrinted: neverAgainstPrint,
  sound: () => ({})
};

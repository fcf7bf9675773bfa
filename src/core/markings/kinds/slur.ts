import { escapeXml } from '../../score/musicxml/escape.ts';
import type { MarkingDescription } from '../description.ts';
import { atOnePlace, neverAgainstPrint, withName } from '../usual.ts';

export const slur: MarkingDescription = {
  name: 'slur',
  says: 'Notes that are bound.',
  hangs: 'notes',
  values: ['slur'],
  inWords: withName('slur'),
  legend: { sign: 'dashed slur', meaning: 'editorial slur' },
  mei: (m, { common, curve, anchor }) =>
    m.endNote ? { beside: `<slur ${common} lform="dashed"${curve} ${anchor} endid="#${escapeXml(m.endNote)}"/>` } : null,
  musicXml: () => ({
    slur: (number) => ({
      start: `<slur type="start" number="${number}" line-type="dashed"/>`,
      stop: `<slur type="stop" number="${number}"/>`
    })
  }),
  clashes: atOnePlace,
  againstPrinted: neverAgainstPrint,
  sound: () => ({ binds: true })
};

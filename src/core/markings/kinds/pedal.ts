import { cmp } from '../../score/fraction.ts';
import type { MarkingDescription } from '../description.ts';
import { neverAgainstPrint, withName } from '../usual.ts';

export const pedal: MarkingDescription = {
  name: 'pedal',
  says: 'The dampers are lifted from here to there.',
  hangs: 'stretch',
  needs: ['keys'],
  values: ['pedal'],
  inWords: withName('pedal'),
  legend: { sign: 'line with hooks below', meaning: 'editorial pedal' },
  mei: (_, { common, side, stamp, until }) => ({ beside: `<pedal ${common} ${side('below')} dir="down" form="line" ${stamp} ${until}/>` }),
  musicXml: () => ({
    from: '<pedal type="start" line="yes" sign="no"/>',
    until: '<pedal type="stop" line="yes" sign="no"/>',
    placement: 'below'
  }),
  clashes: (m, other) => cmp(m.start, other.end!) < 0 && cmp(other.start, m.end!) < 0,
  againstPrinted: neverAgainstPrint,
  sound: () => ({ sustains: true })
};

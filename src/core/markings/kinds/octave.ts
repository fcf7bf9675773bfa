import { cmp } from '../../score/fraction.ts';
import type { MarkingDescription } from '../description.ts';
import { neverAgainstPrint, withName, wordsXml } from '../usual.ts';

export const octave: MarkingDescription = {
  name: 'octave',
  says: 'A stretch that is played an octave higher or lower than it is printed.',
  hangs: 'stretch',
  values: ['8va', '8vb'],
  inWords: withName('octave'),
  legend: { sign: '8va 8vb with a line', meaning: 'editorial: an octave higher, lower than printed' },
  mei(m, { common, stamp, until }) {
    const side = m.value === '8va' ? 'above' : 'below';
    return { beside: `<octave ${common} dis="8" dis.place="${side}" ${stamp} ${until}/>` };
  },
  // An octave sign of MusicXML would say that the printed notes sound as they are written: words with a line say what is meant.
  musicXml: (m) => ({
    from: `${wordsXml(m.value)}</direction-type><direction-type><dashes type="start"/>`,
    until: '<dashes type="stop"/>',
    placement: m.value === '8va' ? 'above' : 'below'
  }),
  clashes: (m, other) => cmp(m.start, other.end!) < 0 && cmp(other.start, m.end!) < 0,
  againstPrinted: neverAgainstPrint,
  sound: (value) => ({ octave: value === '8va' ? 1 : -1 })
};

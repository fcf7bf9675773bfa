import { cmp } from '../../score/fraction.ts';
import { metronomeTempo, metronomeXml, parseMetronome, printMetronome, readMetronome } from '../../score/metronome.ts';
import type { MarkingDescription } from '../description.ts';
import { atOnePlace, withName, wordsXml } from '../usual.ts';
import { meiTempo } from './tempo.ts';

export const metronome: MarkingDescription = {
  name: 'metronome mark',
  says: 'The tempo in numbers from here on.',
  hangs: 'moment',
  values: {
    hint: 'quarter = 96',
    most: 80,
    fault: (value) =>
      parseMetronome(value) ? null : 'A metronome mark is a number of quarters a minute, or such as “dotted quarter = 60–66”.'
  },
  inWords: withName('metronome mark'),
  legend: { sign: '[quarter = 96]', meaning: 'editorial metronome mark, in square brackets' },
  // A bare number is printed with the value that it counts.
  mei: (m, place) => {
    const mark = parseMetronome(m.value);
    return meiTempo(mark ? { ...m, value: printMetronome(mark) } : m, place);
  },
  musicXml(m) {
    const mark = parseMetronome(m.value);
    if (!mark) return { direction: wordsXml(m.value), placement: 'above' };
    const rate = mark.low === mark.high ? `${mark.low}` : `${mark.low}–${mark.high}`;
    return { direction: metronomeXml(mark, rate), placement: 'above' };
  },
  clashes: atOnePlace,
  againstPrinted(score, { value, start }) {
    const own = parseMetronome(value);
    for (const d of score.directions) {
      if (d.kind !== 'metronome' || cmp(d.start, start) !== 0) continue;
      const printed = readMetronome(d);
      if (printed && (!own || metronomeTempo(own) !== metronomeTempo(printed))) return `${printMetronome(d)} is printed there`;
    }
    return null;
  },
  sound(value) {
    const mark = parseMetronome(value);
    return mark ? { tempo: metronomeTempo(mark) } : {};
  }
};

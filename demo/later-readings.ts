import type { DemoReading } from './readings.ts';

/** The pieces that came to the school later in the autumn: a set for pipes, a swing tune, a study for four mallets. */
export const LATER_READINGS: DemoReading[] = [
  {
    file: 'ferry.abc',
    player: 'callan',
    period: 'highland-pipes',
    answers: [['pipe-movements', 'tight', '2026-11-02']],
    postponed: [],
    kept: [],
    aside: [],
    own: [
      {
        kind: 'text',
        value: 'round, not hurried',
        bar: '1',
        beat: 1,
        because: 'A march is walked to: the dotted notes lift the foot, the beat puts it down.',
        remark: 'March round the room once before you play.'
      },
      {
        kind: 'text',
        value: 'straight on',
        bar: '17',
        beat: 1,
        because: 'The set goes on without a stop: the last low A of the march is the upbeat of the jig.',
        remark: 'Keep the bag pressed over the join.'
      }
    ],
    briefs: [
      {
        from: '13',
        to: '13',
        text: 'The print leaves the low G out of the throw on D here, and has it in bar 3. Play it as in bar 3.'
      }
    ],
    peak: '25',
    accepted: [],
    lies: []
  },
  {
    file: 'last-boat.abc',
    player: 'suri',
    period: 'swing',
    answers: [['swing', 'by-tempo', '2026-11-09']],
    postponed: [],
    kept: [],
    aside: [],
    own: [
      {
        kind: 'inflection',
        value: 'bend',
        bar: '2',
        beat: 3,
        because: 'The D wants to be the C sharp below it: lean into it and come back.'
      },
      { kind: 'inflection', value: 'ghost', bar: '3', beat: 2.5, because: 'The A is passed by: it is felt rather than heard.' },
      { kind: 'inflection', value: 'fall', bar: '8', beat: 1, because: 'The strain is over; the note lets itself drop before the rest.' },
      { kind: 'inflection', value: 'smear', bar: '17', beat: 1, because: 'The bridge comes in from below, out of the dark.' },
      {
        kind: 'inflection',
        value: 'doit',
        bar: '23',
        beat: 3,
        because: 'The highest note before the theme comes home goes up and is gone.'
      },
      { kind: 'accent', value: 'strong-accent', bar: '17', beat: 3, because: 'Short and strong, against the held D sharp before it.' },
      {
        kind: 'inflection',
        value: 'long-fall',
        bar: '32',
        beat: 1,
        because: 'The boat leaves: all the way down, as long as the air lasts.',
        remark: 'Fingers first, then the air.'
      }
    ],
    briefs: [
      {
        from: '17',
        to: '24',
        text: 'The bridge climbs and asks, two bars each. First in even eighths without the falls and bends, then swung, then all of it. Breathe where the rests are and nowhere else.'
      }
    ],
    peak: '23',
    accepted: [],
    lies: [['breath', '1', '32']]
  },
  {
    file: 'rope-and-tar.abc',
    player: 'tomas',
    period: 'modern',
    answers: [['rubato', 'beat-strict', '2026-11-16']],
    postponed: [],
    kept: [],
    aside: [],
    own: [
      {
        kind: 'text',
        value: 'near the middle of the bars',
        bar: '1',
        beat: 1,
        because: 'Four notes at once ring best away from the cords.',
        remark: 'Wrists low. Stop when the forearm tires.'
      }
    ],
    briefs: [
      {
        from: '1',
        to: '4',
        text: 'Inside mallets for the lines, all four for the chords. First the chords alone, the hands already over the next one; then the lines alone with 2 and 3; then both.'
      }
    ],
    peak: '21',
    accepted: [],
    lies: [['sticking', '1', '8']]
  }
];

import type { Ability } from './instruments/instrument.ts';
import type { Fraction } from '../score/fraction.ts';
import type { SourceKey } from './bibliography.ts';

/** One answer to a question on which good musicians differ. */
export interface SchoolOption {
  value: string;
  label: string;
  /** Why one would choose it, in two or three sentences. */
  reason: string;
  sources: readonly SourceKey[];
}

/** A question of school. Handbook, section 4. */
export interface School {
  key: string;
  question: string;
  /** Asked of players of whose instrument one of these holds; of all when absent. */
  needs?: readonly Ability[];
  options: readonly SchoolOption[];
}

const option = (value: string, label: string, reason: string, ...sources: SourceKey[]): SchoolOption => ({
  value,
  label,
  reason,
  sources: sources.length ? sources : ['common']
});

export const SCHOOLS = [
  {
    key: 'text',
    question: 'How binding is the printed page?',
    options: [
      option(
        'as-printed',
        'the page first',
        'Nothing printed is changed without a reason that is written down. The page is what can be checked; everything else is opinion, and says so.'
      ),
      option(
        'free',
        'the page as a ground',
        'The page of its time was a sketch for players who knew the rest. What the custom added may be added again, as long as it is marked.',
        'quantz',
        'cpebach'
      )
    ]
  },
  {
    key: 'tempo',
    question: 'Which tempo governs?',
    options: [
      option(
        'printed',
        'the printed one',
        'The mark or the words at the head are the first thing that the composer or editor says. Depart from it only when the notes cannot be played clearly.'
      ),
      option(
        'clarity',
        'as fast as it still speaks',
        'The shortest detached note sets the ceiling: beyond it neither its sound nor the gap is heard. It is computed from the notes and the shares of their values.'
      ),
      option(
        'brilliant',
        'as brilliant as it goes',
        'In a show piece the speed itself is part of the effect. The detail must survive, but the listener need not count it.'
      )
    ]
  },
  {
    key: 'rubato',
    question: 'How may time bend?',
    options: [
      option(
        'beat-strict',
        'strict inside the beat',
        'Inside a beat the written ratios hold; time is added only where phrases part, at cadences and breaths. The dance and the accompaniment stay sure.',
        'quantz',
        'lmozart'
      ),
      option(
        'stolen',
        'stolen and given back',
        'What is taken within a bar is returned within it, while the accompaniment keeps time. The bar lasts what it lasts.',
        'cpebach',
        'turk'
      ),
      option(
        'arch',
        'by the arch of the phrase',
        'Phrases press toward their goal and relax at their ends, level within level. Measured performances show it again and again.',
        'todd',
        'friberg'
      )
    ]
  },
  {
    key: 'repeats',
    question: 'What happens the second time?',
    options: [
      option(
        'ornament',
        'it is ornamented',
        'A repeat that says the same in the same words wastes the listener’s time. Decoration within the harmony, little and never twice alike.',
        'cpebach',
        'quantz'
      ),
      option(
        'echo',
        'it is an echo',
        'The softer repetition was the commonest change of all and needs no added note. It also shows what stays the same.',
        'quantz'
      ),
      option(
        'vary-dynamics',
        'it is shaded otherwise',
        'The notes stay, the shape changes: another peak, another level. It keeps the text and still goes on.'
      ),
      option(
        'same',
        'it is the same',
        'The repeat confirms. Where the form is large or the page is full of signs, sameness is what lets the listener hear the form.'
      ),
      option(
        'omit',
        'it is left out',
        'In an audition or a lesson the second time is often not asked for. Then the ending must be planned for the first time.'
      )
    ]
  },
  {
    key: 'third-time',
    question: 'The same thing three times: what of the third?',
    options: [
      option(
        'different',
        'two questions and an answer',
        'Twice alike makes an expectation; the third time must meet it or break it. A change in level or length tells that it leads on.'
      ),
      option('growing', 'each one more', 'Three steps of one stair: each a little louder, or broader, toward what follows.', 'czerny'),
      option('same', 'all alike', 'Insistence can be the point. Then it must be exact, or it sounds like carelessness.')
    ]
  },
  {
    key: 'return',
    question: 'How does the theme come back?',
    options: [
      option(
        'proclaim',
        'it is proclaimed',
        'The return is an arrival: prepared, taken in full tempo and at its level, so that the form is heard.',
        'caplin'
      ),
      option(
        'steal-in',
        'it steals in',
        'The theme is there before one notices. A soft beginning, without a break before it, makes the return a memory.',
        'czerny'
      )
    ]
  },
  {
    key: 'trill-start',
    question: 'On which note does a trill begin?',
    options: [
      option(
        'upper',
        'on the upper note',
        'The trill of the 18th century is a chain of appoggiaturas: its upper note is the dissonance and stands on the beat.',
        'cpebach',
        'quantz'
      ),
      option(
        'main',
        'on the main note',
        'From the 1820s on tutors begin the trill on the written note, so that the melody note is heard first.',
        'hummel',
        'spohr'
      )
    ]
  },
  {
    key: 'appoggiatura',
    question: 'How long is a small note?',
    options: [
      option(
        'long',
        'half of its note, or two thirds',
        'The long appoggiatura takes half of a plain note and two thirds of a dotted one. It is the expressive note; its resolution is softer.',
        'quantz',
        'cpebach',
        'lmozart'
      ),
      option(
        'short',
        'as short as it speaks',
        'With a stroke, before quick notes, and in later music, the small note is crushed in and takes almost no time.',
        'hummel'
      )
    ]
  },
  {
    key: 'touch',
    question: 'How long are notes without any sign?',
    options: [
      option(
        'half',
        'half their value',
        'Notes that are neither detached nor slurred nor held sound for half of their value: the ordinary touch of the mid-18th-century keyboard.',
        'cpebach'
      ),
      option(
        'detached',
        'a little less than full',
        'Somewhat shorter than written, about three quarters in quick notes, so that each one is clear.',
        'turk'
      ),
      option('full', 'full', 'Legato is the rule and detaching the exception: notes end on the next beat.', 'clementi')
    ]
  },
  {
    key: 'staccato',
    question: 'What does a dot ask?',
    options: [
      option(
        'separated',
        'separation',
        'The dot parts a note from its neighbours; how short it is follows from tempo and room. A quarter with a dot is not an eighth.'
      ),
      option(
        'half',
        'exactly half',
        'Half of the value sounds and half is silent: a sixteenth sounds as a 32nd. It can be counted, practised and checked.',
        'czerny'
      ),
      option('dense-short', 'short and dense', 'Short, with a full core and a stopped end. In ensembles it makes many players one.')
    ]
  },
  {
    key: 'slur-pairs',
    question: 'How are slurred pairs played?',
    options: [
      option(
        'lift-second',
        'the second lighter and shorter',
        'The first of two slurred notes leans, the second is lighter and leaves early: the sigh.',
        'lmozart',
        'turk'
      ),
      option('even', 'even', 'The slur only joins; weight comes from the phrase. In long lines lifted pairs would cut it up.')
    ]
  },
  {
    key: 'short-notes',
    question: 'Sixteenths beside longer notes',
    options: [
      option('even', 'even', 'They keep exactly their value and their weight; the rhythm does the rest.'),
      option('light', 'light', 'Connecting notes are lighter than what they connect, without being late or early.'),
      option('kicked', 'kicked', 'The short note is thrown toward the long one that follows. It gives spring; too much of it limps.')
    ]
  },
  {
    key: 'dotting',
    question: 'Are dots sharpened?',
    options: [
      option(
        'literal',
        'as written, three to one',
        'The written ratio is exact and must not soften to two to one. The page says what it means.'
      ),
      option('sharpened', 'sharpened', 'In slow and stately pieces the short note is later and shorter than written.', 'quantz', 'lmozart')
    ]
  },
  {
    key: 'inegales',
    question: 'Are equal notes played unequal?',
    options: [
      option('none', 'no', 'Outside the French manner, in leaps, repeated notes and quick passages, equal notes are equal.'),
      option(
        'mild',
        'mildly, three to two',
        'The first of two stepwise notes is a little longer. It is felt rather than counted.',
        'quantz'
      ),
      option('full', 'fully, two to one', 'Long and short, as in a triplet. For French movements in steps at a moderate pace.', 'quantz')
    ]
  },
  {
    key: 'sforzando',
    question: 'How strong is a sforzando?',
    options: [
      option(
        'in-context',
        'a step above what is in force',
        'An accent is a difference: in a soft scherzo a sting within piano, in a heroic forte large.',
        'czerny'
      ),
      option('absolute', 'always strong', 'The sign names a force of its own, whatever stands around it.')
    ]
  },
  {
    key: 'chord-break',
    question: 'How are three and four strings sounded?',
    needs: ['bows', 'plucks'],
    options: [
      option('from-below', 'from below', 'Bass first, on or just before the beat, then up to the melody note that stays.', 'quantz'),
      option('two-and-two', 'two and two', 'Lower pair, upper pair: clear and quick, the melody note in the second.'),
      option('together', 'together', 'Three strings at once near the fingerboard, where the effect is of one stroke.')
    ]
  },
  {
    key: 'chord-release',
    question: 'Which note of a chord goes on?',
    needs: ['bows', 'plucks', 'keys'],
    options: [
      option('top', 'the top note', 'The ear follows the upper voice; what lies below is a beginning.'),
      option('moving-voice', 'the voice that moves on', 'The note that the next one answers is held, wherever it lies.'),
      option(
        'hold',
        'all of them',
        'As long as hand or bow can hold it, every note keeps its written length. What is written is what is heard.'
      )
    ]
  },
  {
    key: 'bowing',
    question: 'How are bows directed?',
    needs: ['bows'],
    options: [
      option(
        'rule-of-downbow',
        'downbeats down',
        'Strong beats and chords down, upbeats up; what does not work out is hooked or retaken.',
        'muffat',
        'lmozart'
      ),
      option('gesture', 'by gesture', 'Up leads to more, down to less. The direction follows what the phrase does.'),
      option(
        'as-printed',
        'as printed',
        'The bowing on the page belongs to the text, like its slurs. It is changed only with a reason that is written down.'
      )
    ]
  },
  {
    key: 'suspect-notes',
    question: 'What is done with a note that seems wrong?',
    options: [
      option(
        'keep-and-footnote',
        'kept, with a footnote',
        'The note stays; the reader is told what a parallel place has. Nobody is corrected who was right.'
      ),
      option(
        'emend-and-footnote',
        'corrected, with a footnote',
        'The player gets a note that can be played without doubt, and the reader is told what stood there.'
      )
    ]
  },
  {
    key: 'plan',
    question: 'How fixed is the plan?',
    options: [
      option('fixed', 'one value', 'What is decided can be practised and checked. Freedom comes from being sure.'),
      option(
        'fresh',
        'a range',
        'A range is given instead of one value, so that the evening may choose. It must be a range that the rest of the plan allows.'
      )
    ]
  },
  {
    key: 'joins',
    question: 'What happens where sections join?',
    options: [
      option('flow-on', 'they flow on', 'The end of one is the upbeat of the next; the pulse goes through.'),
      option('break', 'they are parted', 'A section closes before another opens: a little time, a breath, a new level.')
    ]
  },
  {
    key: 'pipe-movements',
    question: 'How are the pipers’ movements played?',
    options: [
      option('open', 'open', 'Every grace note is heard in its place; the low G of the throw is there.'),
      option('tight', 'tight', 'The movement is one quick gesture; its notes are felt rather than heard. None may be lost.')
    ]
  },
  {
    key: 'pipe-placing',
    question: 'Where do the pipers’ movements stand?',
    options: [
      option('before-beat', 'before the beat', 'The melody note is on the beat, the grace notes come before it.'),
      option('on-beat', 'on the beat', 'The movement begins on the beat and gives it its edge; the melody note comes a moment later.')
    ]
  },
  {
    key: 'swing',
    question: 'How long is the long eighth?',
    options: [
      option('two-to-one', 'two to one', 'As in a triplet, whatever the tempo. The plainest answer, and the one to learn with.'),
      option(
        'by-tempo',
        'by tempo',
        'The short note settles near a tenth of a second, so the ratio falls as the tempo rises.',
        'fribergSundstrom'
      ),
      option('straight', 'straight', 'Even eighths: for ballads of a later kind, for latin tunes, and for very fast ones.')
    ]
  }
] as const satisfies readonly School[];

export type SchoolKey = (typeof SCHOOLS)[number]['key'];
export type SchoolAnswers = Partial<Record<SchoolKey, string>>;

/** Questions whose answers change how a part lies under hands and bows. */
export const TECHNIQUE_SCHOOLS: readonly SchoolKey[] = ['bowing', 'chord-break', 'chord-release', 'pipe-movements'];

/** An answer to a question of school that holds for some bars only: half-open range in quarters. */
export interface LocalAnswer {
  key: SchoolKey;
  option: string;
  from: Fraction;
  to: Fraction;
  /** Day on which it was given, as YYYY-MM-DD. */
  on: string;
}

export const schoolByKey = (key: string): School | undefined => SCHOOLS.find((s) => s.key === key);

/** True when a question of school has this answer. */
export const isAnswer = (key: string, value: string): boolean => schoolByKey(key)?.options.some((o) => o.value === value) ?? false;

/** Usual cautions for the player's health; handbook 11, common practice. Not medical advice: the teacher at hand decides. */
export const CAUTIONS = {
  always:
    'Pain, numbness or lasting fatigue: stop, and see a clinician who treats musicians. Rest at least five minutes in each half hour. The teacher in the room decides.',
  loudAndHigh: 'Loud and high playing in short portions, with rest between; save for the end.',
  stretch: 'No forced stretches: small hands redistribute the notes or leave some out.',
  endurance: 'Long without a rest: build it up in sections before playing it through.',
  hearing: 'Protect the hearing near loud passages.'
} as const;

/** Seconds without a rest from which endurance is mentioned; from memory, adjustable. */
export const LONG_WITHOUT_REST_S = 90;
/** Semitones under one hand from which a stretch is mentioned: more than a ninth. Handbook 9.4. */
export const WIDE_STRETCH = 15;

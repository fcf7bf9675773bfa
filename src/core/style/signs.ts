/** What printed signs ask of the player, in a few words. Common practice unless a source is named. */
export const ORNAMENT_ASKS: Record<string, string> = {
  'trill-mark':
    'main note and the one above in alternation; from above in the 18th century (C. P. E. Bach 1753, II.3), from the main note later (Hummel 1828; Spohr 1832)',
  turn: 'upper, main, lower, main; signs above or below alter its upper or lower note',
  'delayed-turn': 'the turn comes late, between this note and the next',
  'inverted-turn': 'lower, main, upper, main',
  'delayed-inverted-turn': 'the inverted turn comes late, between this note and the next',
  'vertical-turn': 'a turn, printed upright',
  mordent: 'main, lower, main, quickly',
  'inverted-mordent': 'main, upper, main: a short trill of one flick',
  shake: 'a short trill',
  schleifer: 'a slide of two notes up into the main one',
  tremolo: 'the note, or two notes in turn, repeated; by the number of strokes measured or as fast as possible',
  'wavy-line': 'the trill lasts to the end of the line',
  haydn: 'a turn or a mordent, as the context asks'
};

export const ARTICULATION_ASKS: Record<string, string> = {
  staccato: 'separated; about half of the written value (Czerny op. 500, from memory)',
  staccatissimo: 'very short; about a quarter of the written value (Czerny op. 500, from memory)',
  spiccato: 'lifted, very short',
  tenuto: 'held for its full value, with weight',
  'detached-legato': 'slurred staccato: about three quarters of the written value (Czerny op. 500, from memory)',
  accent: 'a step louder than its neighbours, then less',
  'strong-accent': 'a strong accent, often separated',
  'breath-mark': 'breathe, or part the phrase',
  caesura: 'all sound stops; time may pass',
  scoop: 'slide up into the note',
  plop: 'fall down into the note',
  doit: 'slide up at the end of the note',
  falloff: 'fall off at the end of the note',
  stress: 'give weight',
  unstress: 'give no weight',
  'soft-accent': 'swell and fade within the note'
};

export const TECHNIQUE_ASKS: Record<string, string> = {
  'up-bow': 'bow moves up',
  'down-bow': 'bow moves down',
  harmonic: 'harmonic',
  'open-string': 'open string',
  'thumb-position': 'thumb on the string',
  fingering: 'finger',
  pluck: 'finger of the plucking hand',
  'double-tongue': 'double tonguing',
  'triple-tongue': 'triple tonguing',
  stopped: 'stopped (horn), or plucked by the left hand (strings)',
  'snap-pizzicato': 'the string snaps against the fingerboard',
  fret: 'fret',
  string: 'on this string',
  'hammer-on': 'sounded by the fretting finger',
  'pull-off': 'sounded by pulling the finger off',
  bend: 'pitch bent',
  tap: 'tapped',
  heel: 'heel on the pedal',
  toe: 'toe on the pedal',
  'brass-bend': 'pitch bent with the lips',
  flip: 'flip',
  smear: 'smear',
  open: 'open',
  'half-muted': 'half muted'
};

/** Dynamic signs from soft to loud, one step apart. */
export const DYNAMIC_STEPS = ['pppp', 'ppp', 'pp', 'p', 'mp', 'mf', 'f', 'ff', 'fff', 'ffff'] as const;

/** Loudness of one step in decibels; from memory, adjustable. Handbook 5.1. */
export const STEP_DB = 5;

/** MIDI velocities: MusicXML's `sound dynamics` is a percentage of 90, f is 100 % and mf 71 %. MusicXML 4.0; handbook 5.2. */
export const VELOCITY = { f: 90, mf: 64 };

/** Signs that act on one note: which step stays in force after it. */
const AFTER: Record<string, string | null> = {
  fp: 'p',
  sfp: 'p',
  sf: null,
  sfz: null,
  fz: null,
  rf: null,
  rfz: null,
  sffz: null,
  sfpp: 'pp',
  pf: 'f'
};

/** True for signs that force one note: sf, sfz, fp … */
export const isForced = (sign: string): boolean => sign in AFTER && sign !== 'pf';

/** Step of a sign, 0 = pppp … 9 = ffff; null for accents such as sf, which change nothing that stays in force. */
export function dynamicStep(sign: string): number | null {
  const plain = sign in AFTER ? AFTER[sign] : sign;
  if (plain === null) return null;
  const step = (DYNAMIC_STEPS as readonly string[]).indexOf(plain);
  if (step >= 0) return step;
  // "ppppp" and beyond are held at the end of the scale.
  return /^p+$/.test(plain) ? 0 : /^f+$/.test(plain) ? DYNAMIC_STEPS.length - 1 : null;
}

export const dynamicAt = (step: number): string => DYNAMIC_STEPS[Math.max(0, Math.min(DYNAMIC_STEPS.length - 1, Math.round(step)))];

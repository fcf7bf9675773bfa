/** What words do to the tempo. Common practice; German and French ones beside the Italian. */
export type TimeWord =
  | { kind: 'slow' | 'fast'; size: 'little' | 'plain' | 'much' }
  /** Another tempo that holds from here on: slower (−1) or faster (1). */
  | { kind: 'new'; way: 1 | -1; size: 'little' | 'plain' | 'much' }
  | { kind: 'at once' | 'restore' | 'wait' };

const SLOW = /\b(rit|ritard\w*|rall\w*|allarg\w*|slarg\w*|slentando|retard\w*|ralent\w*|cédez|zögernd|langsamer|slowing|settle)\b/i;
const DYING = /\b(morendo|smorz\w*|perdend\w*|mancando|estinto)\b/i;
const CALANDO = /\bcalando\b/i;
const FAST = /\b(accel\w*|stringendo|string\.|affrett\w*|pressez|eilend|beschleunigen|schneller werden|hurrying)/i;
const AT_ONCE = /\b(riten\w*|retenu)\b/i;
const SLOWER = /(meno (mosso|vivo|allegro)|più (lento|largo|tranquillo)|plus lent|ruhiger)/i;
const FASTER = /(più (mosso|vivo|allegro|animato|presto)|plus (vite|animé|vif)|bewegter)/i;
const RESTORE = /\b(a tempo|in tempo|tempo primo|tempo 1|tempo i|au mouvement|im tempo|in time)\b/i;
const WAIT = /\bwait\b/i;

/** The last time only: "settle, last time only". */
export const LAST_TIME = /last time/i;

/**
 * What a printed or editorial word does to the tempo; null when nothing.
 * @param calando whether calando acts on time, too (in Mozart's time on loudness only [C], handbook 7.5)
 */
export function timeWord(text: string, calando = true): TimeWord | null {
  if (RESTORE.test(text)) return { kind: 'restore' };
  if (AT_ONCE.test(text)) return { kind: 'at once' };
  const size =
    /\b(poco|un peu|etwas|slightly)\b/i.test(text) && !/poco a poco/i.test(text)
      ? 'little'
      : /\b(molto|sehr|much)\b/i.test(text)
        ? 'much'
        : 'plain';
  if (SLOWER.test(text)) return { kind: 'new', way: -1, size };
  if (FASTER.test(text)) return { kind: 'new', way: 1, size };
  if (SLOW.test(text)) return { kind: 'slow', size: /settle/i.test(text) ? 'little' : size };
  if (DYING.test(text) || (calando && CALANDO.test(text))) return { kind: 'slow', size: 'little' };
  if (FAST.test(text)) return { kind: 'fast', size };
  if (WAIT.test(text)) return { kind: 'wait' };
  return null;
}

/** Words of character by mode and pace; common practice, from memory. Pace is notes a second. */
const SLOW = 1.6;
const QUICK = 4;

/** A word for a stretch of music, with what speaks for it. */
export function characterOf(minor: boolean, pace: number, meanHeight: number, usualHeight: number): { word: string; because: string } {
  const speed = pace < SLOW ? 'few notes a second' : pace > QUICK ? 'many notes a second' : 'a middle pace';
  const height = meanHeight - usualHeight > 2 ? ', high' : meanHeight - usualHeight < -2 ? ', low' : '';
  const because = `${speed}${height}`;
  if (minor) return { word: pace > QUICK ? 'agitato' : pace < SLOW ? 'mesto' : height === ', low' ? 'serioso' : 'con dolore', because };
  return { word: pace > QUICK ? 'brillante' : pace < SLOW ? 'tranquillo' : height === ', high' ? 'leggiero' : 'cantabile', because };
}

/** A two-staff score of so many bars, 24 notes a bar, with a harmonic plan that moves. */
export function longScore(bars: number): string {
  const roots = [0, 5, 7, 0, 9, 2, 7, 0];
  const note = (midi: number, duration: number, staff: number, voice: number) => {
    const pc = ((midi % 12) + 12) % 12;
    const [step, alter] = [
      ['C', 0],
      ['C', 1],
      ['D', 0],
      ['E', -1],
      ['E', 0],
      ['F', 0],
      ['F', 1],
      ['G', 0],
      ['A', -1],
      ['A', 0],
      ['B', -1],
      ['B', 0]
    ][pc];
    return `        <note default-x="10">\n          <pitch><step>${step}</step>${alter ? `<alter>${alter}</alter>` : ''}<octave>${Math.floor(midi / 12) - 1}</octave></pitch>\n          <duration>${duration}</duration>\n          <voice>${voice}</voice>\n          <type>16th</type>\n          <staff>${staff}</staff>\n        </note>\n`;
  };
  const measures = Array.from({ length: bars }, (_, k) => {
    const root = roots[k % roots.length];
    const third = [2, 9].includes(root) ? 3 : 4;
    const tones = [0, third, 7, 12];
    const right = Array.from({ length: 16 }, (_, n) => note(60 + root + tones[(n + (n >> 2)) % 4], 1, 1, 1)).join('');
    const left = Array.from({ length: 8 }, (_, n) => note(36 + root + tones[[0, 2, 1, 2][n % 4]], 2, 2, 5)).join('');
    const head =
      k === 0
        ? '<attributes><divisions>4</divisions><key><fifths>0</fifths></key><time><beats>4</beats><beat-type>4</beat-type></time><staves>2</staves><clef number="1"><sign>G</sign><line>2</line></clef><clef number="2"><sign>F</sign><line>4</line></clef></attributes>'
        : '';
    return `      <measure number="${k + 1}">${head}\n${right}<backup><duration>16</duration></backup>\n${left}      </measure>`;
  });
  return `<?xml version="1.0" encoding="UTF-8"?>\n<score-partwise version="3.1">\n<work><work-title>Long score of ${bars} bars</work-title></work><part-list><score-part id="P1"><part-name>Piano</part-name></score-part></part-list>\n<part id="P1">\n${measures.join('\n')}\n</part>\n</score-partwise>\n`;
}

/** Printed signs that are put on a note with one click, by what they do; names as the typed tune has them. */
export const SIGNS: { group: string; signs: [string, string][] }[] = [
  {
    group: 'Touch',
    signs: [
      ['staccato', 'staccato'],
      ['tenuto', 'tenuto'],
      ['accent', 'accent'],
      ['marcato', 'marcato'],
      ['wedge', 'wedge'],
      ['fermata', 'fermata']
    ]
  },
  {
    group: 'Ornament',
    signs: [
      ['trill', 'trill'],
      ['turn', 'turn'],
      ['uppermordent', 'short trill'],
      ['mordent', 'mordent'],
      ['arpeggio', 'arpeggio']
    ]
  },
  { group: 'Level', signs: ['pp', 'p', 'mp', 'mf', 'f', 'ff', 'sf', 'fp'].map((d): [string, string] => [d, d]) },
  {
    group: 'Bow, breath',
    signs: [
      ['upbow', 'up bow'],
      ['downbow', 'down bow'],
      ['breath', 'breath']
    ]
  },
  {
    group: 'Way through',
    signs: [
      ['segno', 'segno'],
      ['coda', 'coda'],
      ['fine', 'Fine'],
      ['D.C.', 'D.C.'],
      ['D.S.', 'D.S.']
    ]
  }
];

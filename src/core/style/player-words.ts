/** Words to the player that rules write and the performance understands. */
export const PLAYER_WORDS = {
  trillFrom: { upper: 'from above', main: 'from the main note' },
  flick: 'one flick',
  ending: 'with an ending',
  lateTurn: 'turn late',
  shortSmallNotes: 'small notes short',
  fillTheThird: '2nd time: fill the third'
} as const;

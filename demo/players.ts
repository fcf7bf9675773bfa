import { newPlayer, type Player } from '../src/core/players/player.ts';

/** The students who play before the jury. */
export const DEMO_PLAYERS: Player[] = [
  { ...newPlayer('Nora Velde'), key: 'nora', instrument: 'clarinet', breath: 12, fingerings: [{ pitch: 'F#4', fingering: 'T sF#' }] },
  { ...newPlayer('Ivo Hallas'), key: 'ivo', instrument: 'piano', reach: 13 },
  { ...newPlayer('Lene Marsk'), key: 'lene', instrument: 'violin', lowest: 'G3', highest: 'D6' },
  { ...newPlayer('Callan Roe'), key: 'callan', instrument: 'pipes' },
  { ...newPlayer('Suri Pell'), key: 'suri', instrument: 'alto-sax', breath: 10 },
  { ...newPlayer('Tomas Kray'), key: 'tomas', instrument: 'marimba' }
];

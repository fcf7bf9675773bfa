/** Prints how many times the size of a long score the process grows at most while it is read. For the bench. */
import { readMusicXml } from '../src/core/score/musicxml/read.ts';
import { longScore } from './long-score.ts';

readMusicXml(longScore(10));
const text = longScore(1000);
const before = process.resourceUsage().maxRSS;
readMusicXml(text);
console.log((((process.resourceUsage().maxRSS - before) * 1024) / text.length).toFixed(2));

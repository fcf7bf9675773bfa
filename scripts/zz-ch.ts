import { abc } from '../tests/unit/helpers.ts';
import { analyse } from '../src/core/analysis/analyse.ts';
import { positionAt } from '../src/core/score/position.ts';
const s=abc(process.argv[2]); const f=analyse(s);
console.log(f.keys.map(k=>k.name), f.chords.map(c=>positionAt(s,c.start).number+':'+positionAt(s,c.start).beat+' '+c.roman+' '+c.root+c.quality+' '+c.evidence).join('\n'));

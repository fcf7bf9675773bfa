import { AGREED, KINDS, scoreAll, f1, recall } from '../tests/unit/analysis/agreed.ts';
import { BOUNDARY, CADENCE } from '../src/core/style/form-weights.ts';
for (const a of AGREED) { const s = a.score(); a.score = () => s; }
const B = BOUNDARY as any;
for (const [price,length,local] of [[1.35,.75,1.6],[1.5,.9,1.6],[1.6,1.0,1.6],[1.5,1.1,1.4],[1.7,1.1,1.6],[1.5,1.3,1.6],[1.35,1.3,1.6]]) { B.price=price; B.length=length; B.localChange=local; const t=scoreAll(); console.log(price,length,local, KINDS.map(k=>`${k} ${(k==='cadences'||k==='phraseEnds'||k==='sections'?f1:recall)(t[k]).toFixed(3)}`).join(' '), t.phraseEnds); }

import { AGREED, KINDS, scorePiece, f1, recall, scoreAll } from '../tests/unit/analysis/agreed.ts';
if (process.argv[2]) for (const a of AGREED) { const r = scorePiece(a); console.log(a.name.slice(0,40).padEnd(40), KINDS.map(k=>r[k]?`${k} ${r[k]!.right}/${r[k]!.wanted}${k==='keys'||k==='chords'||k==='parallels'?'':'('+r[k]!.claimed+')'}`:'').filter(Boolean).join('  ')); }
const t = scoreAll(); console.log(KINDS.map(k=>`${k} ${(k==='keys'||k==='chords'||k==='parallels'||k==='sequences'?recall:f1)(t[k]).toFixed(3)}`).join('  '));

import { AGREED, KINDS, scoreAll, f1, recall } from '../tests/unit/analysis/agreed.ts';
import { HARMONY } from '../src/core/style/harmony-weights.ts';
import { BOUNDARY, CADENCE } from '../src/core/style/form-weights.ts';
for (const a of AGREED) { const s = a.score(); a.score = () => s; }
const value = () => { const t = scoreAll(); return 2*recall(t.keys)+2*recall(t.chords)+2*f1(t.cadences)+2*f1(t.phraseEnds); };
type P = { o: any; k: string; n: string };
const ps: P[] = [];
for (const k of ['profile','keyChange','keyDistance','tonicPerBeat','noSeventh','changeInLine','rootSoundsInLine','rootSounds','tonicFirst','homeEnd','signature','noChromaticNote','bassRegion']) ps.push({o:HARMONY,k,n:k});
for (const k of Object.keys(HARMONY.change)) ps.push({o:HARMONY.change,k,n:'change.'+k});
for (const k of ['localChange','rest','longNote','cadence','slurEnd','insideSlur','samePlaceInBar','onBar','repetition','price','length','wholeBars']) ps.push({o:BOUNDARY,k,n:'B.'+k});
for (const k of Object.keys(CADENCE)) if (k!=='arrival') ps.push({o:CADENCE,k,n:'C.'+k});
let best = value(); console.log('start', best.toFixed(4));
for (let round=0; round<2; round++) for (const p of ps) {
  const v = p.o[p.k]; let bv = v;
  for (const f of [0.75, 1.3]) { p.o[p.k] = v*f; const x = value(); if (x > best + 0.003) { best = x; bv = v*f; } }
  p.o[p.k] = bv; if (bv!==v) console.log(p.n, v, '->', bv, best.toFixed(4));
}
console.log('end', best); console.log(KINDS.map(k=>`${k} ${(k==='cadences'||k==='phraseEnds'?f1:recall)(scoreAll()[k]).toFixed(3)}`).join(' '));

import { AGREED } from '../tests/unit/analysis/agreed.ts';
import { openAnalysis, factsOf } from '../src/core/analysis/analyse.ts';
import { findSuspects } from '../src/core/analysis/suspects.ts';
import type { Score } from '../src/core/score/model.ts';
let planted=0, hit=0, bars=0, alarms=0, extra=0;
const sus=(s:Score)=>{const a=openAnalysis(s); const f=factsOf(a); return {f, x:findSuspects(s,a.texture,f)};};
let seed=7; const rnd=()=>{seed=(seed*1103515245+12345)&0x7fffffff; return seed/0x7fffffff;};
for (const a of AGREED) { const s=a.score(); const {f,x}=sus(s); bars+=s.measures.length; alarms+=x.length; if(x.length) console.log('alarm',a.name,x.map(y=>y.evidence));
 const places=f.parallels.filter(p=>p.semitones%12===0&&p.pairs.length>=10 || p.pairs.length>=20 && p.differences.filter(d=>d.kind==='alteration'||!d.noteA||!d.noteB).length<=0.05*p.pairs.length).slice(0,3);
 for (const p of places) for (let k=0;k<3;k++) { const [na,nb]=p.pairs[Math.floor(rnd()*p.pairs.length)]; const id=rnd()<0.5?na:nb; const d=rnd()<0.5?1:-1;
  const notes=s.notes.map(n=>n.id===id?{...n,pitch:{...n.pitch!,alter:n.pitch!.alter+d},sounding:{...n.sounding!,alter:n.sounding!.alter+d}}:n);
  const r=sus({...s,notes}); planted++; const ok=r.x.some(y=>y.note===id); if(ok) hit++; else { const n=notes.find(q=>q.id===id)!; console.log('miss',a.name,p.transposition,p.pairs.length,'bar',s.measures[n.measure].number,n.pitch,r.x.map(y=>y.evidence)); }
  extra+=r.x.filter(y=>y.note!==id).length-x.length; } }
console.log({planted,hit,bars,alarms,extra});

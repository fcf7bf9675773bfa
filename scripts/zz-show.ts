import { open } from '/work/main/tests/unit/helpers.ts';
import { analyse } from '/work/main/src/core/analysis/analyse.ts';
import { positionAt } from '/work/main/src/core/score/position.ts';
for (const f of process.argv.slice(2)) {
const {score}=open(f); const t=performance.now(); const x=analyse(score); const ms=performance.now()-t;
const p=(t:any)=>{const q=positionAt(score,t); return q.number+(q.beat==='1'?'':':'+q.beat)};
console.log('==',f.split('/').pop(), score.measures.length,'bars',ms.toFixed(0)+'ms');
console.log('keys',x.keys.map(k=>p(k.start)+' '+k.name).join(', '));
console.log('cad',x.cadences.map(k=>p(k.start)+' '+k.type).join(', '));
console.log('phr',x.phrases.map(k=>p(k.start)+'-'+p(k.last)).join(', '));
console.log('sec',x.form,x.sections.map(k=>k.label+' '+p(k.start)+'-'+p(k.last)).join(', '));
console.log('par',x.parallels.map(k=>p(k.a.start)+'-'+p(k.a.last)+'~'+p(k.b.start)+'-'+p(k.b.last)+' '+k.transposition+' '+k.confidence+' d'+k.differences.length).join(' | '));
console.log('seq',x.sequences.map(k=>p(k.start)+'-'+p(k.last)+' '+k.units+'x'+k.unit.n+'/'+k.unit.d+' '+k.step+' '+k.kind+' '+k.line).join(' | '));
if (process.env.CH) console.log('ch',x.chords.map(c=>p(c.start)+' '+c.roman).join(' '));
}

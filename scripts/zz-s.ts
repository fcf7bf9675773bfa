import { abc } from '../tests/unit/helpers.ts';
import { openAnalysis, factsOf } from '../src/core/analysis/analyse.ts';
import { details } from '../src/core/analysis/details.ts';
import { positionAt } from '../src/core/score/position.ts';
const s=abc(process.argv[2]); const a=openAnalysis(s); const f=factsOf(a); const d=details(s,a.texture,f,a.comparison);
const p=(x:any)=>{const q=positionAt(s,x);return q.number+':'+q.beat};
console.log('phr',f.phrases.map(x=>p(x.start)+'-'+p(x.last)+' '+x.evidence).join(' | ')); console.log('sec',f.form,f.sections.map(x=>x.label+' '+p(x.start)).join()); console.log('par',f.parallels.map(x=>p(x.a.start)+'-'+p(x.a.last)+'~'+p(x.b.start)+'-'+p(x.b.last)+' '+x.transposition).join(' | ')); console.log('cad', f.cadences.map(c=>p(c.start)+c.type).join()); console.log(d.groups, d.gestures.map(g=>g.kind+' '+p(g.start)).join(', ')); console.log(f.chords.map(c=>p(c.start)+' '+c.roman).join(' '));

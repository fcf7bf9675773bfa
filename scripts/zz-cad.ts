import { AGREED } from '../tests/unit/analysis/agreed.ts';
import { analyse } from '../src/core/analysis/analyse.ts';
import { cadenceCandidates } from '../src/core/analysis/cadences.ts';
import { textureOf, fromTicks } from '../src/core/analysis/texture.ts';
import { positionAt } from '../src/core/score/position.ts';
for (const a of AGREED.filter(x=>x.cadences && x.name.match(process.argv[2]))) {
 const s=a.score(); const f=analyse(s); const t=textureOf(s);
 console.log('==',a.name, JSON.stringify(a.cadences));
 const p=(x:any)=>{const q=positionAt(s,x);return q.number+':'+q.beat};
 console.log('chords', f.chords.map(c=>p(c.start)+' '+c.roman+(c.cadential?'*':'')).join(' '));
 console.log('cand', cadenceCandidates(s,t,f.chords).map(c=>`${p(fromTicks(t,c.at))} ${c.type} ${c.score.toFixed(2)}`).join(', '));
 console.log('chosen', f.cadences.map(c=>p(c.start)+' '+c.type).join(', '), ' phr', f.phrases.map(x=>p(x.last)).join(' '));
}

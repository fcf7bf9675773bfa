import { readMusicXml } from '../src/core/score/musicxml/read.ts';
import { longScore } from './long-score.ts';
import { openAnalysis, factsOf } from '../src/core/analysis/analyse.ts';
import { details } from '../src/core/analysis/details.ts';
for (const n of [250, 300, 1000]) { const s=readMusicXml(longScore(n)); for (let r=0;r<2;r++){ let t=performance.now(); const a=openAnalysis(s); const t1=performance.now()-t; t=performance.now(); const f=factsOf(a); const t2=performance.now()-t; t=performance.now(); const f2=factsOf(a,[{id:'x',kind:'chord',start:s.measures[100].start,end:s.measures[101].start,roman:'vi'}]); const t3=performance.now()-t; t=performance.now(); const d=details(s,a.texture,f,a.comparison); console.log(n,'open',t1.toFixed(0),'facts',t2.toFixed(0),'pin',t3.toFixed(0),'details',(performance.now()-t).toFixed(0), 'par',f.parallels.length,'seq',f.sequences.length);} }

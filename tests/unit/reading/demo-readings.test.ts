import assert from 'node:assert/strict';
import { test } from 'node:test';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { DEMO_READINGS } from '../../../demo/readings.ts';
import { demoLog } from '../../../demo/studio.ts';
import { studyOf } from '../../../src/core/analysis/study.ts';
import { commentary } from '../../../src/core/edition/text/commentary.ts';
import { proof } from '../../../src/core/proof/proof.ts';
import { replay } from '../../../src/core/reading/log.ts';
import { styleOf } from '../../../src/core/reading/reading.ts';
import { ruleContext } from '../../../src/core/reading/context.ts';
import { dynamicPlan } from '../../../src/core/reading/dynamic-plan.ts';
import { propose } from '../../../src/core/reading/propose.ts';
import { openQuestions, questionsOf } from '../../../src/core/reading/questions.ts';
import { PROFILES } from '../../../src/core/style/profiles.ts';
import { openScore } from '../../../src/core/score/read-file.ts';

for (const demo of DEMO_READINGS)
  test(`${demo.file}: a reading that can be handed out, with answered and open questions and findings left to see`, () => {
    const bytes = readFileSync(join(import.meta.dirname, '../../../demo/scores', demo.file));
    const { score } = openScore(bytes, demo.file);
    const reading = replay(demoLog(demo, bytes));
    const study = studyOf(score);
    const style = styleOf(reading);
    const proposals = propose(study, style);
    const questions = questionsOf(ruleContext(study, style, 0), reading);
    // Where loudness is not the player's, there is less to write.
    const least = PROFILES[reading.period].opening === null ? 3 : 10;
    assert.ok(reading.markings.length >= least, 'a reading, not a sketch');
    for (const m of reading.markings) assert.ok(m.because.length > 0 && m.because.every((b) => b.text.length > 10), m.value);
    // Every rule that the demo names is one that speaks here.
    for (const entry of [...demo.kept, ...demo.aside].map((e) => e.split(': ')[0]))
      assert.ok(
        proposals.some((p) => p.rule === entry),
        entry
      );
    const open = openQuestions(questions);
    assert.ok(open.length > 0 && open.length < questions.length);
    const findings = proof(study, reading, proposals);
    assert.equal(findings.filter((f) => f.severity === 'contradiction').length, 0, findings.map((f) => f.what).join('; '));
    assert.ok(findings.length >= 2 && findings.length <= 10, findings.map((f) => f.what).join('; '));
    const plan = dynamicPlan(score, study.facts, reading);
    assert.equal(score.measures[plan.peak.measure].number, demo.peak);
    const text = commentary({ score, reading, proposals, details: study.details });
    for (const b of demo.briefs) assert.ok(text.some((e) => e.written.some((w) => w.text === b.text)));
  });

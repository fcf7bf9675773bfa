/**
 * The demo studio: the music school of a small harbour town in the week before its autumn jury. All pieces,
 * composers and people are invented; the music was composed for this.
 */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { factsOf, openAnalysis } from '../src/core/analysis/analyse.ts';
import { details } from '../src/core/analysis/details.ts';
import { replay, styleOf, type Command } from '../src/core/reading/commands.ts';
import { propose } from '../src/core/reading/propose.ts';
import { proof } from '../src/core/proof/proof.ts';
import { openScore } from '../src/core/score/open.ts';
import type { Database } from '../src/lib/server/db/client.ts';
import { TASKS } from '../src/lib/server/jobs/tasks.ts';
import { addPiece } from '../src/lib/server/repositories/pieces.ts';
import { append, firstReading } from '../src/lib/server/repositories/readings.ts';
import { DEMO_READINGS, demoCommands, type DemoReading } from './readings.ts';

/** All acts of a demo reading: the style first, then what its proposals are, then the findings that stand. */
export function demoLog(reading: DemoReading, bytes: Uint8Array): Command[] {
  const { score } = openScore(bytes, reading.file);
  const analysis = openAnalysis(score);
  const facts = factsOf(analysis);
  const more = details(score, analysis.texture, facts, analysis.comparison);
  const period: Command = { type: 'set-period', period: reading.period };
  const answers = reading.answers.map(([key, option, on]): Command => ({ type: 'answer-school', key, option, on }));
  const proposals = propose(score, facts, { ...styleOf(replay([period, ...answers])), details: more });
  const log = [period, ...demoCommands(reading, score, proposals)];
  const findings = proof(score, facts, more, replay(log), proposals);
  for (const [kind, because] of reading.accepted) {
    const found = findings.find((f) => f.kind === kind);
    if (found) log.push({ type: 'accept-finding', finding: found.id, because });
  }
  return log;
}

/** Puts the demo pieces on the shelf, each with a reading. */
export async function fillDemoStudio(db: Database): Promise<void> {
  for (const reading of DEMO_READINGS) {
    const bytes = readFileSync(join(import.meta.dirname, 'scores', reading.file));
    const piece = await addPiece(
      db,
      reading.file,
      bytes,
      TASKS.intake({ bytes, fileName: reading.file }, () => {})
    );
    const first = await firstReading(db, piece.id);
    await append(db, first!.id, 0, demoLog(reading, bytes));
  }
}

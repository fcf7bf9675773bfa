/**
 * The demo studio: the music school of a small harbour town in the week before its autumn jury. All pieces,
 * composers and people are invented; the music was composed for this.
 */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { studyOf } from '../src/core/analysis/study.ts';
import { replay, type Act } from '../src/core/reading/log.ts';
import { styleOf } from '../src/core/reading/reading.ts';
import type { Command } from '../src/core/reading/commands/index.ts';
import { propose } from '../src/core/reading/propose.ts';
import { proof } from '../src/core/proof/proof.ts';
import { provedDraft } from '../src/core/proof/proved-draft.ts';
import { wholeScore } from '../src/core/reading/draft/draft.ts';
import { howItLies } from '../src/core/technique/how-it-lies.ts';
import { collate } from '../src/core/collation/collate.ts';
import { readMusicXml } from '../src/core/score/musicxml/read.ts';
import { openScore } from '../src/core/score/read-file.ts';
import type { Database } from '../src/lib/server/db/open.ts';
import { TASKS } from '../src/lib/server/jobs/tasks.ts';
import { hashOf } from '../src/lib/server/hash.ts';
import { addPiece } from '../src/lib/server/repositories/pieces.ts';
import { append, firstReading, logOf } from '../src/lib/server/repositories/readings.ts';
import { addSource } from '../src/lib/server/repositories/sources.ts';
import { keepPlayer } from '../src/lib/server/repositories/players.ts';
import { dayOf } from '../src/core/rehearsal/plan/day.ts';
import { OWNER } from '../src/lib/server/owner.ts';
import { addPractice, DEMO_PRACTICE } from './practice.ts';
import { DEMO_PLAYERS } from './players.ts';
import { DEMO_READINGS, demoCommands, type DemoReading } from './readings.ts';

/** All acts of a demo reading: the style first, then what its proposals are, then the findings that stand. */
export function demoLog(reading: DemoReading, bytes: Uint8Array): Command[] {
  const { score } = openScore(bytes, reading.file);
  const study = studyOf(score);
  const period: Command = { type: 'set-period', period: reading.period };
  const answers = reading.answers.map(([key, option, on]): Command => ({ type: 'answer-school', key, option, on }));
  const proposals = propose(study, styleOf(replay([period, ...answers])));
  const draft = (standing: readonly Command[]) => {
    const before = replay([period, ...standing]);
    return provedDraft(study, before, {
      ...wholeScore(study),
      decided: new Set(Object.keys(before.decisions)),
      standing: before.markings
    });
  };
  const lying = (standing: readonly Command[]) => howItLies(study, replay([period, ...standing])).marks;
  const { key, name } = DEMO_PLAYERS.find((p) => p.key === reading.player)!;
  const log: Command[] = [period, { type: 'set-player', player: { key, name } }, ...demoCommands(reading, score, proposals, draft, lying)];
  const findings = proof(study, replay(log), proposals);
  for (const [kind, because] of reading.accepted) {
    const found = findings.find((f) => f.kind === kind);
    if (found) log.push({ type: 'accept-finding', finding: found.id, because });
  }
  return log;
}

/** The second source of a demo piece, and what was decided where it differs. */
async function addCompared(
  db: Database,
  pieceId: number,
  readingId: number,
  document: string,
  { file, name, choices }: NonNullable<DemoReading['compared']>
): Promise<void> {
  const bytes = readFileSync(join(import.meta.dirname, 'scores', file));
  const intake = TASKS.intake({ bytes, fileName: file }, () => {});
  await addSource(db, pieceId, name, file, bytes, intake);
  const score = readMusicXml(document);
  const { differences } = collate(score, readMusicXml(intake.document));
  const source = hashOf(bytes);
  const acts = choices.map(({ kind, bar, ...choice }): Command => {
    const difference = differences.find((d) => d.kind === kind && score.measures[d.measure].number === bar)!.id;
    return { type: 'choose-source', source, difference, choice: { source, difference, ...choice } };
  });
  await append(db, readingId, (await logOf(db, readingId)).length, unsent(acts));
}

/** Acts that no window has made. */
const unsent = (commands: Command[]): Act[] => commands.map((command) => ({ origin: null, command }));

/** Puts the demo pieces on the shelf, each with a reading. */
export async function fillDemoStudio(db: Database): Promise<void> {
  for (const { key, ...content } of DEMO_PLAYERS) await keepPlayer(db, OWNER, key, content);
  for (const reading of DEMO_READINGS) {
    const bytes = readFileSync(join(import.meta.dirname, 'scores', reading.file));
    const intake = TASKS.intake({ bytes, fileName: reading.file }, () => {});
    const piece = await addPiece(db, reading.file, bytes, intake);
    const first = await firstReading(db, piece.id);
    const commands = demoLog(reading, bytes);
    await append(db, first!.id, 0, unsent(commands));
    const practised = DEMO_PRACTICE.find((p) => p.file === reading.file);
    const player = DEMO_PLAYERS.find((p) => p.key === reading.player)!;
    const at = { piece: piece.id, reading: first!.id, document: intake.document, commands, player };
    if (practised) await addPractice(db, practised, at, dayOf(new Date()));
    if (reading.compared) await addCompared(db, piece.id, first!.id, intake.document, reading.compared);
  }
}

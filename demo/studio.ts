/**
 * The demo studio: the music school of a small harbour town in the week before its autumn jury. All pieces,
 * composers and people are invented; the music was composed for this.
 */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { draftId } from '../src/core/reading/draft.ts';
import { propose } from '../src/core/reading/propose.ts';
import type { Command } from '../src/core/reading/commands.ts';
import { openScore } from '../src/core/score/open.ts';
import type { Period } from '../src/core/style/profiles.ts';
import type { Database } from '../src/lib/server/db/client.ts';
import { TASKS } from '../src/lib/server/jobs/tasks.ts';
import { addPiece } from '../src/lib/server/repositories/pieces.ts';
import { append, firstReading } from '../src/lib/server/repositories/readings.ts';

interface DemoPiece {
  file: string;
  period: Period;
  /** Rules whose proposals the demo's teacher has kept, and has set aside. */
  kept: string[];
  aside: string[];
}

const PIECES: DemoPiece[] = [
  {
    file: 'etude.abc',
    period: 'romantic',
    kept: ['bring-out-the-colour', 'breathe-at-phrase-end', 'prepare-the-return'],
    aside: ['wait-on-the-dominant']
  },
  { file: 'andantino.abc', period: 'classical', kept: ['resolution-softer', 'grow-into-the-dominant', 'part-the-phrases'], aside: [] },
  {
    file: 'corrente.abc',
    period: 'baroque',
    kept: ['say-how-it-begins', 'downbow-on-the-downbeat', 'bring-out-the-colour', 'say-how-a-section-begins'],
    aside: ['light-upbeat']
  }
];

/** Puts the demo pieces on the shelf, each with the beginning of a reading. */
export async function fillDemoStudio(db: Database): Promise<void> {
  for (const piece of PIECES) {
    const bytes = readFileSync(join(import.meta.dirname, 'scores', piece.file));
    const intake = TASKS.intake({ bytes, fileName: piece.file }, () => {});
    const row = await addPiece(db, piece.file, bytes, intake);
    const reading = await firstReading(db, row.id);
    const { score } = openScore(bytes, piece.file);
    const commands: Command[] = [{ type: 'set-period', period: piece.period }];
    for (const p of propose(score, intake.facts, piece.period)) {
      if (piece.kept.includes(p.rule)) commands.push({ type: 'keep', key: p.key, marking: { ...p.marking, id: draftId(p.key) } });
      else if (piece.aside.includes(p.rule)) commands.push({ type: 'set-aside', key: p.key });
    }
    await append(db, reading!.id, 0, commands);
  }
}

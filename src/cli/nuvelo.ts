import { readFileSync } from 'node:fs';
import { openScore } from '../core/score/open.ts';
import { ScoreError } from '../core/score/model.ts';
import { analysisJson } from './analysis-json.ts';

const USAGE = 'usage: nuvelo analyze FILE [--part ID]';

/** Exit status as documented: 0 done, 1 a fault of the program, 2 the call is wrong, 3 the file is no readable score. */
class CallError extends Error {}

function analyze(args: string[]): void {
  let file: string | undefined;
  let partId: string | undefined;
  for (let k = 0; k < args.length; k++) {
    if (args[k] === '--part') {
      partId = args[++k];
      if (partId === undefined) throw new CallError('--part needs the id of a part');
    } else if (args[k].startsWith('--')) throw new CallError(`unknown option ${args[k]}`);
    else if (file !== undefined) throw new CallError('one file at a time');
    else file = args[k];
  }
  if (file === undefined) throw new CallError('a file is needed');
  const { score } = openScore(readScoreFile(file), file);
  const part = partId === undefined ? null : score.parts.find((p) => p.id === partId);
  if (part === undefined) throw new CallError(`there is no part ${partId}; the parts are ${score.parts.map((p) => p.id).join(', ')}`);
  for (const remark of score.remarks) {
    const where = remark.measure === undefined ? '' : `, first in measure ${score.measures[remark.measure].number}`;
    process.stderr.write(
      `remark: ${remark.text} (${remark.kind === 'repaired' ? 'read all the same' : 'kept but not understood'}, ${remark.count}×${where})\n`
    );
  }
  process.stdout.write(JSON.stringify(analysisJson(score, part ? [part.index] : null)) + '\n');
}

function readScoreFile(file: string): Uint8Array {
  try {
    return readFileSync(file);
  } catch {
    throw new ScoreError(`The file ${file} cannot be opened`);
  }
}

const [command, ...rest] = process.argv.slice(2);
try {
  if (command === 'analyze') analyze(rest);
  else throw new CallError(command ? `unknown command ${command}` : 'a command is needed');
} catch (error) {
  if (error instanceof CallError) {
    process.stderr.write(`nuvelo: ${error.message}\n${USAGE}\n`);
    process.exitCode = 2;
  } else if (error instanceof ScoreError) {
    process.stderr.write(`${error.message}\n`);
    process.exitCode = 3;
  } else {
    process.stderr.write(`nuvelo: ${error instanceof Error ? error.stack : String(error)}\n`);
    process.exitCode = 1;
  }
}

import { readFileSync } from 'node:fs';
import { openScore, type OpenedScore } from '../core/score/open.ts';
import { ScoreError } from '../core/score/model.ts';
import { analysisJson } from './analysis-json.ts';
import { CallError } from './call-error.ts';
import { periodOf, schoolsOf, writeEdition } from './edition.ts';
import { writePerformance } from './perform.ts';

const USAGE = `usage: nuvelo analyze FILE [--part ID]
       nuvelo edition FILE --period NAME [--school KEY=VALUE …] --out FILE.musicxml
       nuvelo perform FILE --period NAME [--literal] --out FILE.mid`;

/** A call taken apart: the file, and the options with the values that they were given. */
interface Call {
  file: string;
  options: Map<string, string[]>;
}

/** @throws CallError when an option is unknown or lacks its value, or when there is not exactly one file */
function takeApart(args: readonly string[], known: readonly string[], flags: readonly string[] = []): Call {
  let file: string | undefined;
  const options = new Map<string, string[]>();
  for (let k = 0; k < args.length; k++) {
    const word = args[k];
    if (word.startsWith('--')) {
      const name = word.slice(2);
      if (flags.includes(name)) {
        options.set(name, []);
        continue;
      }
      if (!known.includes(name)) throw new CallError(`unknown option ${word}`);
      const value = args[++k];
      if (value === undefined) throw new CallError(`${word} needs a value`);
      options.set(name, [...(options.get(name) ?? []), value]);
    } else if (file !== undefined) throw new CallError('one file at a time');
    else file = word;
  }
  if (file === undefined) throw new CallError('a file is needed');
  return { file, options };
}

function open(file: string): OpenedScore {
  let bytes: Uint8Array;
  try {
    bytes = readFileSync(file);
  } catch {
    throw new ScoreError(`The file ${file} cannot be opened`);
  }
  const opened = openScore(bytes, file);
  for (const remark of opened.score.remarks) {
    const where = remark.measure === undefined ? '' : `, first in measure ${opened.score.measures[remark.measure].number}`;
    process.stderr.write(
      `remark: ${remark.text} (${remark.kind === 'repaired' ? 'read all the same' : 'kept but not understood'}, ${remark.count}×${where})\n`
    );
  }
  return opened;
}

function analyze(args: readonly string[]): void {
  const { file, options } = takeApart(args, ['part']);
  const { score } = open(file);
  const id = options.get('part')?.[0];
  const part = id === undefined ? null : score.parts.find((p) => p.id === id);
  if (part === undefined) throw new CallError(`there is no part ${id}; the parts are ${score.parts.map((p) => p.id).join(', ')}`);
  process.stdout.write(JSON.stringify(analysisJson(score, part ? [part.index] : null)) + '\n');
}

function edition(args: readonly string[]): void {
  const { file, options } = takeApart(args, ['period', 'school', 'out']);
  const period = periodOf(options.get('period')?.[0]);
  const schools = schoolsOf(options.get('school') ?? []);
  const out = options.get('out')?.[0];
  if (out === undefined) throw new CallError('--out is needed');
  writeEdition(open(file), period, schools, out);
}

function perform(args: readonly string[]): void {
  const { file, options } = takeApart(args, ['period', 'out'], ['literal']);
  const period = periodOf(options.get('period')?.[0]);
  const out = options.get('out')?.[0];
  if (out === undefined) throw new CallError('--out is needed');
  writePerformance(open(file).score, period, options.has('literal'), out);
}

/** Exit status as documented: 0 done, 1 a fault of the program, 2 the call is wrong, 3 the file is no readable score. */
const [command, ...rest] = process.argv.slice(2);
try {
  if (command === 'analyze') analyze(rest);
  else if (command === 'edition') edition(rest);
  else if (command === 'perform') perform(rest);
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

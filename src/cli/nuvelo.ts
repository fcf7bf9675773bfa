import { readFileSync } from 'node:fs';
import { parseArgs, type ParseArgsConfig } from 'node:util';
import { openScore, type OpenedScore } from '../core/score/read-file.ts';
import { EMPTY_READING } from '../core/reading/reading.ts';
import { ScoreError, type Part, type Score } from '../core/score/model.ts';
import { analysisJson } from './analysis-json.ts';
import { CallError } from './call-error.ts';
import { periodOf, schoolsOf, writeEdition } from './edition.ts';
import { barNumbered, drillKind, writeDrills } from './drills.ts';
import { writePerformance } from './perform.ts';
import { instrumentKey, pinsOf, techniqueJson, tempoOf } from './technique.ts';

const USAGE = `usage: nuvelo analyze FILE [--part ID]
       nuvelo edition FILE --period NAME [--school KEY=VALUE …] --out FILE.musicxml
       nuvelo perform FILE --period NAME [--literal] [--school KEY=VALUE …] --out FILE.mid
       nuvelo technique FILE [--part ID] [--instrument KEY] [--period NAME] [--school KEY=VALUE …] [--tempo QPM] [--pin BAR:BEAT=VALUE …]
       nuvelo drills FILE [--part ID] [--instrument KEY] [--from BAR --to BAR] [--kind KEY] --out FOLDER
       nuvelo backup [FILE]
       nuvelo restore FILE
       nuvelo archives FILE.zip`;

type Options = NonNullable<ParseArgsConfig['options']>;

/** @throws CallError when an option is unknown or lacks its value, or when there is not exactly one file */
function takeApart<const O extends Options>(args: readonly string[], options: O) {
  let parsed;
  try {
    parsed = parseArgs({ args: [...args], options, allowPositionals: true });
  } catch (error) {
    // Node's own sentence, without its advice on the lines after it.
    throw new CallError(error instanceof Error ? error.message.split(/[.\n]/)[0] : String(error));
  }
  const { positionals, values } = parsed;
  if (positionals.length !== 1) throw new CallError(positionals.length ? 'one file at a time' : 'a file is needed');
  return { file: positionals[0], values };
}

const TEXT = { type: 'string' } as const;
const SEVERAL = { type: 'string', multiple: true } as const;
const YES = { type: 'boolean' } as const;

/** @throws CallError when it was not given */
function needed(value: string | undefined, option: string): string {
  if (value === undefined) throw new CallError(`${option} is needed`);
  return value;
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

/** @throws CallError naming the parts that there are */
function partOf(score: Score, id: string | undefined): Part | null {
  if (id === undefined) return null;
  const part = score.parts.find((p) => p.id === id);
  if (!part) throw new CallError(`there is no part ${id}; the parts are ${score.parts.map((p) => p.id).join(', ')}`);
  return part;
}

function analyze(args: readonly string[]): void {
  const { file, values } = takeApart(args, { part: TEXT });
  const { score } = open(file);
  const part = partOf(score, values.part);
  process.stdout.write(JSON.stringify(analysisJson(score, part ? [part.index] : null)) + '\n');
}

function edition(args: readonly string[]): void {
  const { file, values } = takeApart(args, { period: TEXT, school: SEVERAL, out: TEXT });
  const period = periodOf(values.period);
  const schools = schoolsOf(values.school ?? []);
  const out = needed(values.out, '--out');
  writeEdition(open(file), period, schools, out);
}

function perform(args: readonly string[]): void {
  const { file, values } = takeApart(args, { period: TEXT, school: SEVERAL, out: TEXT, literal: YES });
  const period = periodOf(values.period);
  const schools = schoolsOf(values.school ?? []);
  const out = needed(values.out, '--out');
  writePerformance(open(file).score, period, schools, values.literal === true, out);
}

function technique(args: readonly string[]): void {
  const { file, values } = takeApart(args, { part: TEXT, instrument: TEXT, period: TEXT, school: SEVERAL, tempo: TEXT, pin: SEVERAL });
  const period = periodOf(values.period ?? EMPTY_READING.period);
  const schools = schoolsOf(values.school ?? []);
  const instrument = instrumentKey(values.instrument);
  const tempo = tempoOf(values.tempo);
  const { score } = open(file);
  const part = partOf(score, values.part)?.index ?? 0;
  const pins = pinsOf(score, part, values.pin ?? []);
  process.stdout.write(JSON.stringify(techniqueJson(score, { part, instrument, period, schools, tempo, pins })) + '\n');
}

function drills(args: readonly string[]): void {
  const { file, values } = takeApart(args, { part: TEXT, instrument: TEXT, from: TEXT, to: TEXT, kind: TEXT, out: TEXT });
  const instrument = instrumentKey(values.instrument);
  const kind = drillKind(values.kind);
  const out = needed(values.out, '--out');
  const { score } = open(file);
  const part = partOf(score, values.part)?.index ?? 0;
  const from = barNumbered(score, values.from, 0);
  const to = barNumbered(score, values.to, values.from === undefined ? score.measures.length - 1 : from);
  if (to < from) throw new CallError('--to comes before --from');
  process.stdout.write(JSON.stringify(writeDrills(score, { part, instrument, from, to, kind, out })) + '\n');
}

/** Care of the database; loaded only when it is asked for. */
async function care(command: 'backup' | 'restore' | 'archives', args: readonly string[]): Promise<void> {
  const { backup, restoreFrom, archives } = await import('./care.ts');
  if (command === 'backup' && !args.length) return backup(undefined);
  const { file } = takeApart(args, {});
  return { backup, restore: restoreFrom, archives }[command](file);
}

/** Exit status as documented: 0 done, 1 a fault of the program, 2 the call is wrong, 3 the file is no readable score. */
const [command, ...rest] = process.argv.slice(2);
try {
  if (command === 'analyze') analyze(rest);
  else if (command === 'edition') edition(rest);
  else if (command === 'perform') perform(rest);
  else if (command === 'technique') technique(rest);
  else if (command === 'drills') drills(rest);
  else if (command === 'backup' || command === 'restore' || command === 'archives') await care(command, rest);
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

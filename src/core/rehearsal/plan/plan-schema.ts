import type { ObjectSchema } from 'joi';
import type { SchemaKit } from '../../schema-kit.ts';
import { DRILL_CONTROLS, DRILL_KINDS } from '../../style/drills.ts';
import { CHECKS, LISTENING } from '../../style/practice.ts';
import { MARKS, type MockContent } from '../audition.ts';
import { OCCASIONS, TASK_KINDS, type PlanContent } from './plan.ts';
import { FELT, type VisitContent } from './visit.ts';
import type { PlanChange } from './change.ts';

/** Ends of what may be sent; set by hand. */
const MOST = { pieces: 40, tasks: 300, moves: 500, sections: 200, checks: 40, ticks: 400, sets: 40, tunes: 20, minutes: 600, words: 4000 };
const TEMPO = { least: 10, most: 400 };

/** Schemas of what belongs to practice. A day is "2026-11-29" and nothing else. */
function parts(kit: SchemaKit) {
  const { joi, record, list, oneOf, orNull, integer, id, measure } = kit;
  const day = joi.string().pattern(/^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/);
  const line = (most = 200) => joi.string().allow('').max(most);
  const tempo = joi.number().min(TEMPO.least).max(TEMPO.most);
  const minutes = integer.min(1).max(MOST.minutes);
  const number = integer.min(1);
  const bounds = Object.fromEntries(Object.entries(DRILL_CONTROLS).map(([name, c]) => [name, integer.min(c.least).max(c.most)]));
  const piece = record({
    id: number,
    reading: number,
    title: line(),
    seconds: joi.number().min(0).max(36_000),
    tempo: orNull(record({ low: tempo, high: tempo.min(joi.ref('low')) })),
    cuts: line(500)
  });
  const task = record({
    key: id,
    kind: oneOf(Object.keys(TASK_KINDS)),
    piece: number,
    title: line(300),
    because: line(500),
    how: line(MOST.words),
    bars: orNull(record({ from: measure, to: measure.min(joi.ref('from')) })),
    difficulty: joi.number().min(0).max(1),
    minutes,
    tempo: orNull(record({ start: tempo, goal: tempo.min(joi.ref('start')) })),
    drill: orNull(record({ kind: oneOf(DRILL_KINDS), settings: record({}, bounds) })),
    sheet: orNull(id),
    loudHigh: joi.boolean()
  });
  const check = record({ key: id, kind: orNull(oneOf(Object.keys(CHECKS))), text: line(500), ticks: list(day, MOST.ticks) });
  const section = record({ key: id, piece: number, title: line(300), checks: list(check, MOST.checks) });
  const tune = record({ piece: number, title: line(), times: integer.min(1).max(9), second: line(500), join: line(500) });
  const set = record({ key: id, name: line(), tempo: orNull(tempo), tunes: list(tune, MOST.tunes) });
  const fields = {
    player: orNull(id),
    title: joi.string().trim().min(1).max(120),
    occasion: oneOf(Object.keys(OCCASIONS)),
    begins: day,
    date: day,
    minutes,
    rest: list(integer.min(0).max(6), 6).unique(),
    pieces: list(piece, MOST.pieces),
    moves: list(record({ task: id, from: day, to: day }), MOST.moves),
    strategy: line(1000),
    stopped: joi.boolean()
  };
  return { day, line, tempo, number, fields, task, section, set };
}

/** A whole plan, as it is begun. */
export function planSchema(kit: SchemaKit): ObjectSchema<PlanContent> {
  const { fields, task, section, set } = parts(kit);
  return kit.record({
    ...fields,
    tasks: kit.list(task, MOST.tasks),
    checklist: kit.list(section, MOST.sections),
    sets: kit.list(set, MOST.sets)
  });
}

/** What changes in a plan. */
export function planChangeSchema(kit: SchemaKit): ObjectSchema<PlanChange> {
  const { fields, task, section, set } = parts(kit);
  const entries = (schema: ObjectSchema) => kit.joi.object().pattern(kit.id, kit.orNull(schema)).max(MOST.tasks);
  return kit.record({
    set: kit.record({}, fields),
    put: kit.record({}, { tasks: entries(task), checklist: entries(section), sets: entries(set) })
  });
}

/** A visit to a task; its name comes from elsewhere. */
export function visitSchema(kit: SchemaKit): ObjectSchema<VisitContent> {
  const { joi, integer, orNull, oneOf, id } = kit;
  const { day, line, tempo } = parts(kit);
  const count = integer.min(0).max(10_000);
  return kit.record({
    task: id,
    session: id,
    day,
    seconds: joi.number().min(0).max(86_400),
    ladder: orNull(kit.record({ start: tempo, end: tempo, best: orNull(tempo) })),
    clean: count,
    missed: count,
    felt: orNull(oneOf(Object.keys(FELT))),
    hard: line(500),
    words: line(MOST.words),
    pain: joi.boolean()
  });
}

/** A take before listeners; its name comes from elsewhere. */
export function mockSchema(kit: SchemaKit): ObjectSchema<MockContent> {
  const { joi } = kit;
  const { day, line, tempo, number } = parts(kit);
  return kit.record({
    day,
    order: kit.list(number, MOST.pieces),
    tempi: joi
      .object()
      .pattern(/^\d{1,9}$/, tempo)
      .max(MOST.pieces),
    sheet: kit.record({}, Object.fromEntries(LISTENING.map((l) => [l.key, kit.oneOf(Object.keys(MARKS))]))),
    listener: line(),
    words: line(MOST.words)
  });
}

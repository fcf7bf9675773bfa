import { excerptDocument } from '../../edition/excerpt.ts';
import { editionMusicXml } from '../../edition/musicxml.ts';
import type { Reading } from '../../reading/reading.ts';
import { escapeXml } from '../../score/musicxml/escape.ts';
import { readMusicXml } from '../../score/musicxml/read.ts';
import type { Score } from '../../score/model.ts';
import type { Drill, DrillContext } from '../context.ts';
import { drillTask, firstTasks, ownTask, passageTask, type NewTask } from './first-tasks.ts';
import type { PlanPiece } from './plan.ts';

/** A task with its notes as they are handed out; null where there are none. */
export interface TaskWithSheet {
  task: NewTask;
  document: string | null;
}

/** The piece as its reading has it. */
export interface Edited {
  document: string;
  score: Score;
  reading: Reading;
}

/** Cuts bars out of a text; all of it where no bars are named. */
type Cut = (bars: { from: number; to: number } | null) => string;

/** The edition's own text, marked once, from which bars are cut for the part that is played: a player has the own part on the stand. */
export function editedBars({ document, score, reading }: Edited): Cut {
  const marked = editionMusicXml(
    document,
    score,
    reading.markings.filter((m) => m.part === reading.part)
  );
  const edited = readMusicXml(marked);
  return (bars) => {
    const cut = excerptDocument(marked, edited, bars ?? { from: 0, to: score.measures.length - 1 });
    return edited.parts.length === 1 ? cut : partOf(cut, edited.parts[reading.part].id);
  };
}

/** A document with one of its parts. */
export function partOf(document: string, id: string): string {
  const attribute = (tag: string): string | undefined => /\bid\s*=\s*["']([^"']*)["']/.exec(tag)?.[1];
  return document
    .replace(/<score-part\s[^>]*>[\s\S]*?<\/score-part>/g, (text) => (attribute(text) === escapeXml(id) ? text : ''))
    .replace(/<part-group\b[^>]*?(?:\/>|>[\s\S]*?<\/part-group>)/g, '')
    .replace(/<part\s[^>]*>[\s\S]*?<\/part>/g, (text) => (attribute(text) === escapeXml(id) ? text : ''));
}

/** What a plan begins with for a piece, with its notes. */
export function startOf(c: DrillContext, edited: Edited, piece: PlanPiece): TaskWithSheet[] {
  const cut = editedBars(edited);
  return firstTasks(c, piece).map((task) => ({ task, document: task.kind === 'listen' ? null : cut(task.bars) }));
}

/** Some bars as a task. @param own what a marking, a question or a finding says; null for the passage itself */
export function barsAsTask(
  c: DrillContext,
  edited: Edited,
  piece: number,
  bars: { from: number; to: number },
  own: { title: string; how: string } | null
): TaskWithSheet {
  const task = own ? ownTask(c, piece, bars.from, bars.to, own.title, own.how) : passageTask(c, piece, bars.from, bars.to);
  return { task, document: editedBars(edited)(bars) };
}

/** A drill as a task: its sheet is its own document. */
export const drillAsTask = (c: DrillContext, piece: number, drill: Drill): TaskWithSheet => ({
  task: drillTask(c, piece, drill),
  document: drill.document
});

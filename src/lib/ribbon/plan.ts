import { levelDb, levelName, levelOf } from '$core/reading/dynamic-plan';
import type { Command } from '$core/reading/commands/index';
import { toNumber } from '$core/score/fraction';
import type { Workspace } from '../workspace/workspace.svelte';

/** Steps of loudness of one press of an arrow key, and of a button. */
export const PULL = 0.25;
export const PUSH = 0.5;

const within = (level: number): number => Math.max(0, Math.min(9, Math.round(level * 20) / 20));

/** "mp (−5 dB against mf)". */
export const levelSaid = (level: number): string =>
  `${levelName(level)} (${levelDb(level) >= 0 ? '+' : '−'}${Math.abs(levelDb(level)).toFixed(0)} dB against mf)`;

export const barName = (workspace: Workspace, measure: number): string =>
  workspace.score ? workspace.barName(workspace.score.measures[measure]) : '';

/** The selected bar in the plan: its level, and the crescendo in which it stands or how far it is from the peak. */
export function planSays(workspace: Workspace): string {
  const { plan, score, selection } = workspace;
  const here = plan?.bars[selection.from];
  if (!plan || !score || !here) return '';
  const hairpin = plan.hairpins.find((h) => selection.holds(h.start, h.end));
  const below = Math.max(0, plan.loudest - levelOf(plan.points, toNumber(score.measures[selection.from].start)));
  const steps = below === 1 ? 'one step' : `${below.toFixed(1)} steps`;
  const where = hairpin
    ? `${hairpin.up ? 'crescendo' : 'diminuendo'} ${levelName(hairpin.from)} to ${levelName(hairpin.to)}, room ${hairpin.room.toFixed(1)} steps`
    : below < 0.05
      ? 'as loud as the peak'
      : `${steps} below the peak`;
  return `${barName(workspace, selection.from)}: ${levelSaid(here.level)}${here.pulled ? ', pulled' : ''}; ${where}`;
}

/** Raises or lowers all selected bars, in one act. */
export function nudge(workspace: Workspace, by: number): void {
  const { plan, selection } = workspace;
  if (!plan) return;
  const commands: Command[] = [];
  for (let m = selection.from; m <= selection.to; m++)
    commands.push({ type: 'pull-level', measure: m, level: within(plan.bars[m].level + by) });
  workspace.act(commands.length === 1 ? commands[0] : { type: 'together', what: `pulling ${commands.length} levels`, commands });
}

/** Lets the levels go to which the selected bars were pulled. */
export function letGo(workspace: Workspace): void {
  const commands: Command[] = [];
  for (let m = workspace.selection.from; m <= workspace.selection.to; m++)
    if (workspace.plan?.bars[m].pulled) commands.push({ type: 'pull-level', measure: m, level: null });
  if (commands.length) workspace.act({ type: 'together', what: 'letting levels go', commands });
}

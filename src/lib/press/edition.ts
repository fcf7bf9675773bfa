import type { Edition } from '$core/edition/text/edition';
import type { Workspace } from '../workspace/workspace.svelte';

/** The edition as the room has it; null until everything that its texts say has been worked out. */
export function editionOf(
  workspace: Workspace,
  names: Pick<Edition, 'title' | 'composer' | 'instrument' | 'source' | 'collations'>
): Edition | null {
  const { score, facts, reading, remarks, questions } = workspace;
  const { details, proposals } = workspace.study;
  const { performed } = workspace.playing;
  if (!score || !details || !performed) return null;
  return { ...names, score, facts, details, reading, remarks, proposals, questions, performance: performed.plan };
}

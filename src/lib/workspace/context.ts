import { getContext, setContext } from 'svelte';
import type { Workspace } from './workspace.svelte';

const KEY = Symbol('workspace');

/** The workspace of the piece, null until the browser has taken over from the server's page. */
export interface WorkspaceHolder {
  current: Workspace | null;
}

export const provideWorkspace = (holder: WorkspaceHolder): WorkspaceHolder => setContext(KEY, holder);
export const useWorkspace = (): WorkspaceHolder => getContext<WorkspaceHolder>(KEY);

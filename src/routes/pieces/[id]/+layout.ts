import { browser } from '$app/environment';
import { api } from '$lib/api';
import type { LayoutLoad } from './$types';

/** With what the engine found, which only the browser needs: it is fetched beside the page, and kept. */
export const load: LayoutLoad = async ({ data, fetch }) => {
  const { sourceHash, engine } = data.workspace;
  const facts = browser ? await api.facts(sourceHash, engine, fetch) : '';
  return { ...data, workspace: { ...data.workspace, facts } };
};

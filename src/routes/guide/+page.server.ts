import { marked } from 'marked';
import text from '../../../docs/guide.md?raw';
import type { PageServerLoad } from './$types';

/** Pictures of the guide, by their names. */
const PICTURES = import.meta.glob<string>('../../../docs/screenshots/*.png', { query: '?url', import: 'default', eager: true });

/** The guide as it lies in the repository, as a page. */
export const load: PageServerLoad = () => {
  const html = marked.parse(text, { async: false });
  return {
    html: html.replace(
      /src="(screenshots\/[^"]+)"/g,
      (_, name: string) => `src="${PICTURES[`../../../docs/${name}`] ?? ''}" loading="lazy"`
    )
  };
};

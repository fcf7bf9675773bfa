/** A title as the name of a file, without its ending. */
export const fileName = (title: string): string =>
  title
    .normalize('NFD')
    .replace(/\p{M}+/gu, '')
    .replace(/[^\w]+/g, '-')
    .slice(0, 80)
    .replace(/^-|-$/g, '')
    .toLowerCase() || 'edition';

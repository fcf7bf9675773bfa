import { OPEN_ANEW, type TextOpener } from '../../../core/edition/open-edition.ts';

/** Remembers the last result, while its keys stay. */
function last<A extends unknown[], R>(keys: (...args: A) => readonly unknown[], make: (...args: A) => R): (...args: A) => R {
  let known: { keys: readonly unknown[]; result: R } | null = null;
  return (...args) => {
    const now = keys(...args);
    if (!known || now.some((key, k) => key !== known!.keys[k])) known = { keys: now, result: make(...args) };
    return known.result;
  };
}

/** Opens texts for editions and remembers the last of each kind: pages are made again and again while they are being set. */
export const TEXTS: TextOpener = {
  read: last((document) => [document], OPEN_ANEW.read),
  collate: last((document, _, others) => [document, others.map((o) => `${o.hash} ${o.name}`).join('\n')], OPEN_ANEW.collate),
  analyse: last((document, _, counted) => [document, counted], OPEN_ANEW.analyse)
};

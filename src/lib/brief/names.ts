import { SOURCES, type SourceKey } from '$core/style/bibliography';

export const sourceNames = (keys: readonly SourceKey[] | undefined): string => (keys ?? []).map((k) => SOURCES[k]?.short ?? k).join('; ');

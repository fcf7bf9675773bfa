import { shortNames, type SourceKey } from '$core/style/bibliography';

export const sourceNames = (keys: readonly SourceKey[] | undefined): string => shortNames(keys).join('; ');

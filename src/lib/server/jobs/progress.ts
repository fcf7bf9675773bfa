/** Says how far the work is; a piece of the result that is ready goes with it. */
export type Progress = (stage: string, piece?: string) => void;

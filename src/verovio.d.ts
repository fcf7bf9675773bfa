declare module 'verovio/wasm' {
  const createModule: () => Promise<unknown>;
  export default createModule;
}

declare module 'verovio/esm' {
  export const LOG_OFF: number;
  export function enableLog(level: number, module: unknown): void;
  export class VerovioToolkit {
    constructor(module: unknown);
    setOptions(options: Record<string, unknown>): void;
    loadData(data: string): boolean;
    getMEI(options?: Record<string, unknown>): string;
    renderToSVG(page: number): string;
    renderToTimemap(options?: Record<string, unknown>): { tstamp: number; qstamp: number; on?: string[]; off?: string[] }[];
    getPageCount(): number;
    getLog(): string;
  }
}

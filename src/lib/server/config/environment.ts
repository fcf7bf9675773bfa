import { readConfig, type Config } from './config.ts';

let read: Config | undefined;

/** How this process was told to run; relative folders count from where it was started, which is the project's folder. */
export const environment = (): Config => (read ??= readConfig(process.env, process.cwd()));

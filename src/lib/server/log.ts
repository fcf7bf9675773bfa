import pino, { type Logger } from 'pino';
import { environment } from './config/environment.ts';

let opened: Logger | undefined;

/** The server's log: lines of JSON on the standard output, never with titles, texts, names or addresses of people. */
export const log = (): Logger => (opened ??= pino({ level: environment().logLevel, base: null }));

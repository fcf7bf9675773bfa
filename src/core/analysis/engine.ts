/** Put in at build time: a sum over the code that makes facts and survey. */
declare const __NUVELO_ENGINE__: string | undefined;

/** Name of the engine where it runs without being built (command line, tests); what it has worked out is never stored as known. */
export const UNBUILT = 'unbuilt';

/**
 * Changes whenever the code that makes a study changes; part of the cache's key, so that stored results never disagree
 * with the engine.
 */
export const ENGINE: string = typeof __NUVELO_ENGINE__ === 'string' ? __NUVELO_ENGINE__ : UNBUILT;

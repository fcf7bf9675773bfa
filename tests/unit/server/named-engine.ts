/** Imported first: the engine has a name, as in the built server, so that studies are stored and found again. */
Object.assign(globalThis, { __NUVELO_ENGINE__: 'engine-of-the-tests' });

/** What the compiler makes of a rune: here nothing is drawn, so a plain value will do. Import it before the parts. */
const state = <T>(value?: T): T => value as T;
Object.assign(globalThis, { $state: Object.assign(state, { raw: state, snapshot: state }) });

/** The call itself is wrong: exit status 2. */
export class CallError extends Error {}

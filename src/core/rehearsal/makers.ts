import { skeleton } from '../analysis/note-roles.ts';
import { can } from '../style/instruments/instrument.ts';
import { clefOf } from '../edition/small-staff.ts';
import { add, sub, toNumber, type Fraction } from '../score/fraction.ts';
import { measureAt } from '../score/position.ts';
import { metricLevel } from '../score/meter.ts';
import type { Note } from '../score/model.ts';
import { midi, pitchName, transpose, type Pitch } from '../score/pitch.ts';
import { signatureShift } from '../score/transposition.ts';
import { keyForPlayer } from '../analysis/key-words.ts';
import { sameKey } from '../analysis/keys.ts';
import { plural } from '../survey/line.ts';
import { height, lasts } from '../technique/player-line.ts';
import { keyAlter } from '../score/accidentals.ts';
import { DRILL_WEIGHTS as W, type DrillKind } from '../style/drills.ts';
import { inSigns } from '../analysis/words.ts';
import { ornamentsIn } from '../performance/realised.ts';
import { ornamentStaff, type OrnamentHead } from '../edition/ornament-staff.ts';
import { EMPTY_READING } from '../reading/reading.ts';
import { alone, held, shareOf } from './kinds/beats.ts';
import { fromTheEnd, fromTheFront, intervalInContext, unitsApart } from './kinds/chaining.ts';
import { chordsRepeated, longNotes, movementAlone, onOpenStrings, ornamentsOut, slowly, withoutBow } from './kinds/hands.ts';
import { scaleOf } from './kinds/scales.ts';
import {
  accentsMoved,
  dottedPairs,
  evenValues,
  inGroups,
  longestRun,
  restsFilled,
  rhythmAlone,
  slursGrow,
  tiesUndone
} from './kinds/values.ts';
import { again, isRest, isTiedTo, materialOf, ORNAMENT_SIGNS, struck, type DrillBar, type DrillSound } from './material.ts';
import { listed } from '../sentences.ts';
import { PART_WORDS } from './difficulty.ts';
import type { DrillContext, DrillSettings } from './context.ts';

/** What one kind makes of a passage, with its reason; null where there is none. */
export type Made = { because: string; bars: DrillBar[] } | { because: string; document: (head: OrnamentHead) => string } | null;

export interface Passage {
  from: number;
  to: number;
  bars: DrillBar[];
  sounds: DrillSound[];
}

/** @param s what the teacher has set, or what is usual */
export type Maker = (c: DrillContext, p: Passage, s: DrillSettings) => Made;

/** Metrical level of a sound by its written note. */
const levelOf =
  ({ study: { score } }: DrillContext) =>
  (s: DrillSound): number => {
    const note = s.notes[0];
    return note ? metricLevel(score.measures[note.measure], note.onset) : 0;
  };
const isTied = (p: Passage) => {
  const tied = new Set(p.sounds.filter((s, k) => isTiedTo(s, p.sounds[k - 1])));
  return (s: DrillSound): boolean => tied.has(s);
};
const SECONDS = new WeakMap<DrillContext, Map<string, number>>();
/** How long a sound lasts, in seconds, what is tied to it counted; 0 where it is not struck. */
function secondsOf(c: DrillContext, s: DrillSound): number {
  let known = SECONDS.get(c);
  if (!known) {
    known = new Map(c.technique.line.attacks.flatMap((a) => a.notes.map((n) => [n.id, lasts(a)] as const)));
    SECONDS.set(c, known);
  }
  return known.get(s.notes[0]?.id ?? '') ?? 0;
}
const isQuick = (c: DrillContext, p: Passage): boolean =>
  p.sounds.filter((s) => secondsOf(c, s) > 0 && 1 / secondsOf(c, s) >= W.quick).length >= W.run;
const soundNames = (s: DrillSound): string => s.heads.map((h) => inSigns(pitchName(h.pitch))).join(' ');

const onBeats =
  (least: number): Maker =>
  (c, p) => {
    const level = levelOf(c);
    const tied = isTied(p);
    const keeps = (s: DrillSound): boolean => level(s) >= least && !tied(s);
    const share = shareOf(p.bars, keeps);
    if (share > W.onBeats || share === 0 || !isQuick(c, p)) return null;
    return {
      because: `of ${plural(p.sounds.length, 'note')} ${p.sounds.filter(keeps).length} are on the beats that carry`,
      bars: held(p.bars, keeps)
    };
  };

const framed =
  (level: 1 | 2): Maker =>
  (c, p) => {
    const { roles } = c.study.details;
    const byNote = new Map(roles.map((r) => [r.note, r]));
    const line = c.study.soundingPart(c.part).melody.filter((t) => t.note.measure >= p.from && t.note.measure <= p.to);
    const kept = new Set(skeleton(line, byNote, level).map((t) => t.note.id));
    const keeps = (s: DrillSound): boolean => s.notes.some((n) => kept.has(n.id));
    const share = shareOf(p.bars, keeps);
    const between = p.sounds.filter((s) => levelOf(c)(s) < 1).length;
    if (share > W.framed || share === 0 || between < W.between) return null;
    return {
      because: `${p.sounds.filter((x) => !keeps(x)).length} of ${p.sounds.length} notes lead from one carrying note to the next`,
      bars: held(p.bars, keeps)
    };
  };

const runs =
  (make: (bars: readonly DrillBar[], s: DrillSettings) => DrillBar[], least: number = W.run): Maker =>
  (c, p, s) => {
    const { sounds } = longestRun(p.bars);
    if (sounds.length < least || !isQuick(c, p)) return null;
    return { because: `${sounds.length} quick notes of one value follow each other`, bars: make(p.bars, s) };
  };

/** A chain of growing parts, where it is hard. */
const chained =
  (make: typeof fromTheFront): Maker =>
  (c, p, { unit, repeats }) =>
    isHard(c, p) && p.bars.length <= W.chainedBars
      ? { because: hardWords(c, p), bars: make(p.bars, { most: W.mostSteps, unit, repeats }) }
      : null;

/** How each kind is made of a passage. */
export const MAKERS: Record<DrillKind, Maker> = {
  'strong-beats': onBeats(2),
  'some-beats': onBeats(1),
  anchors: (c, p) => {
    const pillars = new Set(c.study.details.roles.flatMap((r) => (r.rank === 'pillar' ? [r.note] : [])));
    const keeps = (s: DrillSound): boolean => s.notes.some((n) => pillars.has(n.id));
    const share = shareOf(p.bars, keeps);
    return share > 0 && share < W.anchors && isQuick(c, p)
      ? {
          because: `${plural(Math.round(share * p.sounds.length), 'note')} of ${p.sounds.length} carry the line`,
          bars: alone(p.bars, keeps)
        }
      : null;
  },
  'skeleton-1': framed(1),
  'skeleton-2': framed(2),
  'sequence-units': (c, p, { repeats }) => {
    const { score } = c.study;
    const s = c.study.facts.sequences.find((x) => {
      const [a, b] = [measureAt(score, x.start).index, measureAt(score, x.last).index];
      return a >= p.from && b <= p.to && x.line === 'melody';
    });
    if (!s) return null;
    const [a, b] = [measureAt(score, s.start).index, measureAt(score, s.last).index];
    const bars = p.bars.slice(a - p.from, b - p.from + 1);
    // A short first bar was filled before its notes.
    const filled = sub(bars[0].length, score.measures[a].length);
    const from = add(filled, sub(s.start, score.measures[a].start));
    return { because: `a sequence of ${s.units} units`, bars: unitsApart(bars, from, s.unit, s.units, repeats) };
  },
  'rests-filled': (_, p) => {
    const apart = p.bars.reduce(
      (n, b) => n + b.sounds.filter((s, k) => isRest(s) && k > 0 && !isRest(b.sounds[k - 1]) && toNumber(s.duration) <= 1).length,
      0
    );
    return apart >= W.restsApart ? { because: `${plural(apart, 'short rest')} part what is one line`, bars: restsFilled(p.bars) } : null;
  },
  'ties-undone': (_, p) => {
    const ties = p.sounds.filter((s, k) => s.heads.some((h) => h.tie) && p.sounds[k + 1]).length;
    return ties ? { because: `${plural(ties, 'tie')} ${ties === 1 ? 'hides' : 'hide'} the beat`, bars: tiesUndone(p.bars) } : null;
  },
  'even-values': (_, p, { repeats }) => {
    const values = new Set(p.sounds.map((s) => `${s.duration.n}/${s.duration.d}`)).size;
    return values >= W.values && p.sounds.length >= W.notes
      ? { because: `${values} different values`, bars: again(evenValues(p.bars), repeats) }
      : null;
  },
  'slurs-grow': runs((bars, { slur }) => slursGrow(bars, [1, slur, 2 * slur]), W.slurredRun),
  'long-short': runs((bars, { repeats }) => again(dottedPairs(bars, true), repeats)),
  'short-long': runs((bars, { repeats }) => again(dottedPairs(bars, false), repeats)),
  groups: runs((bars, { group }) => inGroups(bars, group)),
  'accents-moved': runs((bars, { group }) => accentsMoved(bars, group)),
  'chords-repeated': (_, p, { repeats }) => {
    const bars = chordsRepeated(p.bars, 3, W.chords, repeats);
    return bars.length ? { because: plural(bars.length, 'chord') + ' of three notes and more', bars } : null;
  },
  'double-stops-slow': (c, p) => {
    const doubles = p.sounds.filter((s) => s.heads.length === 2).length;
    return doubles >= W.doubleStops && can(c.technique.instrument, 'bows')
      ? { because: plural(doubles, 'double stop'), bars: slowly(p.bars) }
      : null;
  },
  'hands-alone': (c, p) => {
    const { score } = c.study;
    if (score.parts[c.part].staves !== 2 || !can(c.technique.instrument, 'keys')) return null;
    const right = p.bars;
    const left = materialOf(score, c.part, 2, p.from, p.to);
    if (!struck(left).length || !struck(right).length) return null;
    const clef = clefOf(score, c.part, p.from, 2);
    return {
      because: 'two hands have their own notes here',
      bars: [
        ...right.map((b, k) => (k ? b : { ...b, words: 'right hand' })),
        ...left.map((b, k) => (k ? { ...b, clef } : { ...b, clef, words: 'left hand' }))
      ]
    };
  },
  'bow-alone': (c, p) => {
    const { strings, instrument } = c.technique;
    if (!strings || !can(instrument, 'bows')) return null;
    const open = instrument.strings ?? [];
    const { chromatic, diatonic } = c.study.score.parts[c.part].transpose;
    // As the player reads them.
    const written = open.map((o) => transpose(o, { chromatic: -chromatic, diatonic: -diatonic }));
    const by = new Map<string, Pitch>();
    const used = new Set<number>();
    c.technique.line.attacks.forEach((a, k) => {
      const heads = a.notes.filter((n) => n.pitch);
      for (const n of [...heads, ...a.held]) {
        const place = strings.grips[k][heads.findIndex((h) => height(h) === height(n))];
        if (!place || n.measure < p.from || n.measure > p.to) continue;
        used.add(place.string);
        by.set(n.id, written[place.string]);
      }
    });
    if (used.size < 2) return null;
    return { because: `the bow goes over ${plural(used.size, 'string')}`, bars: onOpenStrings(p.bars, (id) => by.get(id) ?? null) };
  },
  'left-hand-alone': (c, p) => {
    const { strings } = c.technique;
    if (!strings || !can(c.technique.instrument, 'bows')) return null;
    const shifts = strings.costs.filter((costs, k) => {
      const { measure } = c.technique.line.attacks[k].notes[0];
      return measure >= p.from && measure <= p.to && costs.some((x) => x.name === 'shift');
    }).length;
    return shifts ? { because: `the left hand shifts ${shifts === 1 ? 'once' : `${shifts} times`}`, bars: withoutBow(p.bars) } : null;
  },
  'ornaments-out': (_, p) => {
    const count = ornaments(p.sounds);
    return count ? { because: `${plural(count, 'ornament')} on the line`, bars: ornamentsOut(p.bars) } : null;
  },
  'ornaments-exact': (c, p) => {
    const found = ornamentsIn(c.study.score, c.study.facts, { ...EMPTY_READING, part: c.part }, p.from, p.to).slice(0, W.ornaments);
    return found.length
      ? {
          because: `${plural(found.length, 'ornament')} to be placed in time`,
          document: (head) => ornamentStaff(c.study.score, found, head)
        }
      : null;
  },
  interval: (_, p, { repeats }) => {
    const leaps = p.sounds.map((s, k) =>
      k && s.heads.length === 1 && p.sounds[k - 1].heads.length === 1
        ? Math.abs(midi(s.heads[0].pitch) - midi(p.sounds[k - 1].heads[0].pitch))
        : 0
    );
    const widest = Math.max(0, ...leaps);
    const at = leaps.indexOf(widest);
    return widest >= W.leap
      ? {
          because: `a leap from ${soundNames(p.sounds[at - 1])} to ${soundNames(p.sounds[at])}`,
          bars: intervalInContext(p.bars, p.sounds, at, repeats)
        }
      : null;
  },
  'from-the-front': chained(fromTheFront),
  'from-the-end': chained(fromTheEnd),
  'rhythm-alone': (c, p, { repeats }) => {
    const hard = c.difficulty.slice(p.from, p.to + 1).filter((b) => b.parts.rhythm >= W.rhythm).length;
    const middle = [...p.sounds].sort((a, b) => midi(a.heads[0].pitch) - midi(b.heads[0].pitch))[p.sounds.length >> 1];
    return hard && p.sounds.length >= W.between
      ? { because: `${plural(hard, 'bar')} of many values`, bars: again(rhythmAlone(p.bars, middle.heads[0].pitch), repeats) }
      : null;
  },
  'displaced-entry': (c, p) => {
    const found = c.study.facts.parallels.find(
      (x) =>
        x.shift.n !== 0 &&
        x.weight >= W.themeBars &&
        sameMeter(c, x.a.start, x.b.start) &&
        measureAt(c.study.score, x.b.start).index >= p.from &&
        measureAt(c.study.score, x.b.last).index <= p.to
    );
    if (!found) return null;
    const span = (s: { start: Fraction; last: Fraction }): DrillBar[] =>
      materialOf(
        c.study.score,
        c.part,
        1,
        measureAt(c.study.score, s.start).index,
        Math.min(measureAt(c.study.score, s.last).index, measureAt(c.study.score, s.start).index + W.mostBars - 1)
      );
    const [first, then] = [span(found.a), span(found.b)];
    return {
      because: 'the theme comes back elsewhere in the bar',
      bars: [
        ...first.map((b, k) => (k ? b : { ...b, words: 'as it was' })),
        ...then.map((b, k) => (k ? b : { ...b, words: 'as it returns' }))
      ]
    };
  },
  'long-notes': (c, p, { repeats }) => {
    if (!can(c.technique.instrument, 'holds', 'sings') || can(c.technique.instrument, 'keys')) return null;
    const long = p.sounds.filter((s) => secondsOf(c, s) >= W.longSeconds);
    const top = [...long].sort((a, b) => midi(b.heads.at(-1)!.pitch) - midi(a.heads.at(-1)!.pitch)).slice(0, W.longNotes);
    return top.length
      ? { because: `${plural(long.length, 'long note')} to be shaped`, bars: again(longNotes(p.bars, top), repeats) }
      : null;
  },
  'scales-of-the-piece': (c, p) => {
    const { score } = c.study;
    const plain = c.study.facts.keys.filter((k) => k.tonality === undefined);
    const keys = plain.filter((k, at) => plain.findIndex((o) => sameKey(o.key, k.key)) === at).slice(0, W.keys);
    const notes = score.notes.filter((n) => n.part === c.part && n.pitch && !n.rest);
    if (!keys.length || notes.length < W.keyNotes) return null;
    const by = [...notes].sort((a, b) => midi(a.pitch!) - midi(b.pitch!));
    const shift = signatureShift(score.parts[c.part].transpose.chromatic);
    const bars = keys.flatMap(({ key }) =>
      scaleOf(p.bars[0], { ...key, tonic: key.tonic - shift }, by[0].pitch!, by[by.length - 1].pitch!)
    );
    const told = keys.map((k) => keyForPlayer(k.key, score.parts[c.part].transpose));
    return bars.length ? { because: `the piece goes through ${told.join(', ')}`, bars } : null;
  },
  'altered-notes': (c, p) => {
    const { score } = c.study;
    const altered = (n: Note): boolean => n.pitch !== undefined && n.pitch.alter !== keyAlter(score.measures[n.measure].key, n.pitch.step);
    const keeps = (s: DrillSound): boolean => s.notes.some(altered);
    const count = p.sounds.filter(keeps).length;
    return count >= W.altered && count < p.sounds.length
      ? { because: `${count} notes differ from the signature`, bars: alone(p.bars, keeps) }
      : null;
  },
  'movement-alone': (c, p, { repeats }) => {
    const m = c.technique.movements.find(({ at, name }) => {
      const { measure } = c.technique.line.attacks[at].notes[0];
      return measure >= p.from && measure <= p.to && !/-grace$|^strike$/.test(name);
    });
    const at = m ? p.sounds.findIndex((s) => s.notes.some((n) => n.id === c.technique.line.attacks[m.at].notes[0].id)) : -1;
    return m && at >= 0
      ? {
          because: `the ${m.name.replace('-', ' ')} has to be clear`,
          bars: movementAlone(p.bars, p.sounds[at], p.sounds[at - 1] ?? null, repeats)
        }
      : null;
  }
};

const sameMeter = ({ study: { score } }: DrillContext, a: Fraction, b: Fraction): boolean =>
  measureAt(score, a).time?.text === measureAt(score, b).time?.text;
const ornaments = (sounds: readonly DrillSound[]): number =>
  sounds.filter((s) => s.graces.length || s.signs.some((x) => ORNAMENT_SIGNS.has(x))).length;
const isHard = (c: DrillContext, p: Passage): boolean =>
  p.sounds.length >= W.notes && c.spots.some((s) => s.from <= p.to && s.to >= p.from);
function hardWords(c: DrillContext, p: Passage): string {
  const spot = c.spots.find((s) => s.from <= p.to && s.to >= p.from)!;
  return `one of the hardest places: ${listed(spot.why.map((w) => PART_WORDS[w]))}`;
}

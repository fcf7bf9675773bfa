import type { Study } from '../analysis/study.ts';
import { cmp, lt, lte } from '../score/fraction.ts';
import type { Note, Part } from '../score/model.ts';
import { midi } from '../score/pitch.ts';
import type { Marking } from '../markings/marking.ts';
import { dynamicLevels, levelInForce, metronomeMarkings } from '../reading/in-force.ts';
import { swellsOf, type Swell } from '../reading/swells.ts';
import { suggestedTempo } from '../survey/tempo.ts';
import { FALLBACK_TEMPO } from '../performance/playable-score.ts';
import { TUBES } from '../style/brass.ts';
import { BOW, type BowSchool } from '../style/bow-weights.ts';
import { DYNAMIC_STEPS } from '../style/dynamics.ts';
import { instrumentByKey } from '../style/instruments/index.ts';
import { can, type Instrument } from '../style/instruments/instrument.ts';
import { instrumentOf } from '../style/instruments/instrument-of.ts';
import { PROFILES, type Period } from '../style/profiles.ts';
import type { SchoolAnswers } from '../style/schools.ts';
import { MALLETED } from '../style/mallets.ts';
import { STRING_HANDS, STRING_TASTE } from '../style/string-hands.ts';
import type { Player } from '../players/player.ts';
import { bowedChords, type BowedChord, type ChordBreak, type ChordRelease } from './bowed-chords.ts';
import { brassRemarks, type BrassRemark } from './brass-slurs.ts';
import { pedalStretches, type PedalStretch } from './pedal.ts';
import { strokeRuns, type StrokeRun } from './strokes.ts';
import { handsApart, organTouch, type HandRemark } from './two-hands.ts';
import { PEDALLED_IN } from '../style/keyboard-sound.ts';
import { bowing, type BowDirection, type Bowing } from './bow.ts';
import { brassFingering, loadCurve, ownOfBrass, type BrassFingering, type BrassPin } from './brass.ts';
import { breathing, type Breathing } from './breathing.ts';
import { handOf, wideChords, type WideChord } from './hands.ts';
import { keyboardFingering, type HandName, type KeyboardFingering } from './keyboard.ts';
import { leftHand, type Fingering, type FingerPin } from './left-hand.ts';
import { sticking, type Stick, type Sticking } from './mallets.ts';
import { movements, type FoundMovement } from './pipes.ts';
import { windChart, windWay, type WindWay } from './wind-fingers.ts';
import { height, playerLine, secondsAt, topOf, type PlayerLine, type SecondsAt } from './player-line.ts';

/** What the teacher has decided at a note, by the note's id. */
export interface TechniquePin {
  bow?: BowDirection;
  finger?: string;
  string?: string;
  breath?: boolean;
  hand?: HandName;
}

export interface TechniqueOptions {
  part: number;
  /** Key of the instrument; null for what the part says. */
  instrument: string | null;
  period: Period;
  schools: SchoolAnswers;
  /** Quarters a minute throughout; null for the tempi of the page. */
  tempo: number | null;
  pins: ReadonlyMap<string, TechniquePin>;
  /** What the reading has written: levels, hairpins and tempi count. */
  markings?: readonly Marking[];
  /** Who plays it; null for somebody as usual. */
  player?: Player | null;
  /** When each moment sounds, where it is known of a performance; else at the tempi of the page. */
  seconds?: SecondsAt | null;
}

/** How a part lies on its instrument. What does not apply is null. */
export interface Technique {
  instrument: Instrument;
  player: Player | null;
  /** All of the part in order of time. */
  line: PlayerLine;
  bow: Bowing | null;
  strings: Fingering | null;
  keyboard: { line: PlayerLine; fingering: KeyboardFingering }[];
  wide: WideChord[];
  breath: Breathing | null;
  brass: BrassFingering | null;
  winds: WindWay | null;
  /** By bar, 0 to 1. */
  load: number[] | null;
  sticks: Sticking | null;
  movements: FoundMovement[];
  /** Chords under the bow, and kinds of stroke. */
  chords: BowedChord[];
  strokes: StrokeRun[];
  /** What the hands of a keyboard do apart, and what stays on an organ. */
  hands: HandRemark[];
  pedal: PedalStretch[];
  brassRemarks: BrassRemark[];
  /** Last attacks of phrases. */
  phraseEnds: ReadonlySet<number>;
  /** Whether an attack is piano or less. */
  soft(at: number): boolean;
  /** The loudest bar, the last of several; null where nothing is marked. */
  loudest: number | null;
}

/** What is loud: forte and more. */
const LOUD = DYNAMIC_STEPS.indexOf('f');
/** What is soft: piano and less. */
const SOFT = DYNAMIC_STEPS.indexOf('p');
/** Without a mark it is as loud as mezzo forte. */
const UNMARKED = DYNAMIC_STEPS.indexOf('mf');

/** Works out how a part lies. Handbook 12 to 19. */
export function techniqueOf(study: Study, options: TechniqueOptions): Technique {
  const { score } = study;
  const { markings = [] } = options;
  const part = score.parts[options.part];
  const instrument = (options.instrument && instrumentByKey(options.instrument)) || instrumentOf(score, part);
  const suggested = suggestedTempo(score);
  const seconds =
    options.seconds ??
    secondsAt(score, suggested ? (suggested.low + suggested.high) / 2 : FALLBACK_TEMPO, options.tempo, metronomeMarkings(markings));
  // What is said of a player's other instrument is not for this one.
  const player = options.player && (options.player.instrument ?? instrument.key) === instrument.key ? options.player : null;
  const line = playerLine(score, part.index, seconds);
  const school = <K extends keyof SchoolAnswers>(key: K): string | undefined =>
    options.schools[key] ?? PROFILES[options.period].schools[key];
  const said = dynamicLevels(score, markings);
  const levels = line.attacks.map((a) => levelInForce(said, part.index, a.start)?.step ?? UNMARKED);
  const loud = (at: number): boolean => levels[at] >= LOUD;
  const context = contextOf(study, line, swellsOf(score, study.facts, markings, said, part.index));
  const pinsOn = <T>(
    of: PlayerLine,
    pick: (pin: TechniquePin, note: Note) => T | undefined,
    printed: (note: Note) => T | undefined
  ): Map<number, T> => {
    const found = new Map<number, T>();
    of.attacks.forEach((a, k) => {
      for (const n of a.notes) {
        const pin = options.pins.get(n.id);
        const value = (pin && pick(pin, n)) ?? printed(n);
        if (value !== undefined) found.set(k, value);
      }
    });
    return found;
  };
  const bows = can(instrument, 'bows');
  const hand = STRING_HANDS[instrument.key];
  const tubes = TUBES[instrument.key];
  const chart = windChart(instrument.key, player?.fingerings);
  const breathes = can(instrument, 'breathes', 'sings');
  const technical = (n: Note, name: string): string | undefined => n.marks?.find((m) => m.group === 'technical' && m.name === name)?.value;
  const hasMark = (n: Note, name: string): boolean => n.marks?.some((m) => m.name === name) ?? false;
  const keyboard = can(instrument, 'keys') ? keyboardOf(score, part, seconds, options, technical) : null;
  const bow = bows
    ? bowing(line, {
        school: bowSchool(school('bowing')),
        loud,
        gesture: (at) => context.gesture[at],
        phraseEnds: context.phraseEnds,
        pins: pinsOn(
          line,
          (p) => p.bow,
          (n) => (hasMark(n, 'down-bow') ? 'down' : hasMark(n, 'up-bow') ? 'up' : undefined)
        )
      })
    : null;
  const brass = tubes
    ? brassFingering(
        line,
        instrument.key,
        pinsOn<BrassPin>(
          line,
          (p) => (p.finger === undefined ? undefined : tubes[0].by === 'slide' ? { slide: Number(p.finger) } : { valves: p.finger }),
          () => undefined
        ),
        ownOfBrass(player?.fingerings ?? [])
      )
    : null;
  const played = keyboard?.played ?? [];
  return {
    instrument,
    player,
    line,
    bow,
    brass,
    strings:
      hand && instrument.strings
        ? leftHand(line, {
            open: instrument.strings,
            hand,
            bowed: bows,
            taste: STRING_TASTE[options.period],
            pins: fingerPins(line, (n) => {
              const said = options.pins.get(n.id);
              if (said && (said.finger !== undefined || said.string !== undefined)) return { finger: said.finger, string: said.string };
              const finger = hasMark(n, 'open-string') ? '0' : technical(n, 'fingering')?.trim();
              return finger && /^[0-4T]$/.test(finger) ? { finger } : undefined;
            })
          })
        : null,
    keyboard: played,
    wide: keyboard?.wide ?? [],
    breath: breathes
      ? breathing(line, {
          instrument: instrument.key,
          capacity: player?.breath ?? null,
          loud,
          phraseEnds: context.phraseEnds,
          bound: context.bound,
          pins: pinsOn(
            line,
            (p) => p.breath,
            () => undefined
          )
        })
      : null,
    winds: chart
      ? windWay(
          line,
          chart,
          pinsOn(
            line,
            (p) => (p.finger !== undefined && /[TRPh\d ]{2,}/.test(p.finger) ? p.finger : undefined),
            () => undefined
          )
        )
      : null,
    load: instrument.family === 'brass' ? loadCurve(line, middleOf(instrument), (at) => loudnessOf(levels[at])) : null,
    sticks: MALLETED.includes(instrument.key)
      ? sticking(
          line,
          pinsOn<Stick | HandName>(
            line,
            (p) => p.hand ?? (p.finger as Stick | undefined),
            () => undefined
          )
        )
      : null,
    movements: instrument.key === 'pipes' ? movements(line, school('pipe-movements') === 'tight') : [],
    chords: bows
      ? bowedChords(line, (school('chord-break') as ChordBreak) ?? 'from-below', (school('chord-release') as ChordRelease) ?? 'top')
      : [],
    strokes: bow ? strokeRuns(line, bow, options.period, loud) : [],
    hands: instrument.key === 'organ' ? organTouch(played) : handsApart(played),
    pedal: instrument.key === 'piano' && PEDALLED_IN.includes(options.period) ? pedalStretches(score, part.index, study.facts.chords) : [],
    brassRemarks: brass ? brassRemarks(line, brass, (at) => levels[at] <= SOFT) : [],
    phraseEnds: context.phraseEnds,
    soft: (at) => levels[at] <= SOFT,
    loudest: loudestBar(line, levels, said.length > 0)
  };
}

function loudestBar({ attacks }: PlayerLine, levels: readonly number[], marked: boolean): number | null {
  if (!marked || !attacks.length) return null;
  return attacks[levels.lastIndexOf(Math.max(...levels))].notes[0].measure;
}

/** What is said of the heads of each attack; only attacks of which something is. */
function fingerPins(line: PlayerLine, pinOf: (n: Note) => FingerPin | undefined): Map<number, (FingerPin | undefined)[]> {
  const found = new Map<number, (FingerPin | undefined)[]>();
  line.attacks.forEach((a, k) => {
    const pins = a.notes.filter((n) => n.pitch).map(pinOf);
    if (pins.some((p) => p)) found.set(k, pins);
  });
  return found;
}

const bowSchool = (answer: string | undefined): BowSchool => (answer && answer in BOW.schools ? (answer as BowSchool) : 'rule-of-downbow');

/** Halfway from the lowest note to where it is high. */
const middleOf = ({ range }: Instrument): number => (range ? (midi(range.low) + midi(range.highFrom)) / 2 : 60);

/** 0 to 1: a step of dynamics counts as about twice the work over two steps. [M] */
const loudnessOf = (level: number): number => 2 ** ((level - (DYNAMIC_STEPS.length - 1)) / 2);

function keyboardOf(
  score: Study['score'],
  part: Part,
  seconds: ReturnType<typeof secondsAt>,
  options: TechniqueOptions,
  technical: (n: Note, name: string) => string | undefined
): { played: Technique['keyboard']; wide: WideChord[] } {
  const usual = handOf(score, part);
  const said = (n: Note): HandName => options.pins.get(n.id)?.hand ?? usual(n);
  const lineOf = (hand: HandName, which: (n: Note) => HandName): PlayerLine =>
    playerLine(score, part.index, seconds, (n) => which(n) === hand);
  const wide = wideChords({ right: lineOf('right', said), left: lineOf('left', said) }, options.player?.reach ?? undefined);
  // What the other hand can take it takes, until the teacher says otherwise.
  const shared = new Map(wide.flatMap((w) => w.shared.map((s) => [s.note.id, s.to] as const)));
  const hands = (n: Note): HandName => options.pins.get(n.id)?.hand ?? shared.get(n.id) ?? usual(n);
  const played = (['right', 'left'] as const).flatMap((hand) => {
    const line = lineOf(hand, hands);
    if (!line.attacks.length) return [];
    const pins = new Map<number, number>();
    line.attacks.forEach((a, k) => {
      // A finger that is said of one head of a chord is that of its outer key.
      const outer = hand === 'right' ? topOf(a) : a.notes[0];
      const finger = Number(options.pins.get(outer.id)?.finger ?? technical(outer, 'fingering'));
      if (finger >= 1 && finger <= 5) pins.set(k, finger);
    });
    return [{ line, fingering: keyboardFingering(line, { hand, pins }) }];
  });
  return { played, wide };
}

/** What the analysis says of the places of a line. */
function contextOf(
  study: Study,
  line: PlayerLine,
  swells: readonly Swell[]
): { phraseEnds: Set<number>; bound: Set<number>; gesture: number[] } {
  const { attacks } = line;
  const phraseEnds = new Set<number>();
  let k = 0;
  for (const phrase of [...study.facts.phrases].sort((a, b) => cmp(a.last, b.last))) {
    while (k < attacks.length && lte(attacks[k].start, phrase.last)) k++;
    if (k > 0) phraseEnds.add(k - 1);
  }
  const leaning = new Set(study.details.roles.flatMap((r) => (r.role === 'appoggiatura' || r.role === 'suspension' ? [r.note] : [])));
  const bound = new Set<number>();
  for (let at = 1; at < attacks.length; at++) {
    const [a, b] = [attacks[at - 1], attacks[at]];
    const step = height(topOf(b)) - height(topOf(a));
    if (a.notes.some((n) => leaning.has(n.id)) && Math.abs(step) <= 2) bound.add(at);
    const [before, after] = [attacks[at - 2], attacks[at + 1]];
    const climbs = (x: typeof a | undefined, y: typeof a | undefined): boolean => !!x && !!y && height(topOf(y)) - height(topOf(x)) === 1;
    if (climbs(a, b) && (climbs(before, a) || climbs(b, after))) bound.add(at);
  }
  const gesture = attacks.map((a) => {
    const over = swells.find((h) => lte(h.start, a.start) && lt(a.start, h.end));
    return over ? (over.up ? 1 : -1) : 0;
  });
  return { phraseEnds, bound, gesture };
}

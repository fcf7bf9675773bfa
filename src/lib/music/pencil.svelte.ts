import { nanoid } from 'nanoid';
import { againstPrinted, isSpan, kindOf } from '$core/markings/describe';
import type { Marking } from '$core/markings/marking';
import type { Command } from '$core/reading/commands/index';
import { STEP, movedBy, turnedOver } from '$core/reading/pencil/placing';
import { endOn, isRefused, noteAtEnd, put } from '$core/reading/pencil/put';
import { spoken } from '$core/reading/pencil/spoken';
import { choicesOf, verbOfKey, verbsFor, type Verb } from '$core/reading/pencil/verbs';
import type { HowItLies } from '$core/technique/told/lying';
import { lyingAt, writing } from '../brief/lying';
import { Walk } from '$core/reading/pencil/walk';
import type { Proposal } from '$core/reading/proposal';
import { lte, type Fraction } from '$core/score/fraction';
import type { Note, Score } from '$core/score/model';
import type { Instrument } from '$core/style/instruments/instrument';
import type { Selection } from '../workspace/selection.svelte';

/** What the pencil needs of the workspace that it works in. */
export interface Desk {
  readonly score: Score | null;
  readonly reading: { readonly part: number; readonly markings: readonly Marking[] };
  readonly study: { readonly lies: HowItLies | null };
  readonly selection: Selection;
  readonly proposals: readonly Proposal[];
  note(id: string | undefined): Note | undefined;
  instrumentOf(part: number): Instrument;
  act(...commands: Command[]): void;
  keep(proposal: Proposal): void;
}

/** The notes that are chosen on the page and what is done to them: by mouse and by keys the same. */
export class Pencil {
  /** Ids of the first chosen note and of the one to which the choice was extended. */
  held = $state.raw<{ from: string; to: string } | null>(null);
  /** A verb that waits for its value. */
  asking = $state.raw<Verb | null>(null);
  /** The end of the opened marking that the arrow keys move. */
  end = $state<'start' | 'end'>('end');
  /** Key of the proposal that is looked at on the page. */
  looking = $state<string | null>(null);
  /** What was refused, in a sentence. */
  refused = $state('');
  /** A marking that stands against print and has no reason yet, with what is printed. */
  unexplained = $state.raw<{ id: string; printed: string } | null>(null);

  constructor(private readonly desk: Desk) {}

  private readonly part = $derived.by(() => this.desk.note(this.held?.from)?.part ?? this.desk.reading.part);
  private readonly walk = $derived.by(() => (this.desk.score ? new Walk(this.desk.score, this.part) : null));

  /** Ids of all chosen notes. */
  readonly chosen = $derived.by((): ReadonlySet<string> => {
    const { held, walk } = this;
    if (!held || !walk) return new Set();
    if (held.from === held.to) return new Set([held.from]);
    return new Set(walk.between(held.from, held.to).flatMap((m) => m.map((n) => n.id)));
  });

  /** Values among which the verb that asks lets choose; null where it takes words of one's own. */
  readonly choices = $derived.by(() => this.asking && choicesOf(this.asking, this.desk.instrumentOf(this.part)));
  readonly verbs = $derived.by(() => verbsFor(this.desk.instrumentOf(this.part)));

  /** The first chosen note. */
  get note(): Note | null {
    return this.desk.note(this.held?.from) ?? null;
  }

  get marking(): Marking | null {
    return this.desk.reading.markings.find((m) => m.id === this.desk.selection.openMarking) ?? null;
  }

  get proposal(): Proposal | null {
    return this.desk.proposals.find((p) => p.key === this.looking) ?? null;
  }

  /** Markings, then open proposals, at the chosen notes, in the order in which one goes through them. */
  readonly here = $derived.by((): { markings: Marking[]; proposals: Proposal[] } => {
    const stretch = this.stretch();
    if (!stretch) return { markings: [], proposals: [] };
    const at = (m: { part: number; staff: number; start: Fraction }): boolean =>
      m.part === this.part && m.staff === stretch.staff && lte(stretch.from, m.start) && lte(m.start, stretch.to);
    return {
      markings: this.desk.reading.markings.filter(at),
      proposals: this.desk.proposals.filter((p) => at(p.marking))
    };
  });

  /** What the chosen notes would be played with, as far as they do not say so yet. */
  readonly lying = $derived.by(() => lyingAt(this.desk.study.lies, this.desk.reading, this.chosen));

  /** Writes that in: it stays, and the rest is looked for around it. */
  writeLying(): void {
    const { lying } = this;
    if (!lying.length) return;
    this.desk.act({ type: 'together', what: 'writing what lies there', commands: writing(lying, this.desk.reading) });
  }

  /** What is chosen, read aloud. */
  readonly says = $derived.by((): string => {
    const { note, walk } = this;
    const { score } = this.desk;
    if (!note || !walk || !score) return '';
    const first = spoken(score, note, walk.moment(note.id), this.desk.reading.markings);
    const last = this.held!.to === this.held!.from ? null : this.desk.note(this.held!.to);
    return last ? `${first}; to ${spoken(score, last, walk.moment(last.id), this.desk.reading.markings)}` : first;
  });

  /** Chooses a note, or extends the choice to it; the bars follow. */
  choose(id: string, extend = false): void {
    const note = this.desk.note(id);
    if (!note) return;
    const from = extend ? this.note : null;
    this.held = from && from.part === note.part ? { from: from.id, to: id } : { from: id, to: id };
    this.desk.selection.bar(note.measure, extend && from !== null);
    this.letGoOfMarks();
  }

  /** What stands before a bar line is chosen with it: a breath, a pause, words belong there. */
  chooseBarLine(measure: number, staff: number, part: number): void {
    const before = this.walkOf(part)?.beforeBarLine(measure, staff);
    if (before) this.choose(before.id);
  }

  private walkOf(part: number): Walk | null {
    return part === this.part ? this.walk : this.desk.score && new Walk(this.desk.score, part);
  }

  none(): void {
    this.held = null;
    this.letGoOfMarks();
  }

  private letGoOfMarks(): void {
    this.desk.selection.openMarking = null;
    this.asking = null;
    this.looking = null;
    this.refused = '';
    this.unexplained = null;
    this.end = 'end';
  }

  /** The note before or after the open end of the choice; from the first note of the bar where none is chosen. */
  step(by: number, extend: boolean): void {
    const { walk, held } = this;
    if (!walk) return;
    const next = held ? walk.along(held.to, by) : walk.inBar(this.desk.selection.from);
    if (next) this.choose(next.id, extend);
  }

  across(up: boolean): void {
    const { walk, held } = this;
    const next = held ? walk?.across(held.to, up) : walk?.inBar(this.desk.selection.from);
    if (next) this.choose(next.id);
  }

  toEdge(last: boolean, extend: boolean): void {
    const note = this.walk?.edge(last);
    if (note) this.choose(note.id, extend);
  }

  /** The first note of another bar. */
  toBar(by: number, extend: boolean): void {
    const { selection } = this.desk;
    const measure = selection.openEnd + by;
    const note = this.walk?.inBar(Math.max(0, Math.min((this.desk.score?.measures.length ?? 1) - 1, measure)));
    if (note) this.choose(note.id, extend);
    else selection.step(by, extend);
  }

  /** Does what a verb says; one that needs a value asks for it. */
  does(verb: Verb): void {
    this.refused = '';
    if (!this.held) {
      const note = this.walk?.inBar(this.desk.selection.from);
      if (!note) return;
      this.held = { from: note.id, to: note.id };
    }
    if (verb.value === undefined) this.asking = verb;
    else this.puts(verb, verb.value);
  }

  /** Puts a value on the chosen notes. */
  puts(verb: Verb, value: string): void {
    const { score, reading } = this.desk;
    const { walk, held } = this;
    const [from, to] = [this.desk.note(held?.from), this.desk.note(held?.to)];
    if (!score || !walk || !from || !to) return;
    const [first, last] = lte(from.start, to.start) ? [from, to] : [to, from];
    const result = put(score, walk, reading.markings, verb, value, first, last, () => `mark-${nanoid()}`);
    if (isRefused(result)) {
      this.refused = result.refused;
      return;
    }
    this.asking = null;
    const { commands, what } = result;
    this.desk.act(commands.length === 1 ? commands[0] : { type: 'together', what: `${what} on ${commands.length} notes`, commands });
    this.open(result.marking);
    this.unexplained = result.against ? { id: result.marking, printed: result.against } : null;
  }

  /** Takes a marking in hand where it stands on the page; its note is chosen with it. */
  take(id: string): void {
    const marking = this.desk.reading.markings.find((m) => m.id === id);
    const walk = marking && this.walkOf(marking.part);
    if (!marking || !walk) return;
    const note = noteAtEnd(walk, this.desk.score!, marking, 'start');
    if (note && !this.chosen.has(note.id)) this.choose(note.id);
    this.open(id);
  }

  private open(id: string): void {
    this.desk.selection.openMarking = id;
    this.looking = null;
    this.refused = '';
    this.end = 'end';
  }

  /** Why a marking stands, in the teacher's words. */
  explain(words: string): void {
    const marking = this.desk.reading.markings.find((m) => m.id === this.unexplained?.id);
    if (marking && words.trim())
      this.desk.act({ type: 'change-marking', id: marking.id, change: { because: [...marking.because, { text: words.trim() }] } });
    this.unexplained = null;
  }

  remove(): void {
    const { marking } = this;
    if (!marking) return;
    this.desk.act({ type: 'remove-marking', id: marking.id });
    this.letGoOfMarks();
  }

  /** Puts an end of the opened marking on a note; a mark on one note goes to it. */
  endsOn(id: string, which = this.end): void {
    const { marking } = this;
    const note = this.desk.note(id);
    if (!marking || !note || note.part !== marking.part) return;
    const result = endOn(marking, isSpan(marking.kind) ? which : 'start', note);
    if (isRefused(result)) {
      this.refused = result.refused;
      return;
    }
    this.refused = '';
    this.desk.act({ type: 'change-marking', id: marking.id, change: result.change });
    this.checkPrint({ ...marking, ...result.change });
  }

  /** The end in hand goes to the note before or after. */
  stepEnd(by: number): void {
    const { marking, walk } = this;
    const { score } = this.desk;
    if (!marking || !walk || !score) return;
    const now = noteAtEnd(walk, score, marking, isSpan(marking.kind) ? this.end : 'start');
    let next = now && walk.along(now.id, by);
    while (next?.grace) next = walk.along(next.id, by);
    if (next) this.endsOn(next.id);
  }

  /** Moves the opened marking by staff spaces; across the staff it turns over. */
  shift(right: number, up: number): void {
    const { marking } = this;
    if (marking) this.desk.act({ type: 'change-marking', id: marking.id, change: { placing: movedBy(marking, right, up) } });
  }

  turnOver(side: 'above' | 'below'): void {
    const { marking } = this;
    if (marking) this.desk.act({ type: 'change-marking', id: marking.id, change: { placing: turnedOver(side) } });
  }

  private checkPrint(marking: Marking): void {
    const printed = this.desk.score && againstPrinted(this.desk.score, marking);
    this.unexplained = printed && !marking.because.length ? { id: marking.id, printed } : null;
  }

  keepProposal(): void {
    const { proposal } = this;
    if (!proposal) return;
    this.desk.keep(proposal);
    this.looking = null;
  }

  setProposalAside(): void {
    const { proposal } = this;
    if (!proposal) return;
    this.desk.act({ type: 'set-aside', key: proposal.key });
    this.looking = null;
  }

  /** On to the next marking or proposal at the chosen notes. @returns false where there is none */
  goOn(by: 1 | -1): boolean {
    const { markings, proposals } = this.here;
    const all = [...markings.map((m) => m.id), ...proposals.map((p) => p.key)];
    const at = all.indexOf(this.desk.selection.openMarking ?? this.looking ?? '');
    const next = at < 0 ? (by > 0 ? 0 : -1) : at + by;
    this.letGoOfMarks();
    if (next < 0 || next >= all.length) return false;
    if (next < markings.length) this.open(all[next]);
    else this.looking = all[next];
    return true;
  }

  /** From the first chosen note to the last, with their staff. */
  private stretch(): { from: Fraction; to: Fraction; staff: number } | null {
    const [a, b] = [this.desk.note(this.held?.from), this.desk.note(this.held?.to)];
    if (!a || !b) return null;
    return lte(a.start, b.start) ? { from: a.start, to: b.start, staff: a.staff } : { from: b.start, to: a.start, staff: a.staff };
  }

  /** A key that was pressed on the page. @returns true where it meant something */
  key({ key, shiftKey, ctrlKey, metaKey, altKey }: Pick<KeyboardEvent, 'key' | 'shiftKey' | 'ctrlKey' | 'metaKey' | 'altKey'>): boolean {
    const arrow = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[key];
    if (arrow && (ctrlKey || metaKey) && arrow[0]) this.toBar(arrow[0], shiftKey);
    else if (ctrlKey || metaKey || altKey) return false;
    else if (arrow) this.arrow(arrow[0], arrow[1], shiftKey);
    else if (key === 'Home' || key === 'End') this.toEdge(key === 'End', shiftKey);
    else if (key === 'PageUp' || key === 'PageDown') this.toBar(key === 'PageDown' ? 4 : -4, shiftKey);
    else if (key === 'Tab' && this.held) return this.goOn(shiftKey ? -1 : 1);
    else if (key === 'Escape' && (this.held || this.marking)) this.back();
    else if ((key === 'Delete' || key === 'Backspace') && this.marking) this.remove();
    else if ((key === 'Delete' || key === 'Backspace') && this.proposal) this.setProposalAside();
    else if (key === 'Enter' && this.proposal) this.keepProposal();
    else if (key === 'Enter' && this.held && !this.marking && this.lying.length) this.writeLying();
    else if (key.toLowerCase() === 'x' && this.marking) this.end = this.end === 'end' ? 'start' : 'end';
    else return this.letter(key);
    return true;
  }

  private arrow(right: number, up: number, shift: boolean): void {
    if (!this.marking) {
      if (right) this.step(right, shift);
      else this.across(up > 0);
    } else if (up) {
      if (shift) this.turnOver(up > 0 ? 'above' : 'below');
      else this.shift(0, up * STEP);
    } else if (shift) this.shift(right * STEP, 0);
    else this.stepEnd(right);
  }

  /** The figure that chooses a value while a verb asks: itself, where figures are chosen, else its number in the row. */
  figureOf(value: string): string {
    const choices = this.choices ?? [];
    if (choices.includes('1')) return value;
    const k = choices.indexOf(value) + 1;
    return k > 9 ? '' : String(k);
  }

  /** Letters and figures do something to notes, in the room's own words; while a verb asks, a figure is its answer. */
  private letter(key: string): boolean {
    if (this.asking && this.choices && /^\d$/.test(key)) {
      const value = this.choices.find((v) => this.figureOf(v) === key);
      if (value !== undefined) this.puts(this.asking, value);
      return true;
    }
    if (key.length !== 1) return false;
    const verb = verbOfKey(key, this.desk.instrumentOf(this.part));
    if (!verb) return false;
    this.does(verb);
    return true;
  }

  /** One thing after the other is let go: the question, the marking, the notes. */
  private back(): void {
    if (this.asking) this.asking = null;
    else if (this.marking || this.looking) this.letGoOfMarks();
    else this.none();
  }
}

/** What the arrow keys do to an opened marking, in the strip. */
export const handling = (m: Marking): string =>
  kindOf(m.kind).hangs === 'note' || kindOf(m.kind).hangs === 'moment' ? 'to another note' : 'its end; X the other end';

import { isSpan, kindOf } from '$core/markings/describe';
import type { Marking } from '$core/markings/marking';
import type { Note } from '$core/score/model';
import type { Pencil } from './pencil.svelte';

/** Engraver's units in a staff space. */
const SPACE = 180;
/** Pixels that the pointer may tremble before a click becomes a drag. */
const TREMBLE = 4;
/** Share of a stretch at either side by which its end is taken. */
const END_SHARE = 0.3;

/** A marking that is held by the pointer. */
interface Drag {
  marking: Marking;
  sign: SVGGElement;
  which: 'start' | 'end' | 'whole';
  x: number;
  y: number;
  /** Pixels of a staff space. */
  space: number;
  moved: boolean;
  /** Centre of the sign before it was moved, and of its staff, in pixels. */
  centre: number;
  staff: number;
}

/** Marks are taken hold of with the pointer: their ends go to notes, their heights where they are let go. */
export class Dragging {
  private drag: Drag | null = null;
  private goal: Element | null = null;

  constructor(
    private readonly page: HTMLElement,
    private readonly pencil: Pencil,
    private readonly note: (id: string) => Note | undefined
  ) {}

  /** @returns true where a marking was taken hold of */
  down(event: PointerEvent): boolean {
    const sign = event.target instanceof Element ? event.target.closest<SVGGElement>('.editorial[id]') : null;
    if (!sign || event.button !== 0) return false;
    this.pencil.take(sign.id);
    const { marking } = this.pencil;
    const matrix = sign.getScreenCTM();
    if (!marking || !matrix || marking.id !== sign.id) return false;
    const box = sign.getBoundingClientRect();
    const staff = sign.closest('g.measure')?.querySelector('g.staff')?.getBoundingClientRect();
    const share = (event.clientX - box.left) / Math.max(1, box.width);
    const which = !isSpan(marking.kind) ? 'whole' : share < END_SHARE ? 'start' : share > 1 - END_SHARE ? 'end' : 'whole';
    if (which !== 'whole') this.pencil.end = which;
    this.drag = {
      marking,
      sign,
      which,
      x: event.clientX,
      y: event.clientY,
      space: SPACE * matrix.a,
      moved: false,
      centre: box.top + box.height / 2,
      staff: staff ? staff.top + staff.height / 2 : 0
    };
    this.page.setPointerCapture(event.pointerId);
    return true;
  }

  move(event: PointerEvent): void {
    const { drag } = this;
    if (!drag) return;
    const [right, down] = [event.clientX - drag.x, event.clientY - drag.y];
    if (!drag.moved && Math.hypot(right, down) < TREMBLE) return;
    drag.moved = true;
    const scale = SPACE / drag.space;
    const along = drag.which === 'whole' && !isSpan(drag.marking.kind) ? right * scale : 0;
    drag.sign.setAttribute('transform', `translate(${along}, ${down * scale})`);
    this.show(drag.which === 'whole' && isSpan(drag.marking.kind) ? null : this.nearest(event, drag.marking));
  }

  up(event: PointerEvent): void {
    const { drag, goal } = this;
    this.cancel();
    if (!drag?.moved) return;
    const up = (drag.y - event.clientY) / drag.space;
    if (goal && drag.which !== 'whole') this.pencil.endsOn(goal.id, drag.which);
    else if (goal && goal.id !== drag.marking.note && Math.abs(event.clientX - drag.x) > drag.space) this.pencil.endsOn(goal.id, 'start');
    this.lift(drag, up);
  }

  /** Lets go without a change. */
  cancel(): void {
    this.drag?.sign.removeAttribute('transform');
    this.drag = null;
    this.show(null);
  }

  /** A sign that was put across its staff turns over; one that was moved on its side stays at its height. */
  private lift({ centre, staff, space, marking }: Drag, up: number): void {
    const now = centre - up * space;
    if (staff && Math.sign(centre - staff) !== Math.sign(now - staff) && Math.abs(now - staff) > 2 * space)
      this.pencil.turnOver(now < staff ? 'above' : 'below');
    else if (Math.abs(up) >= 0.25 && !['articulation', 'accent', 'harmonic', 'emendation'].includes(marking.kind)) this.pencil.shift(0, up);
  }

  private show(goal: Element | null): void {
    if (goal === this.goal) return;
    this.goal?.classList.remove('goal');
    goal?.classList.add('goal');
    this.goal = goal;
  }

  /** The note of the marking's staff that is nearest to the pointer; in the system under it. */
  private nearest(event: PointerEvent, marking: Marking): Element | null {
    const restsToo = kindOf(marking.kind).hangs === 'stretch' || kindOf(marking.kind).hangs === 'moment';
    let best: Element | null = null;
    let least = Infinity;
    for (const system of this.page.querySelectorAll('g.system')) {
      const area = system.getBoundingClientRect();
      const away = Math.max(0, area.top - event.clientY, event.clientY - area.bottom);
      if (away > area.height) continue;
      for (const sign of system.querySelectorAll(restsToo ? 'g.note, g.rest' : 'g.note')) {
        const note = this.note(sign.id);
        if (!note || note.part !== marking.part || note.staff !== marking.staff) continue;
        const box = sign.getBoundingClientRect();
        // Another system is far away, however near its notes stand in the line.
        const distance = Math.abs(box.left + box.width / 2 - event.clientX) + away * 20;
        if (distance < least) [best, least] = [sign, distance];
      }
    }
    return best;
  }
}

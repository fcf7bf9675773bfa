import { Typesetter } from '../edition/pages/typesetter.ts';
import type { Measure, Page, Picture } from '../edition/pages/page.ts';
import type { TextBlock, TextPart } from '../edition/text/blocks.ts';
import { PAPERS } from '../reading/page-settings.ts';
import { capital, listed } from '../sentences.ts';
import { TYPE } from '../style/page-weights.ts';
import { CARE, LISTENING } from '../style/practice.ts';
import { plural } from '../survey/line.ts';
import { inFull } from './plan/day.ts';
import type { PlannedDay } from './plan/days.ts';
import { MARKS } from './audition.ts';
import { inPlanOrder, isPerformance, OCCASIONS, type Plan, type Task } from './plan/plan.ts';

/** What a practice book may hold, in this order. */
export const BOOK_PARTS = { days: 'days', checks: 'checklists', listening: 'sheets for listeners', sheets: 'sheets' } as const;
export type BookPart = keyof typeof BOOK_PARTS;

export interface BookInput {
  plan: Plan;
  /** Whose it is; empty where nobody is named. */
  player: string;
  days: readonly PlannedDay[];
  parts: readonly BookPart[];
  /** Engraves a sheet; null where it is not there. Scale in points to a unit of the picture. */
  draw: (sheet: string) => { picture: Picture; scale: number } | null;
}

const text = (words: string, bold = false): TextBlock => ({
  type: 'paragraph',
  content: [{ type: 'text', text: words, ...(bold && { marks: [{ type: 'bold' }] }) }]
});

/** To be ticked with a pencil. */
const BOX = '[   ]';

/** What stands over a sheet: what it is for, how it goes, and from where to where. */
function tempoWords({ tempo }: Task): string {
  if (!tempo) return '';
  return tempo.start === tempo.goal ? `Quarter = ${tempo.goal}.` : `From quarter = ${tempo.start} up to ${tempo.goal}.`;
}

/** A plan on paper: its days, checklists to be ticked, and the notes of its tasks with the reasons. */
export function* bookPages({ plan, player, days, parts, draw }: BookInput, measure: Measure): Generator<Page> {
  const [width, height] = PAPERS.A4;
  const setter = new Typesetter(width, height, measure, plan.title);
  setter.head(player, `${capital(OCCASIONS[plan.occasion])} on ${inFull(plan.date)}; ${plan.minutes} minutes a day`);
  const tasks = inPlanOrder(plan);
  if (parts.includes('days')) setter.part({ title: 'Day by day', blocks: [daysTable(plan, days), text(CARE.pain)] });
  if (parts.includes('checks') && plan.checklist.length)
    for (const section of plan.checklist)
      setter.part({
        title: section.title,
        blocks: [
          {
            type: 'table',
            head: ['', 'on', 'on', 'on'],
            widths: [0.64, 0.12, 0.12, 0.12],
            rows: section.checks.map((c) => [c.text, BOX, BOX, BOX])
          }
        ]
      });
  if (parts.includes('listening') && isPerformance(plan.occasion) && plan.pieces.length) setter.part(listeningSheet(plan));
  yield* setter.finished();
  if (parts.includes('sheets'))
    for (const piece of plan.pieces) {
      const own = tasks.filter((t) => t.piece === piece.id && t.sheet && t.kind !== 'run' && t.kind !== 'slow-run' && t.kind !== 'listen');
      let first = true;
      for (const t of own) {
        const drawn = draw(t.sheet!);
        const most = setter.bottom - TYPE.margin - 90;
        const scale = drawn ? Math.min(drawn.scale, most / drawn.picture.height) : 1;
        // What is said of a sheet stands over it, on its page.
        setter.keep((drawn ? drawn.picture.height * scale : 0) + 90 + (first ? 30 : 0));
        if (first) setter.entry(piece.title, 0);
        const words = [`${capital(t.because)}.`, t.how, tempoWords(t)].filter(Boolean).join(' ');
        setter.part({ title: first ? `${piece.title}: ${t.title}` : t.title, blocks: [text(words)] });
        if (drawn) setter.picture(drawn.picture, scale);
        first = false;
        yield* setter.finished();
      }
    }
  yield* setter.end();
}

/** What listeners mark while they hear one take. */
function listeningSheet(plan: Plan): TextPart {
  const asked = plan.pieces.map((p) => {
    const tempo = p.tempo ? `, quarter = ${p.tempo.low === p.tempo.high ? p.tempo.low : `${p.tempo.low} to ${p.tempo.high}`}` : '';
    return `${p.title}${tempo}${p.cuts ? ` (${p.cuts})` : ''}`;
  });
  return {
    title: 'For those who listen',
    blocks: [
      text(`One take, in the order that the lot gives: ${listed(asked, ';')}.`),
      ...(plan.strategy ? [text(plan.strategy)] : []),
      {
        type: 'table',
        head: ['', ...Object.values(MARKS)],
        widths: [0.64, 0.12, 0.12, 0.12],
        rows: LISTENING.map((l) => [l.asks, BOX, BOX, BOX])
      }
    ]
  };
}

function daysTable(plan: Plan, days: readonly PlannedDay[]): TextBlock {
  const tasks = new Map(plan.tasks.map((t) => [t.key, t]));
  const rows = days.map((d) => {
    const what =
      d.kind === 'performance'
        ? capital(OCCASIONS[plan.occasion])
        : d.kind === 'rest'
          ? 'Rest'
          : d.items.map((i) => `${tasks.get(i.task)?.title ?? ''} (${plural(i.minutes, 'minute')})`).join('; ') || '–';
    return [
      inFull(d.day),
      what,
      d.items.length
        ? plural(
            d.items.reduce((n, i) => n + i.minutes, 0),
            'minute'
          )
        : ''
    ];
  });
  return { type: 'table', head: ['Day', 'What', 'How long'], rows, widths: [0.22, 0.64, 0.14] };
}

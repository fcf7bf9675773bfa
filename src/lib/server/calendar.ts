import ical, { ICalCalendarMethod } from 'ical-generator';
import { capital } from '../../core/sentences.ts';
import { addDays } from '../../core/rehearsal/plan/day.ts';
import type { PlannedDay } from '../../core/rehearsal/plan/days.ts';
import { OCCASIONS, type Plan } from '../../core/rehearsal/plan/plan.ts';

/** The days of a plan as an iCalendar file (RFC 5545): a day keeps its name, so that a newer file replaces an older one. */
export function calendarOf(plan: Plan, days: readonly PlannedDay[]): string {
  const calendar = ical({
    name: plan.title,
    prodId: { company: 'Nuvelo', product: 'Practice', language: 'EN' },
    method: ICalCalendarMethod.PUBLISH
  });
  const tasks = new Map(plan.tasks.map((t) => [t.key, t]));
  for (const { day, kind, items } of days) {
    if (!items.length && kind !== 'performance') continue;
    const minutes = items.reduce((n, i) => n + i.minutes, 0);
    calendar.createEvent({
      id: `${plan.key}-${day}@nuvelo`,
      start: day,
      end: addDays(day, 1),
      allDay: true,
      summary:
        kind === 'performance' ? `${capital(OCCASIONS[plan.occasion])}: ${plan.title}` : `Practise ${minutes} minutes: ${plan.title}`,
      description: items.map((i) => `${i.minutes} min  ${tasks.get(i.task)?.title ?? ''}`).join('\n')
    });
  }
  return calendar.toString();
}

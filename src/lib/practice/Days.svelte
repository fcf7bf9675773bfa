<script lang="ts">
  import { untrack } from 'svelte';
  import { SelectItem } from 'carbon-components-svelte';
  import { addDays, inFull, inShort, weekday, WEEKDAYS, type Day } from '$core/rehearsal/plan/day';
  import { PLANNED, type PlannedDay } from '$core/rehearsal/plan/days';
  import { OCCASIONS } from '$core/rehearsal/plan/plan';
  import { FELT } from '$core/rehearsal/plan/visit';
  import { capital } from '$core/sentences';
  import { plural } from '$core/survey/line';
  import Act from '../controls/Act.svelte';
  import Choice from '../controls/Choice.svelte';
  import Stepper from '../controls/Stepper.svelte';
  import type { Practice } from './practice.svelte';

  /** The days of a plan week by week: what was done, what is planned; dragged from day to day, or moved by a choice. */
  const { practice }: { practice: Practice } = $props();

  /** Weeks that are seen at once. */
  const WEEKS = 3;
  /** The Monday of a day's week. */
  const monday = (day: Day): Day => addDays(day, -((weekday(day) + 6) % 7));
  let from = $state(untrack(() => monday(practice.today)));
  const shown = $derived(Array.from({ length: 7 * WEEKS }, (_, k) => addDays(from, k)));
  const planned = $derived(new Map(practice.days.days.map((d) => [d.day, d])));
  const done = $derived.by(() => {
    const days = new Map<Day, typeof practice.visits>();
    for (const v of practice.visits) days.set(v.day, [...(days.get(v.day) ?? []), v]);
    return days;
  });
  let chosen = $state<{ task: string; day: Day } | null>(null);
  let dragged = $state<{ task: string; day: Day } | null>(null);
  let over = $state<Day | null>(null);
  const task = $derived(chosen && practice.tasks.get(chosen.task));
  const item = $derived(chosen && planned.get(chosen.day)?.items.find((i) => i.task === chosen!.task));
  const targets = $derived(practice.days.days.filter((d) => d.kind === 'practice'));

  const title = (key: string): string => practice.tasks.get(key)?.title ?? 'A task that is gone';
  const minutes = (d: PlannedDay): number => d.items.reduce((n, i) => n + i.minutes, 0);

  function move(what: { task: string; day: Day }, to: Day): void {
    if (what.day === to) return;
    practice.move(what.task, what.day, to);
    if (!practice.fault) chosen = { task: what.task, day: to };
  }

  function drop(event: DragEvent, to: Day): void {
    event.preventDefault();
    over = null;
    if (dragged) move(dragged, to);
    dragged = null;
  }
</script>

<div class="weeks">
  <p class="acts not-printed">
    <Act onclick={() => (from = addDays(from, -7))}>Earlier</Act>
    <Act onclick={() => (from = monday(practice.today))}>This week</Act>
    <Act onclick={() => (from = addDays(from, 7))}>Later</Act>
  </p>
  <div class="grid" role="list" aria-label="Days">
    {#each shown as day (day)}
      {@const plan = planned.get(day)}
      {@const visits = done.get(day) ?? []}
      <section
        role="listitem"
        class="day"
        class:today={day === practice.today}
        class:over={over === day}
        class:outside={!plan && !visits.length}
        class:rest={plan?.kind === 'rest'}
        aria-label={inFull(day)}
        data-testid="day-{day}"
        ondragover={(event) => {
          if (!dragged) return;
          event.preventDefault();
          over = day;
        }}
        ondragleave={() => over === day && (over = null)}
        ondrop={(event) => drop(event, day)}
      >
        <p class="head">
          <span>{WEEKDAYS[weekday(day)].slice(0, 3)} {inShort(day)}</span>
          <span class="quiet">{plan?.items.length ? `${minutes(plan)} min` : ''}</span>
        </p>
        {#if visits.length}
          <p class="done" title={[...new Set(visits.map((v) => title(v.task)))].join(', ')}>
            {Math.round(visits.reduce((n, v) => n + v.seconds, 0) / 60)} min done, {plural(new Set(visits.map((v) => v.task)).size, 'task')}
          </p>
        {/if}
        {#if plan?.kind === 'performance'}<p class="performance">{capital(OCCASIONS[practice.plan.occasion])}</p>
        {:else if plan?.kind === 'rest'}<p class="quiet">rest</p>{/if}
        {#each plan?.items ?? [] as i (i.task)}
          <button
            type="button"
            class="planned"
            class:chosen={chosen?.task === i.task && chosen.day === day}
            class:fresh={i.why === 'new'}
            draggable="true"
            ondragstart={() => (dragged = { task: i.task, day })}
            ondragend={() => (dragged = null)}
            onclick={() => (chosen = { task: i.task, day })}
            data-testid="planned"><span>{title(i.task)}</span><span class="quiet">{i.minutes}</span></button
          >
        {/each}
      </section>
    {/each}
  </div>
  {#if chosen && task && item}
    <aside class="chosen-task not-printed" aria-label="The chosen task">
      <p><strong>{task.title}</strong> <span class="quiet">{inFull(chosen.day)}: {PLANNED[item.why]}; {task.because}</span></p>
      <p>{task.how}</p>
      <div class="acts">
        <Choice label="On" value={chosen.day} onchange={(day) => move(chosen!, day)}
          >{#each targets as d (d.day)}<SelectItem value={d.day} text={inFull(d.day)} />{/each}</Choice
        >
        <Stepper
          label="minutes a visit"
          value={task.minutes}
          less="Shorter"
          more="Longer"
          onless={task.minutes > 2 ? () => practice.changeTask(task.key, { minutes: task.minutes - 1 }) : null}
          onmore={() => practice.changeTask(task.key, { minutes: task.minutes + 1 })}
        />
        <Act
          onclick={() => {
            practice.removeTask(task.key);
            chosen = null;
          }}>Take out of the plan</Act
        >
        {#if task.bars}<a href="/pieces/{task.piece}/rehearse?bar={task.bars.from}">Show in the piece</a>{/if}
      </div>
      {#each practice.visits.filter((v) => v.task === task.key && (v.words || v.hard || v.felt)).slice(-3) as v (v.id)}
        <p class="quiet">{inShort(v.day)}: {[v.felt && FELT[v.felt], v.hard && `hard: ${v.hard}`, v.words].filter(Boolean).join('; ')}</p>
      {/each}
    </aside>
  {/if}
  {#if practice.days.left.length}
    <p class="left" data-testid="left">
      Not planned: {practice.days.left.map((l) => `${title(l.task)} (${l.because})`).join('; ')}.
    </p>
  {/if}
</div>

<style>
  .weeks {
    display: flex;
    flex-direction: column;
    gap: 0.5rem;
  }

  .grid {
    display: grid;
    grid-template-columns: repeat(7, minmax(0, 1fr));
    gap: 0.35rem;
  }

  .day {
    min-height: 5.5rem;
    padding: 0.3rem 0.4rem;
    background: var(--raised);
    border-top: 2px solid var(--line);
    font-size: 0.85rem;
  }

  .today {
    border-top-color: var(--edition);
  }

  .over {
    background: var(--selected);
  }

  .rest,
  .outside {
    background: none;
  }

  .outside {
    opacity: 0.75;
  }

  .head {
    display: flex;
    justify-content: space-between;
    padding-bottom: 0.2rem;
  }

  .done {
    color: var(--muted);
    font-size: 0.8rem;
  }

  .performance {
    font-weight: 600;
    color: var(--edition);
  }

  .planned {
    display: flex;
    justify-content: space-between;
    gap: 0.3rem;
    width: 100%;
    padding: 0.2rem 0.3rem;
    margin: 0.15rem 0;
    border: 1px solid var(--line);
    background: var(--paper);
    color: var(--ink);
    font: inherit;
    text-align: left;
    cursor: grab;
  }

  .fresh span:first-child {
    font-weight: 600;
  }

  .planned.chosen {
    border-color: var(--edition);
  }

  .chosen-task {
    position: sticky;
    bottom: -1rem;
    background: var(--panel);
    padding: 0.4rem 0.8rem 0.6rem;
    border-top: 1px solid var(--line);
  }

  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 1rem;
    align-items: baseline;
  }

  @media (max-width: 760px) {
    .grid {
      grid-template-columns: minmax(0, 1fr);
    }

    .day {
      min-height: 0;
    }

    .outside {
      display: none;
    }
  }
</style>

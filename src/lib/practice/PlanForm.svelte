<script lang="ts">
  import { untrack } from 'svelte';
  import { Button, SelectItem } from 'carbon-components-svelte';
  import type { Player } from '$core/players/player';
  import { addDays, dayOf, WEEKDAYS, type Day } from '$core/rehearsal/plan/day';
  import { OCCASIONS, type Occasion, type Plan } from '$core/rehearsal/plan/plan';
  import { capital } from '$core/sentences';
  import Choice from '../controls/Choice.svelte';
  import Field from '../controls/Field.svelte';
  import Tick from '../controls/Tick.svelte';

  type About = Pick<Plan, 'title' | 'player' | 'occasion' | 'date' | 'minutes' | 'rest'>;
  interface Props {
    players: readonly Player[];
    /** Who it is likely for, by key. */
    player: string | null;
    /** What it is about already, where it is changed. */
    about?: About;
    word: string;
    busy?: boolean;
    ondone: (about: About) => void;
  }
  const { players, player, about, word, busy = false, ondone }: Props = $props();

  const today = dayOf(new Date());
  /** Days until the date of a plan for which none is named. */
  const USUAL_DAYS = 21;
  const first = untrack(() => about);
  let title = $state(first?.title ?? '');
  let whose = $state(untrack(() => first?.player ?? player ?? ''));
  let occasion = $state<Occasion>(first?.occasion ?? 'lesson');
  let date = $state<Day>(first?.date ?? addDays(today, USUAL_DAYS));
  let minutes = $state(first?.minutes ?? 30);
  let rest = $state<number[]>(first?.rest ?? [0]);

  const name = $derived(players.find((p) => p.key === whose)?.name);
  const suggested = $derived(`${name ? `${name}: ` : ''}until the ${OCCASIONS[occasion]}`);
  const fault = $derived(
    !date || date < today
      ? 'The date lies before today.'
      : !(Number(minutes) >= 5)
        ? 'Give five minutes a day at least.'
        : rest.length > 6
          ? 'Leave one day of the week for practice.'
          : ''
  );

  function done(event: SubmitEvent): void {
    event.preventDefault();
    if (fault) return;
    ondone({
      title: title.trim() || capital(suggested),
      player: whose || null,
      occasion,
      date,
      minutes: Math.round(Number(minutes)),
      rest
    });
  }
</script>

<form onsubmit={done}>
  <Field label="Name" bind:value={title} maxlength={120} placeholder={capital(suggested)} />
  <Choice label="For" bind:value={whose}
    ><SelectItem value="" text="nobody in particular" />{#each players as p (p.key)}<SelectItem
        value={p.key}
        text={p.name}
      />{/each}</Choice
  >
  <Choice label="Until the" bind:value={() => occasion, (v) => (occasion = v as Occasion)}
    >{#each Object.keys(OCCASIONS) as key (key)}<SelectItem value={key} text={OCCASIONS[key as Occasion]} />{/each}</Choice
  >
  <Field label="On" type="date" min={today} bind:value={date} />
  <Field label="Minutes a day" type="number" min="5" max="600" bind:value={minutes} />
  <fieldset>
    <legend>Days of rest</legend>
    {#each [1, 2, 3, 4, 5, 6, 0] as day (day)}
      <Tick
        label={WEEKDAYS[day].slice(0, 3)}
        checked={rest.includes(day)}
        onchange={(on) => (rest = on ? [...rest, day].sort() : rest.filter((d) => d !== day))}
      />
    {/each}
  </fieldset>
  <p>
    <Button size="small" type="submit" disabled={Boolean(fault) || busy}>{busy ? 'Working out …' : word}</Button>
    <span class="quiet" role="status">{fault}</span>
  </p>
</form>

<style>
  form {
    display: flex;
    flex-direction: column;
    gap: 0.45rem;
    align-items: flex-start;
  }

  fieldset {
    border: 0;
    padding: 0;
    display: flex;
    flex-wrap: wrap;
    gap: 0.1rem 0.7rem;
  }

  legend {
    color: var(--muted);
    font-size: 0.9rem;
  }
</style>

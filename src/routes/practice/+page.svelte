<script lang="ts">
  import { untrack } from 'svelte';
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import { nanoid } from 'nanoid';
  import Act from '$lib/controls/Act.svelte';
  import PlanForm from '$lib/practice/PlanForm.svelte';
  import { api } from '$lib/api';
  import { sentenceOf } from '$lib/workspace/latest';
  import { dayOf, daysBetween, inFull } from '$core/rehearsal/plan/day';
  import { newPlan, OCCASIONS, planContentOf, type Plan } from '$core/rehearsal/plan/plan';

  const { data } = $props();

  let plans = $state.raw(untrack(() => data.plans));
  let gone = $state.raw<Plan | null>(null);
  let beginning = $state(false);
  let fault = $state('');
  let today = $state('');
  onMount(() => (today = dayOf(new Date())));

  const nameOf = (key: string | null): string => data.players.find((p) => p.key === key)?.name ?? 'Nobody in particular';
  const now = $derived(plans.filter((p) => p.date >= today).sort((a, b) => a.date.localeCompare(b.date)));
  const over = $derived(plans.filter((p) => p.date < today));
  const whose = $derived([...new Set(now.map((p) => p.player))]);

  const keep = (plan: Plan) => api.post({ id: '', method: 'PUT', address: api.planAddress(plan.key), body: planContentOf(plan) });

  async function begin(about: Pick<Plan, 'title' | 'player' | 'occasion' | 'date' | 'minutes' | 'rest'>): Promise<void> {
    const plan = { ...newPlan(nanoid(), about.player, about.title, today, about.date), ...about };
    try {
      await keep(plan);
      await goto(`/practice/${plan.key}`);
    } catch (error) {
      fault = sentenceOf(error);
    }
  }

  async function remove(plan: Plan): Promise<void> {
    try {
      await api.post({ id: '', method: 'DELETE', address: api.planAddress(plan.key), body: null });
      plans = plans.filter((p) => p.key !== plan.key);
      gone = plan;
    } catch (error) {
      fault = sentenceOf(error);
    }
  }

  async function takeBack(plan: Plan): Promise<void> {
    try {
      await keep(plan);
      plans = [...plans, plan];
      gone = null;
    } catch (error) {
      fault = sentenceOf(error);
    }
  }

  function left(plan: Plan): string {
    const days = daysBetween(today, plan.date);
    return days === 0 ? 'today' : days === 1 ? 'tomorrow' : `in ${days} days`;
  }
</script>

<svelte:head><title>Practice · Nuvelo</title></svelte:head>

{#snippet line(plan: Plan)}
  <li data-testid="plan">
    <a href="/practice/{plan.key}">{plan.title}</a>
    <span class="quiet"
      >{OCCASIONS[plan.occasion]}, {inFull(plan.date)}{plan.date >= today ? `, ${left(plan)}` : ''}; {plan.minutes} minutes a day</span
    >
    <span class="acts">
      {#if plan.date >= today}<a href="/practice/{plan.key}/session">Practise now</a>{/if}
      <Act onclick={() => void remove(plan)} aria-label="Take away: {plan.title}">Take away</Act>
    </span>
  </li>
{/snippet}

<!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls, and must do so from the keyboard) -->
<div class="sheet-page" tabindex="0" role="region" aria-label="Practice">
  <h1>Practice</h1>
  <p class="quiet">
    Plans until a lesson, a jury, an audition, each of one player. They grow in the Rehearse room of a piece: hard places, drills, and
    whatever you mark.
  </p>
  {#if gone}<p role="status">“{gone.title}” is taken away. <Act onclick={() => void takeBack(gone!)}>Take it back</Act></p>{/if}
  {#if fault}<p role="alert">{fault}</p>{/if}
  {#each whose as key (key)}
    <h2>{nameOf(key)}</h2>
    <ul>
      {#each now.filter((p) => p.player === key) as plan (plan.key)}{@render line(plan)}{/each}
    </ul>
  {:else}
    <p class="empty">No plan is under way. Open a piece, go to Rehearse, and begin one there; or begin an empty one here.</p>
  {/each}
  {#if over.length}
    <h2>Over</h2>
    <ul>
      {#each over as plan (plan.key)}{@render line(plan)}{/each}
    </ul>
  {/if}
  <h2>Another plan</h2>
  {#if beginning}
    <PlanForm players={data.players} player={null} word="Begin an empty plan" ondone={(about) => void begin(about)} />
  {:else}<Act onclick={() => (beginning = true)}>Begin a plan …</Act>{/if}
</div>

<style>
  .sheet-page {
    height: 100%;
    overflow-y: auto;
    padding: 1.5rem max(1rem, calc((100% - 60rem) / 2));
    box-sizing: border-box;
  }

  h2 {
    padding: 1.1rem 0 0.2rem;
    border-bottom: 1px solid var(--line);
  }

  ul {
    list-style: none;
    padding: 0;
    margin: 0;
  }

  li {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 1rem;
    align-items: baseline;
    padding: 0.4rem 0;
    border-bottom: 1px solid var(--line);
  }

  .acts {
    margin-left: auto;
    display: flex;
    gap: 1rem;
    align-items: baseline;
  }

  .empty {
    padding: 1.5rem 0;
  }
</style>

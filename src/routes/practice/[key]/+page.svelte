<script lang="ts">
  import { api } from '$lib/api';
  import Act from '$lib/controls/Act.svelte';
  import Fold from '$lib/controls/Fold.svelte';
  import Tabs from '$lib/frame/Tabs.svelte';
  import Audition from '$lib/practice/Audition.svelte';
  import CheckSections from '$lib/practice/CheckSections.svelte';
  import Days from '$lib/practice/Days.svelte';
  import { usePractice } from '$lib/practice/context';
  import PlanForm from '$lib/practice/PlanForm.svelte';
  import Progress from '$lib/practice/Progress.svelte';
  import { undoKey } from '$lib/undo.svelte';
  import TuneSets from '$lib/practice/TuneSets.svelte';
  import { inFull } from '$core/rehearsal/plan/day';
  import { OCCASIONS } from '$core/rehearsal/plan/plan';
  import { SOURCES } from '$core/style/bibliography';
  import { CARE, PRACTICE_REASONS } from '$core/style/practice';

  const { data } = $props();

  const TABS = {
    days: 'Days',
    checks: 'Checklist',
    progress: 'Progress',
    audition: 'Audition',
    sets: 'Sets',
    settings: 'Settings'
  } as const;
  let tab = $state<keyof typeof TABS>('days');
  const held = usePractice();
  const practice = $derived(held.current?.practice ?? null);
  const outbox = $derived(held.current?.outbox ?? null);
  const plan = $derived(practice?.plan ?? data.state.plan);
  const player = $derived(data.players.find((p) => p.key === plan.player));
</script>

<svelte:window onkeydown={(event) => practice && undoKey(event, practice)} />
<svelte:head><title>{plan.title} · Nuvelo</title></svelte:head>

<!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls, and must do so from the keyboard) -->
<div class="plan" tabindex="0" role="region" aria-label="Plan">
  <header>
    <h1>{plan.title}</h1>
    <span class="quiet"
      >{player?.name ?? 'nobody in particular'}; {OCCASIONS[plan.occasion]}, {inFull(plan.date)}; {plan.minutes} minutes a day</span
    >
    <span class="acts not-printed">
      <a class="start" href="/practice/{plan.key}/session">Practise now</a>
      {#if practice}
        <Act onclick={() => practice.undo()} disabled={!practice.canUndo}>Undo</Act>
        <Act onclick={() => practice.redo()} disabled={!practice.canRedo}>Redo</Act>
        <span class="quiet" role="status" data-testid="saved">{outbox?.waiting ? 'keeping …' : 'all saved'}</span>
      {/if}
    </span>
  </header>
  {#if practice && outbox}
    {#if outbox.fault}<p role="alert">{outbox.fault}</p>{/if}
    {#if practice.fault}<p role="alert">{practice.fault}</p>{/if}
    {#if plan.stopped}
      <p class="stopped" role="alert">
        {CARE.pain} Nothing is planned until it is well.
        <Act onclick={() => practice.change({ stopped: false })}>It is well again: plan on</Act>
      </p>
    {/if}
    <p class="acts not-printed">
      {#if plan.pieces.length}Pieces: {#each plan.pieces as p (p.id)}<a href="/pieces/{p.id}/rehearse?reading={p.reading}">{p.title}</a
          >{/each}
      {:else}<span class="quiet">No piece yet: open one, go to Rehearse, and take it into this plan.</span>{/if}
      <span class="files">
        <a href={api.bookAddress(plan.key, practice.today)} download>Practice book (PDF)</a>
        <a href={api.calendarAddress(plan.key, practice.today)} download>Calendar file</a>
        <Act onclick={() => window.print()}>Print these weeks</Act>
      </span>
    </p>
    <Tabs tabs={TABS} bind:tab label="Plan">
      {#if tab === 'days'}<Days {practice} />
        <div class="not-printed">
          <Fold label="Why the days look so">
            {#each PRACTICE_REASONS as r (r.says)}<p class="quiet">{r.says} <cite>{SOURCES[r.source].full}</cite></p>{/each}
            <p class="quiet">{CARE.rest} {CARE.pain}</p>
          </Fold>
        </div>
      {:else if tab === 'checks'}<CheckSections {practice} />
      {:else if tab === 'progress'}<Progress {practice} />
      {:else if tab === 'audition'}<Audition {practice} />
      {:else if tab === 'sets'}<TuneSets {practice} shelf={data.shelf} />
      {:else}
        <PlanForm
          players={data.players}
          player={plan.player}
          about={plan}
          word="Change the plan"
          ondone={(about) => {
            practice.change(about);
            tab = 'days';
          }}
        />
      {/if}
    </Tabs>
  {:else}
    <p class="quiet">Opening the plan …</p>
  {/if}
</div>

<style>
  .plan {
    height: 100%;
    overflow-y: auto;
    padding: 1rem max(1rem, calc((100% - 78rem) / 2));
    box-sizing: border-box;
  }

  header,
  .acts {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0.3rem 1.1rem;
  }

  header .acts,
  .files {
    margin-left: auto;
  }

  .files {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 1.1rem;
    align-items: baseline;
  }

  .start {
    font-weight: 600;
  }

  .plan :global(.bx--tab-content) {
    padding-top: 0.7rem;
  }

  .stopped {
    border-left: 3px solid var(--edition);
    padding: 0.4rem 0.8rem;
  }

  @media print {
    .plan {
      height: auto;
      overflow: visible;
    }

    .plan :global(.bx--tabs) {
      display: none;
    }
  }
</style>

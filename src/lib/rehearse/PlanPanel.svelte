<script lang="ts">
  import { SelectItem } from 'carbon-components-svelte';
  import { inFull } from '$core/rehearsal/plan/day';
  import { inPlanOrder, OCCASIONS } from '$core/rehearsal/plan/plan';
  import Act from '../controls/Act.svelte';
  import Choice from '../controls/Choice.svelte';
  import PlanForm from '../practice/PlanForm.svelte';
  import type { Workspace } from '../workspace/workspace.svelte';

  /** The plan that the tasks of this piece go to: chosen, begun, and what is in it. */
  const { workspace }: { workspace: Workspace } = $props();

  const { practice } = $derived(workspace);
  const { open } = $derived(practice);
  let beginning = $state(false);
  const isIn = $derived(open?.plan.pieces.some((p) => p.id === practice.pieceId) ?? false);
  const tasks = $derived(open ? inPlanOrder(open.plan).filter((t) => t.piece === practice.pieceId) : []);
  const others = $derived(
    (practice.plans ?? []).filter((p) => p.date >= (open?.today ?? '') && !practice.own.some((o) => o.key === p.key))
  );

  $effect(() => {
    void practice.need();
    // How long the piece lasts is wanted for its run-throughs.
    workspace.needPerformance();
  });
</script>

{#if practice.plans === null}
  <p class="quiet">Fetching the plans …</p>
{:else if beginning || !open}
  <h3>A plan until a date</h3>
  <p class="quiet">
    With the hard places of this piece, run-throughs and a checklist; drills and whatever you mark are added as you go. Passages alternate
    and come back spread over the days.
  </p>
  <PlanForm
    players={workspace.data.players}
    player={workspace.reading.player?.key ?? null}
    word="Begin the plan"
    busy={practice.busy}
    ondone={(about) => void practice.begin(about).then(() => (beginning = false))}
  />
  {#if open}<Act onclick={() => (beginning = false)}>Never mind</Act>{/if}
  {#if !open && practice.plans.length}
    <p>
      <Choice label="or join" value="" onchange={(key) => void practice.choose(key)}
        ><SelectItem value="" text="a plan that is there" />{#each practice.plans as p (p.key)}<SelectItem
            value={p.key}
            text={p.title}
          />{/each}</Choice
      >
    </p>
  {/if}
{:else}
  <p class="acts">
    <Choice label="Plan" value={open.plan.key} onchange={(key) => void practice.choose(key)}
      >{#each [...practice.own, ...others] as p (p.key)}<SelectItem value={p.key} text={p.title} />{/each}</Choice
    >
    <Act onclick={() => (beginning = true)}>Another plan</Act>
  </p>
  <p>
    {inFull(open.plan.date)}, {OCCASIONS[open.plan.occasion]}; {open.plan.minutes} minutes a day.
    <a href="/practice/{open.plan.key}">Open the plan</a> · <a href="/practice/{open.plan.key}/session">Practise now</a>
  </p>
  {#if open.fault}<p role="alert">{open.fault}</p>{/if}
  {#if !isIn}
    <p class="acts"><Act onclick={() => void practice.join(open)}>Take this piece into it</Act></p>
  {/if}
  <p class="acts">
    <Act onclick={() => open.undo()} disabled={!open.canUndo}>Undo in the plan</Act>
    <Act onclick={() => open.redo()} disabled={!open.canRedo}>Redo</Act>
  </p>
  {#each tasks as task (task.key)}
    <article data-testid="task">
      <p>
        {#if task.bars}<Act onclick={() => workspace.selection.bar(task.bars!.from)}>{task.title}</Act>{:else}{task.title}{/if}
        <span class="quiet">{task.minutes} min; {task.because}</span>
      </p>
      <Act onclick={() => open.removeTask(task.key)} aria-label="Take away: {task.title}">Take away</Act>
    </article>
  {:else}
    <p class="quiet">Nothing of this piece is in the plan yet.</p>
  {/each}
{/if}

<style>
  article {
    display: flex;
    justify-content: space-between;
    gap: 0.6rem;
    align-items: baseline;
    padding: 0.25rem 0;
    border-top: 1px solid var(--line);
  }

  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.9rem;
    align-items: baseline;
  }
</style>

<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import Choice from '$lib/controls/Choice.svelte';
  import Menu from '$lib/frame/Menu.svelte';
  import { SelectItem } from 'carbon-components-svelte';
  import { levelName } from '$core/reading/dynamic-plan';
  import { handName } from '$core/reading/hands';
  import { DYNAMIC_STEPS } from '$core/style/dynamics';
  import type { Workspace } from '../workspace/workspace.svelte';
  import { barName, letGo, nudge, planSays, PUSH } from './plan';

  const { workspace }: { workspace: Workspace } = $props();

  /** Steps to which a plan may be held down. */
  const CEILINGS = [3, 4, 5, 6, 7, 8];
  const selected = $derived(workspace.selection);
  const plan = $derived(workspace.plan);
</script>

{#if plan}
  <Menu label="Plan">
    <span data-testid="plan-level">{planSays(workspace)}</span>
    <span class="quiet" data-testid="plan-peak"
      >Peak {barName(workspace, plan.peak.measure).toLowerCase()}, {levelName(plan.peak.level)}</span
    >
    <span class="acts">
      <Act onclick={() => nudge(workspace, PUSH)}>Louder</Act>
      <Act onclick={() => nudge(workspace, -PUSH)}>Softer</Act>
      {#if plan.bars.slice(selected.from, selected.to + 1).some((b) => b.pulled)}<Act onclick={() => letGo(workspace)}
          >Let {selected.from === selected.to ? 'the bar' : 'these bars'} go</Act
        >{/if}
    </span>
    <span class="acts">
      <Act onclick={() => workspace.act({ type: 'set-peak', measure: selected.from })}>Peak here</Act>
      {#if workspace.reading.plan.peak !== null}
        <Act onclick={() => workspace.act({ type: 'set-peak', measure: null })}>Let the peak go</Act>
      {/if}
    </span>
    {#if workspace.hands.length > 1}
      <Choice label="Plan of the" value={workspace.hand} onchange={(value) => (workspace.chosenHand = Number(value))} data-testid="hand">
        {#each workspace.hands as staff (staff)}<SelectItem value={staff} text={handName(staff)} />{/each}
      </Choice>
    {/if}
    <Choice
      label="Ceiling"
      value={workspace.reading.plan.ceiling ?? ''}
      onchange={(value) => workspace.act({ type: 'set-ceiling', level: value === '' ? null : Number(value) })}
    >
      <SelectItem value="" text="none" />
      {#each CEILINGS as step (step)}<SelectItem value={step} text={DYNAMIC_STEPS[step]} />{/each}
    </Choice>
  </Menu>
{/if}

<style>
  .acts {
    display: flex;
    gap: 1rem;
  }
</style>

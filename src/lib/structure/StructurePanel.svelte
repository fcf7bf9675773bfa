<script lang="ts">
  import InPrint from '$lib/writing/InPrint.svelte';
  import Act from '$lib/controls/Act.svelte';
  import { pinWords } from '$core/analysis/pins';
  import { placeName } from '$core/reading/moments';
  import type { Workspace } from '../workspace/workspace.svelte';
  import Tabs from '../frame/Tabs.svelte';
  import Form from './Form.svelte';
  import Harmony from './Harmony.svelte';
  import Lines from './Lines.svelte';

  const { workspace, onparallel }: { workspace: Workspace; onparallel: (id: string) => void } = $props();

  const TABS = { harmony: 'Harmony', form: 'Form', lines: 'Lines', corrections: 'Corrections' } as const;
  type Tab = keyof typeof TABS;
  let tab = $state<Tab>('harmony');

  const score = $derived(workspace.score);
  const title = $derived.by(() => {
    if (!score) return '';
    const [a, b] = [score.measures[workspace.selection.from], score.measures[workspace.selection.to]];
    return a === b ? workspace.barName(a) : `Bars ${a.number} to ${b.number}`;
  });
</script>

<aside class="side-panel" aria-label="Facts and corrections">
  {#if score}
    <header>
      <h2 data-testid="brief-title">{title}</h2>
      {#if workspace.study.busy}<span class="quiet" role="status">working it out …</span>{/if}
    </header>
    <InPrint
      paper={workspace.data.paper}
      bar={workspace.selection.from}
      name={workspace.barName(score.measures[workspace.selection.from])}
    />
    <Tabs
      tabs={{ ...TABS, corrections: workspace.reading.pins.length ? `Corrections (${workspace.reading.pins.length})` : 'Corrections' }}
      bind:tab
      label="Kinds of facts"
    >
      {#if tab === 'harmony'}<Harmony {workspace} />
      {:else if tab === 'form'}<Form {workspace} {onparallel} />
      {:else if tab === 'lines'}<Lines {workspace} />
      {:else}
        {#each workspace.reading.pins as pin (pin.id)}
          <p data-testid="correction">
            {placeName(score, pin.start)}: {pinWords(pin)}
            <Act onclick={() => workspace.act({ type: 'unpin', id: pin.id })}>take back</Act>
          </p>
        {:else}
          <p class="quiet">None yet. What you set stays set, and everything that hangs on it is worked out again.</p>
        {/each}
      {/if}
    </Tabs>
  {/if}
</aside>

<style>
  p {
    padding: 0.25rem 0;
  }
</style>

<script lang="ts">
  import { pinWords } from '$core/reading/commands';
  import { placeName } from '$core/reading/places';
  import type { Workspace } from '../workspace/workspace.svelte';
  import Form from './Form.svelte';
  import Harmony from './Harmony.svelte';
  import Lines from './Lines.svelte';

  const { workspace, onparallel }: { workspace: Workspace; onparallel: (id: string) => void } = $props();

  const TABS = { harmony: 'Harmony', form: 'Form', lines: 'Lines', corrections: 'Corrections' } as const;
  type Tab = keyof typeof TABS;
  const NAMES = Object.keys(TABS) as Tab[];
  let tab = $state<Tab>('harmony');

  const score = $derived(workspace.score);
  const title = $derived.by(() => {
    if (!score) return '';
    const [a, b] = [score.measures[workspace.selection.from], score.measures[workspace.selection.to]];
    return a === b ? workspace.barName(a) : `Bars ${a.number} to ${b.number}`;
  });

  function key(event: KeyboardEvent): void {
    const step = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (!step) return;
    tab = NAMES[(NAMES.indexOf(tab) + step + NAMES.length) % NAMES.length];
    document.getElementById(`tab-${tab}`)?.focus();
    event.preventDefault();
  }
</script>

<aside class="side-panel" aria-label="Facts and corrections">
  {#if score}
    <header>
      <h2 data-testid="brief-title">{title}</h2>
      {#if workspace.studying}<span class="quiet" role="status">working it out …</span>{/if}
    </header>
    <div class="tabs" role="tablist" aria-label="Kinds of facts">
      {#each NAMES as name (name)}
        <button
          id="tab-{name}"
          role="tab"
          aria-selected={tab === name}
          aria-controls="facts"
          tabindex={tab === name ? 0 : -1}
          onclick={() => (tab = name)}
          onkeydown={key}
          >{TABS[name]}{name === 'corrections' && workspace.reading.pins.length ? ` (${workspace.reading.pins.length})` : ''}</button
        >
      {/each}
    </div>
    <div id="facts" role="tabpanel" aria-labelledby="tab-{tab}">
      {#if tab === 'harmony'}<Harmony {workspace} />
      {:else if tab === 'form'}<Form {workspace} {onparallel} />
      {:else if tab === 'lines'}<Lines {workspace} />
      {:else}
        {#each workspace.reading.pins as pin (pin.id)}
          <p data-testid="correction">
            {placeName(score, pin.start)}: {pinWords(pin)}
            <button class="bar-link" onclick={() => workspace.act({ type: 'unpin', id: pin.id })}>take back</button>
          </p>
        {:else}
          <p class="quiet">None yet. What you set stays set, and everything that hangs on it is worked out again.</p>
        {/each}
      {/if}
    </div>
  {/if}
</aside>

<style>
  .tabs {
    display: flex;
    gap: 1rem;
    padding-top: 0.4rem;
    border-bottom: 1px solid var(--line);
  }

  .tabs button {
    font: inherit;
    color: var(--muted);
    background: none;
    border: 0;
    border-bottom: 2px solid transparent;
    padding: 0.15rem 0;
    cursor: pointer;
  }

  .tabs [aria-selected='true'] {
    color: var(--ink);
    border-bottom-color: var(--edition);
  }

  p {
    padding: 0.25rem 0;
  }
</style>

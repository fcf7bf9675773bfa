<script lang="ts">
  import Field from '$lib/controls/Field.svelte';
  import Act from '$lib/controls/Act.svelte';
  import { goto } from '$app/navigation';
  import { Button } from 'carbon-components-svelte';
  import { inSentences } from '$core/sentences';
  import { inWords } from '$core/markings/describe';
  import type { Finding, Severity } from '$core/proof/finding';
  import { draftId } from '$core/reading/draft/draft';
  import FindingBars from '$lib/proof/FindingBars.svelte';
  import Toolbar from '$lib/frame/Toolbar.svelte';
  import { useWorkspace } from '$lib/workspace/context';

  const { data } = $props();
  const holder = useWorkspace();
  const TITLES: Record<Severity, string> = { contradiction: 'Contradictions', risk: 'Risks', question: 'Questions' };

  let accepting = $state<string | null>(null);
  let because = $state('');
  const workspace = $derived(holder.current);
  const findings = $derived(workspace?.study.findings ?? null);
  const open = $derived(findings?.filter((f) => !(f.id in (workspace?.reading.accepted ?? {}))) ?? []);
  const accepted = $derived(findings?.filter((f) => f.id in (workspace?.reading.accepted ?? {})) ?? []);

  $effect(() => {
    workspace?.study.needFindings();
  });

  const ORDER = ['contradiction', 'risk', 'question'] as const;
  /** The findings in the order in which they stand in the list. */
  const inOrder = $derived(ORDER.flatMap((severity) => open.filter((f) => f.severity === severity)));
  let chosenId = $state<string | null>(null);
  const chosen = $derived(inOrder.find((f) => f.id === chosenId) ?? inOrder[0] ?? null);

  /** On to the next finding, or back to the one before. */
  function walk(by: 1 | -1): void {
    if (!chosen) return;
    const next = inOrder[inOrder.indexOf(chosen) + by];
    if (!next) return;
    chosenId = next.id;
    document.getElementById(next.id)?.scrollIntoView({ block: 'nearest' });
  }

  function key(event: KeyboardEvent): void {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.target instanceof HTMLElement && event.target.closest('input, textarea, select, [role=dialog]')) return;
    const letter = event.key.toLowerCase();
    if (letter === 'n') walk(1);
    else if (letter === 'p') walk(-1);
    else return;
    event.preventDefault();
  }

  function lead(f: Finding): void {
    const bar = workspace?.measureOf(f.start)?.index ?? 0;
    workspace?.selection.bar(bar);
    void goto(`/pieces/${data.piece.id}/reading?reading=${data.workspace.readingId}&bar=${bar}`);
  }

  function solve(f: Finding): void {
    workspace?.act({ type: 'add-marking', marking: { ...f.marking!, id: draftId(`proof-${f.id}`) } });
  }

  /** Into the plan of practice. */
  function practise(f: Finding): void {
    const bar = workspace?.measureOf(f.start)?.index ?? 0;
    void workspace?.practice.toTask({ from: bar, to: bar, own: { title: f.kind, how: inSentences([f.what, f.remedy]) } });
  }

  function accept(event: SubmitEvent, f: Finding): void {
    event.preventDefault();
    if (!because.trim()) return;
    workspace?.act({ type: 'accept-finding', finding: f.id, because: because.trim() });
    accepting = null;
    because = '';
  }

  let field = $state<HTMLInputElement | null>(null);
  $effect(() => field?.focus());
</script>

<svelte:window onkeydown={key} />

{#if workspace && findings}
  <div class="room-beside">
    <Toolbar {workspace}>
      <span data-testid="finding-count">{open.length} {open.length === 1 ? 'finding' : 'findings'}</span>
      {#if inOrder.length > 1}
        <Act onclick={() => walk(1)} title="N">Next</Act>
        <Act onclick={() => walk(-1)} title="P">Before</Act>
      {/if}
    </Toolbar>
    <!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls, and must do so from the keyboard) -->
    <div class="list" tabindex="0" role="region" aria-label="Findings">
      <h1>Proof</h1>
      {#if !open.length}<p>Everything adds up, as far as can be checked.</p>{/if}
      {#each ORDER as severity (severity)}
        {@const own = open.filter((f) => f.severity === severity)}
        {#if own.length}
          <h2>{TITLES[severity]}</h2>
          {#each own as f (f.id)}
            <article
              data-testid="finding"
              data-kind={f.kind}
              id={f.id}
              class:chosen={f === chosen}
              aria-current={f === chosen ? 'true' : undefined}
            >
              <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions (N and P do the same) -->
              <p onclick={() => (chosenId = f.id)}>
                <strong>{f.kind[0].toUpperCase() + f.kind.slice(1)}.</strong>
                {f.what}. <span class="quiet">{f.remedy}</span>
              </p>
              <div class="acts">
                <Act onclick={() => lead(f)}>Go to the bar</Act>
                <Act onclick={() => practise(f)}>Make it a task</Act>
                {#if f.marking}<Button size="small" kind="tertiary" on:click={() => solve(f)}>Add {inWords(f.marking)}</Button>{/if}
                {#if accepting === f.id}
                  <form onsubmit={(e) => accept(e, f)}>
                    <Field label="Accepted because" bind:value={because} maxlength={500} bind:ref={field} />
                    <Button size="small" type="submit">Accept</Button>
                    <Act onclick={() => (accepting = null)}>never mind</Act>
                  </form>
                {:else}
                  <Act
                    onclick={() => {
                      accepting = f.id;
                      because = '';
                    }}>It stands, because …</Act
                  >
                {/if}
              </div>
            </article>
          {/each}
        {/if}
      {/each}
      {#if accepted.length}
        <h2>Accepted</h2>
        {#each accepted as f (f.id)}
          <p data-testid="accepted">
            <span class="quiet">{f.what}.</span> Because: {workspace.reading.accepted[f.id]}
            <Act onclick={() => workspace?.act({ type: 'accept-finding', finding: f.id, because: null })}>look at it again</Act>
          </p>
        {/each}
      {/if}
    </div>
    <aside class="side-panel" aria-label="The bars of the finding">
      {#if chosen}<FindingBars {workspace} finding={chosen} onbar={() => lead(chosen)} />
      {:else}<p class="quiet">Where something is found, its bars stand here.</p>{/if}
    </aside>
  </div>
{:else}
  <p class="opening quiet">Checking the reading …</p>
{/if}

<style>
  .room-beside {
    grid-template-rows: auto minmax(0, 1fr);
    grid-template-columns: minmax(0, 1fr) minmax(20rem, 36rem);
  }

  .list {
    overflow-y: auto;
    padding: 1rem 1.5rem 3rem;
    box-sizing: border-box;
  }

  .chosen {
    background: var(--selected);
    box-shadow:
      -0.6rem 0 0 var(--selected),
      0.6rem 0 0 var(--selected);
  }

  h2 {
    padding: 1rem 0 0.2rem;
    border-bottom: 1px solid var(--line);
  }

  article {
    padding: 0.5rem 0;
    border-bottom: 1px solid var(--line);
  }

  .acts,
  form {
    display: flex;
    gap: 1rem;
    align-items: center;
    flex-wrap: wrap;
  }

  .opening {
    padding: 2rem;
  }
</style>

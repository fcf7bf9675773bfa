<script lang="ts">
  import { cmp } from '$core/score/fraction';
  import { brief } from '$core/reading/brief';
  import type { Workspace } from '../workspace/workspace.svelte';
  import MarkingForm from './MarkingForm.svelte';
  import MarkingItem from './MarkingItem.svelte';
  import ProposalItem from './ProposalItem.svelte';

  const { workspace }: { workspace: Workspace } = $props();

  const score = $derived(workspace.score);
  const selection = $derived(workspace.selection);
  const text = $derived(
    score ? brief(score, workspace.facts, workspace.reading.markings, selection.from, selection.to, workspace.reading.part) : null
  );
  const markings = $derived(
    workspace.reading.markings
      .filter((m) => workspace.inSelection(m.start, m.end ?? null) || m.id === workspace.openMarking)
      .sort((a, b) => cmp(a.start, b.start))
  );
  const proposals = $derived(workspace.proposals.filter((p) => workspace.inSelection(p.marking.start)));
  const open = $derived(proposals.filter((p) => !workspace.decisionOf(p.key)));
  const aside = $derived(proposals.filter((p) => workspace.decisionOf(p.key)?.status === 'set aside'));
  const title = $derived.by(() => {
    if (!score) return '';
    const [a, b] = [score.measures[selection.from], score.measures[selection.to]];
    return a === b ? workspace.barName(a) : `Bars ${a.number} to ${b.number}`;
  });

  function keepAll(): void {
    workspace.act(
      ...open.map((p) => ({ type: 'keep' as const, key: p.key, marking: { ...p.marking, id: `mark-${crypto.randomUUID()}` } }))
    );
  }
</script>

<aside class="brief" aria-label="Brief of the selected bars">
  {#if score && text}
    <header>
      <h2 data-testid="brief-title">{title}</h2>
      {#if workspace.studying}<span class="quiet" role="status">working it out …</span>{/if}
    </header>

    <section>
      <h3>What it is</h3>
      <ul>
        {#each text.whatItIs as line, k (k)}<li>{line}</li>{/each}
      </ul>
    </section>

    <section>
      <h3>What the page says</h3>
      {#if text.whatThePageSays.length}<ul>
          {#each text.whatThePageSays as line, k (k)}<li>{line}</li>{/each}
        </ul>{:else}<p class="quiet">Notes only; no sign.</p>{/if}
    </section>

    <section class="do">
      <h3>What to do</h3>
      {#each markings as marking (marking.id)}<MarkingItem {workspace} {marking} />{/each}
      {#each open as proposal (proposal.key)}<ProposalItem {workspace} {proposal} />{/each}
      {#if open.length > 1}<button class="bar-link" onclick={keepAll}>Keep all {open.length} proposals of these bars</button>{/if}
      {#if !markings.length && !open.length}<p class="quiet">Nothing is marked or proposed here.</p>{/if}
      {#if aside.length}
        <details>
          <summary>{aside.length} set aside</summary>
          {#each aside as proposal (proposal.key)}<ProposalItem {workspace} {proposal} />{/each}
        </details>
      {/if}
      <MarkingForm {workspace} />
    </section>

    <section>
      <h3>How long and how loud</h3>
      <ul>
        {#each text.howLongAndLoud as line, k (k)}<li>{line}</li>{/each}
      </ul>
    </section>

    <section>
      <h3>How to practise</h3>
      <ul>
        {#each text.howToPractise as line, k (k)}<li>{line}</li>{/each}
      </ul>
      <p class="care">
        Pain, numbness or lasting fatigue: stop, and see a clinician who treats musicians. Rest five minutes in each half hour.
      </p>
    </section>
  {/if}
</aside>

<style>
  .brief {
    overflow-y: auto;
    padding: 0.75rem 1rem 1.5rem;
    background: var(--panel);
    border-left: 1px solid var(--line);
  }

  header {
    display: flex;
    align-items: baseline;
    gap: 0.75rem;
  }

  section {
    padding-top: 0.7rem;
  }

  h3 {
    color: var(--muted);
    padding-bottom: 0.15rem;
  }

  ul {
    margin: 0;
    padding: 0;
    list-style: none;
  }

  li {
    padding: 0.1rem 0 0.1rem 0.7rem;
    text-indent: -0.7rem;
  }

  .do :global(.item) {
    margin: 0.35rem 0;
  }

  .care {
    font-size: 0.82rem;
    color: var(--muted);
    padding-top: 0.4rem;
  }

  details {
    padding: 0.3rem 0;
  }

  summary {
    cursor: pointer;
    color: var(--muted);
  }
</style>

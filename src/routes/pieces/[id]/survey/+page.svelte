<script lang="ts">
  import { goto } from '$app/navigation';
  import { useWorkspace } from '$lib/workspace/context';

  const { data } = $props();
  const holder = useWorkspace();

  /** So many bars are named on a line; the rest is counted. */
  const MOST = 24;

  const name = (bar: number): string => holder.current?.score?.measures[bar]?.number ?? String(bar + 1);

  function lead(bar: number): void {
    holder.current?.select(bar);
    void goto(`/pieces/${data.piece.id}/reading?bar=${bar}`);
  }
</script>

<div class="survey">
  <header>
    <h1>{data.piece.title}</h1>
    <p class="quiet">{[data.piece.composer, data.piece.instrument].filter(Boolean).join(' · ')}</p>
    <button class="bar-link not-printed" onclick={() => print()}>Print</button>
  </header>
  <div class="groups">
    {#each data.survey.groups as group (group.title)}
      <section>
        <h2>{group.title}</h2>
        <dl>
          {#each group.lines as line, k (k)}
            <dt>{line.label}</dt>
            <dd>
              {line.value}
              {#if line.bars.length}
                <span class="bars">
                  {line.bars.length === 1 ? 'bar' : 'bars'}
                  {#each line.bars.slice(0, MOST) as bar (bar)}<button
                      class="bar-link"
                      onclick={() => lead(bar)}
                      aria-label="Go to bar {name(bar)}">{name(bar)}</button
                    >{/each}
                  {#if line.bars.length > MOST}<span class="quiet">and {line.bars.length - MOST} more</span>{/if}
                </span>
              {/if}
            </dd>
          {/each}
        </dl>
      </section>
    {/each}
  </div>
</div>

<style>
  .survey {
    height: 100%;
    overflow-y: auto;
    padding: 1rem 1.5rem;
    box-sizing: border-box;
  }

  header {
    display: flex;
    gap: 1rem;
    align-items: baseline;
    padding-bottom: 0.5rem;
  }

  .groups {
    columns: 26rem;
    column-gap: 2.5rem;
  }

  section {
    break-inside: avoid-column;
    padding-bottom: 1.2rem;
  }

  h2 {
    border-bottom: 1px solid var(--line);
    padding-bottom: 0.15rem;
  }

  dl {
    margin: 0.3rem 0 0;
    display: grid;
    grid-template-columns: minmax(7rem, auto) 1fr;
    gap: 0.15rem 0.9rem;
  }

  dt {
    color: var(--muted);
    max-width: 12rem;
  }

  dd {
    margin: 0;
  }

  .bars {
    color: var(--muted);
    font-size: 0.85rem;
    padding-left: 0.3rem;
  }
</style>

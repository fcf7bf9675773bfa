<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import { goto } from '$app/navigation';
  import { FirstVisit, STOPS } from './first-visit.svelte';

  interface Props {
    visit: FirstVisit;
    /** Number of the piece with which the way is gone. */
    piece: number | string;
    /** Where one is: the shelf, or a room. */
    here: string | undefined;
  }
  const { visit, piece, here }: Props = $props();

  /** The stop at which one is, by whatever way one came. */
  const at = $derived.by(() => {
    const stop = STOPS.findIndex((s) => s.place === here);
    return stop < 0 ? (visit.at ?? 0) : stop;
  });
  const next = $derived(STOPS[at + 1]);

  function goOn(by: 1 | -1): void {
    visit.go(at + by);
    void goto(FirstVisit.address(STOPS[at + by], piece));
  }
</script>

<aside class="visit not-printed" aria-label="First visit" data-testid="first-visit">
  <span class="quiet">{at + 1} of {STOPS.length}</span>
  <p>{STOPS[at].says}</p>
  {#if at > 0}<Act onclick={() => goOn(-1)}>Back</Act>{/if}
  {#if next}<Act onclick={() => goOn(1)}>Next: {next.place.charAt(0).toUpperCase() + next.place.slice(1)}</Act>{/if}
  <Act onclick={() => visit.leave()}>{next ? 'Leave the tour' : 'Done'}</Act>
</aside>

<style>
  .visit {
    display: flex;
    flex-wrap: wrap;
    gap: 0.1rem 1rem;
    align-items: baseline;
    padding: 0.3rem 1rem;
    background: var(--selected);
    border-bottom: 1px solid var(--line);
    font-size: 0.92rem;
  }

  p {
    flex: 1 1 20rem;
  }
</style>

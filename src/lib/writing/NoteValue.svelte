<script lang="ts">
  import { nameOf, type Value } from '$core/writing/values';

  /** One written value as a small picture: a head with its stem and flags, or a rest. */
  const { value }: { value: Value } = $props();

  const LETTERS = 'whqest';
  const name = $derived(nameOf(value.written));
  const rank = $derived(LETTERS.indexOf(name?.letter ?? 'q'));
  const flags = $derived(Math.max(0, rank - 2));
</script>

<svg width="17" height="26" viewBox="0 0 17 26" aria-hidden="true">
  {#if value.rest}
    {#if rank < 2}
      <path d="M2,13 h12" class="line" /><rect x="4" y={rank ? 9 : 13} width="8" height="4" />
    {:else if rank === 2}
      <path d="M6,4 l4,5 l-3,3 l4,5 c-4,-2 -5,1 -2,4 c-5,-3 -4,-7 0,-6 l-3,-4 l3,-3 z" />
    {:else}
      {#each { length: flags } as _, k (k)}<circle cx="5" cy={8 + 4 * k} r="1.7" /><path
          class="line"
          d="M5,{9.5 + 4 * k} q4,0 6,-2.5"
        />{/each}
      <path class="line" d="M11,7 L7,{14 + 4 * flags}" />
    {/if}
  {:else}
    <ellipse cx="6" cy="21" rx="4.1" ry="2.9" transform="rotate(-20 6 21)" class:hollow={rank < 2} />
    {#if rank > 0}<path class="line" d="M9.7,20 V3" />{/if}
    {#each { length: flags } as _, k (k)}<path class="flag" d="M9.7,{3 + 4 * k} q1,4 5,6" />{/each}
  {/if}
  {#each { length: name?.dots ?? 0 } as _, k (k)}<circle cx={12.5 + 3 * k} cy="19" r="1.3" />{/each}
</svg>

<style>
  svg {
    fill: var(--ink);
    vertical-align: middle;
  }

  .hollow {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.4;
  }

  .line {
    stroke: var(--ink);
    stroke-width: 1.1;
    fill: none;
  }

  .flag {
    stroke: var(--ink);
    stroke-width: 1.8;
    fill: none;
  }
</style>

<script lang="ts">
  import { explanationOf, type Sign } from './signs';

  /** How long the pointer rests on a sign before it is explained, in milliseconds. */
  const RESTS = 350;
  const ID = 'sign-explained';

  let signs = $state.raw<readonly Sign[]>([]);
  let place = $state({ left: 0, top: 0 });
  let of: Element | null = null;
  let timer: ReturnType<typeof setTimeout> | undefined;

  function explain(found: ReturnType<typeof explanationOf>): void {
    if (!found?.signs.length) return;
    hide();
    ({ of, signs } = found);
    const box = of.getBoundingClientRect();
    place = {
      left: Math.max(4, Math.min(box.left, innerWidth - 340)),
      top: Math.min(box.bottom + 6, innerHeight - 30 - 22 * signs.length)
    };
    of.setAttribute('aria-describedby', ID);
  }

  function hide(): void {
    clearTimeout(timer);
    of?.removeAttribute('aria-describedby');
    of = null;
    signs = [];
  }

  function over({ target }: PointerEvent): void {
    if (!(target instanceof Element) || (of && of.contains(target))) return;
    hide();
    const found = explanationOf(target, 'pointer');
    if (found) timer = setTimeout(() => explain(found), RESTS);
  }

  function focused({ target }: FocusEvent): void {
    if (target instanceof Element && target.matches(':focus-visible')) explain(explanationOf(target, 'keys'));
  }
</script>

<svelte:document
  onpointerover={over}
  onpointerdown={hide}
  onfocusin={focused}
  onfocusout={hide}
  onscrollcapture={hide}
  onkeydown={(e) => e.key === 'Escape' && hide()}
/>

{#if signs.length}
  <dl class="explained not-printed" role="tooltip" id={ID} style:left="{place.left}px" style:top="{place.top}px">
    {#each signs as { sign, means } (sign)}
      <dt>{sign}</dt>
      <dd>{means}</dd>
    {/each}
  </dl>
{/if}

<style>
  .explained {
    position: fixed;
    z-index: 9;
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 0.1rem 0.7rem;
    max-width: 21rem;
    margin: 0;
    padding: 0.3rem 0.6rem;
    background: var(--raised);
    border: 1px solid var(--line);
    border-radius: 3px;
    font-size: 0.85rem;
    pointer-events: none;
  }

  dt {
    font-weight: 600;
  }

  dd {
    margin: 0;
  }
</style>

<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import { tick } from 'svelte';
  import { isSpan, markingName } from '$core/markings/describe';
  import { FINGER, hintOf, type Verb } from '$core/reading/pencil/verbs';
  import { handling, type Pencil } from './pencil.svelte';

  interface Props {
    pencil: Pencil;
    /** Where it stands over the page, in pixels. */
    place: { x: number; y: number };
    /** Width of the page that it stays in. */
    room: number;
    /** The page takes the keys back. */
    ondone: () => void;
  }
  const { pencil, place, room, ondone }: Props = $props();

  let words = $state('');
  let why = $state('');
  let more = $state(false);
  let width = $state(0);

  const shown = $derived(pencil.verbs.filter((v) => v.often || more));
  const choices = $derived(pencil.choices);
  const left = $derived(Math.max(0, Math.min(place.x, room - width - 4)));

  /** The letter of the key stands out in the word. */
  function parts(v: Verb): [string, string, string] {
    const at = v.word.toLowerCase().indexOf(v.key);
    return at < 0 ? [v.word, '', ''] : [v.word.slice(0, at), v.word.slice(at, at + 1), v.word.slice(at + 1)];
  }

  function say(event: SubmitEvent): void {
    event.preventDefault();
    if (pencil.asking) pencil.puts(pencil.asking, words.trim());
    if (!pencil.refused) {
      words = '';
      ondone();
    }
  }

  function explain(event: SubmitEvent): void {
    event.preventDefault();
    pencil.explain(why);
    why = '';
    ondone();
  }

  /** A field takes the keys when it opens. */
  function focused(field: HTMLInputElement): void {
    void tick().then(() => field.focus({ preventScroll: true }));
  }

  function leave(event: KeyboardEvent): void {
    if (event.key !== 'Escape') return;
    event.stopPropagation();
    pencil.asking = null;
    pencil.unexplained = null;
    ondone();
  }
</script>

<!-- svelte-ignore a11y_no_static_element_interactions (Escape leaves its fields) -->
<div
  class="strip not-printed"
  style:left="{left}px"
  style:top="{place.y}px"
  bind:offsetWidth={width}
  data-testid="strip"
  onkeydown={leave}
  onpointerdown={(e) => e.stopPropagation()}
>
  {#if pencil.unexplained}
    <form onsubmit={explain}>
      <label for="strip-why">The page comes first: {pencil.unexplained.printed}. Why is it so here?</label>
      <input id="strip-why" bind:value={why} maxlength="1000" use:focused />
      <Act type="submit">Say why</Act>
      <Act onclick={() => (pencil.remove(), ondone())}>take it back</Act>
    </form>
  {:else if pencil.asking && choices}
    <span class="what">{pencil.asking.word}</span>
    {#each choices as value (value)}
      {@const figure = pencil.figureOf(value)}
      <Act title={figure ? `key ${figure}` : undefined} onclick={() => (pencil.puts(pencil.asking!, value), ondone())}
        ><kbd>{figure === value ? '' : figure}</kbd>{value.replace(/-/g, ' ')}</Act
      >
    {/each}
  {:else if pencil.asking}
    <form onsubmit={say}>
      <label for="strip-words">{markingName({ kind: pencil.asking.kind, value: '' }).replace(/: $/, '')}</label>
      <input id="strip-words" bind:value={words} maxlength="200" placeholder={hintOf(pencil.asking)} use:focused />
      <Act type="submit">Put it here</Act>
    </form>
  {:else if pencil.marking}
    {@const marking = pencil.marking}
    <span class="what">{markingName(marking)}</span>
    <span class="quiet"
      ><kbd>← →</kbd> {handling(marking)}{isSpan(marking.kind) ? ` (now its ${pencil.end === 'end' ? 'end' : 'beginning'})` : ''}</span
    >
    <span class="quiet"><kbd>↑ ↓</kbd> height, with Shift the other side</span>
    <Act title="Delete" onclick={() => (pencil.remove(), ondone())}>Remove</Act>
  {:else if pencil.proposal}
    {@const proposal = pencil.proposal}
    <span class="what">Proposed: {markingName(proposal.marking)}</span>
    <span class="because">{proposal.marking.because[0]?.text}</span>
    <Act title="Enter" onclick={() => (pencil.keepProposal(), ondone())}>Keep</Act>
    <Act title="Delete" onclick={() => (pencil.setProposalAside(), ondone())}>Set aside</Act>
  {:else}
    {#each shown as verb (verb.word)}
      {@const [before, key, after] = parts(verb)}
      <Act
        title="key {verb === FINGER ? '0 to 5' : verb.key.toUpperCase()}"
        onclick={() => (pencil.does(verb), ondone())}
        data-verb={verb.word}><kbd>{verb === FINGER ? '1–5' : ''}</kbd>{before}<u>{key}</u>{after}</Act
      >
    {/each}
    <Act onclick={() => ((more = !more), ondone())} aria-expanded={more}>{more ? 'less' : 'more'}</Act>
    {#if pencil.lying.length}
      <span class="quiet"
        >lies with {pencil.lying
          .slice(0, 4)
          .map((m) => m.value.replace(/-/g, ' '))
          .join(', ')}{pencil.lying.length > 4 ? ' …' : ''}</span
      >
      <Act title="Enter" onclick={() => (pencil.writeLying(), ondone())}>Write it</Act>
    {/if}
    {#if pencil.here.proposals.length}
      <Act onclick={() => ((pencil.looking = pencil.here.proposals[0].key), ondone())}>{pencil.here.proposals.length} proposed</Act>
    {/if}
  {/if}
  {#if pencil.refused}<p class="wrong" role="alert">{pencil.refused}</p>{/if}
</div>

<style>
  .strip {
    position: absolute;
    z-index: 3;
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0.1rem 0.7rem;
    width: max-content;
    max-width: 100%;
    padding: 0.15rem 0.6rem;
    background: var(--raised);
    border: 1px solid var(--edition);
    border-radius: 3px;
    font-size: 0.88rem;
  }

  form {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 0.6rem;
    align-items: baseline;
  }

  input {
    font: inherit;
    color: var(--ink);
    background: var(--paper);
    border: 1px solid var(--line);
    padding: 0.1rem 0.3rem;
    min-width: 14rem;
  }

  kbd {
    font: inherit;
    color: var(--muted);
    padding-right: 0.2rem;
  }

  .what {
    color: var(--edition);
    font-weight: 600;
  }

  .because {
    max-width: 24rem;
  }

  .wrong {
    flex-basis: 100%;
  }
</style>

<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import Choice from '$lib/controls/Choice.svelte';
  import Field from '$lib/controls/Field.svelte';
  import Tick from '$lib/controls/Tick.svelte';
  import { Button, SelectItem, RadioButton } from 'carbon-components-svelte';
  import type { SourceDifference } from '$core/collation/difference';
  import { readMusicXml } from '$core/score/musicxml/read';
  import type { Score } from '$core/score/model';
  import { barLabel } from '$core/score/position';
  import { Engraver } from '../music/engraver';
  import InPrint from '../writing/InPrint.svelte';
  import SystemView from '../music/SystemView.svelte';
  import { today } from '../workspace/today';
  import type { Workspace } from '../workspace/workspace.svelte';
  import { api } from '../api';
  import type { SourceCollation } from '../shapes';

  interface Props {
    workspace: Workspace;
    sourceHash: string;
    source: string;
    collations: SourceCollation[];
    onclose: () => void;
  }
  const { workspace, sourceHash, source, collations, onclose }: Props = $props();

  interface Side {
    score: Score;
    engraver: Engraver;
  }

  let openOnly = $state(false);
  let chosen = $state<string | null>(null);
  const collation = $derived(collations.find((c) => c.hash === chosen) ?? collations[0]);
  let sides = $state.raw<{ hash: string; ours: Side; theirs: Side } | null>(null);
  let fault = $state('');

  async function side(hash: string): Promise<Side> {
    const document = await api.source(hash);
    const score = readMusicXml(document);
    const engraver = new Engraver();
    engraver.open(document, score);
    return { score, engraver };
  }

  // Both sources as they came in, each with an engraver of its own.
  $effect(() => {
    const { hash } = collation;
    let current = true;
    let mine: Side[] = [];
    Promise.all([side(sourceHash), side(hash)]).then(
      ([ours, theirs]) => {
        mine = [ours, theirs];
        if (current) sides = { hash, ours, theirs };
        else mine.forEach((s) => s.engraver.close());
      },
      (e: Error) => current && (fault = e.message)
    );
    return () => {
      current = false;
      sides = null;
      mine.forEach((s) => s.engraver.close());
    };
  });

  const choiceOf = (d: SourceDifference) =>
    workspace.reading.sourceChoices.find((c) => c.source === collation.hash && c.difference === d.id);
  const shown = $derived(collation.differences.filter((d) => !openOnly || !choiceOf(d)));
  const undecided = $derived(collation.differences.filter((d) => !choiceOf(d)).length);

  function choose(d: SourceDifference, take: 'ours' | 'theirs' | null, because = choiceOf(d)?.because ?? ''): void {
    const { hash } = collation;
    const choice = take && { source: hash, difference: d.id, take, because, on: today() };
    workspace.act({ type: 'choose-source', source: hash, difference: d.id, choice });
  }

  /** A bar alone is set a little smaller than on the page, as wide as its half of the room. */
  const OPTIONS = { line: 390, size: 0.85, sounding: false, version: 0 };
  const chunk = (measure: number) => ({ from: measure, to: measure + 1, systems: [measure] });
  const classes = (notes: readonly string[]) => new Map(notes.map((n) => [n, 'differs']));
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls, and must do so from the keyboard) -->
<div class="differences" role="region" aria-label="Differences between the sources" tabindex="0">
  <header>
    <h2>{source} and {collation.name}</h2>
    {#if collations.length > 1}<Choice
        label="Which source is compared"
        quietly
        value={collation.hash}
        onchange={(value) => (chosen = value)}
        >{#each collations as c (c.hash)}<SelectItem value={c.hash} text={c.name} />{/each}</Choice
      >{/if}
    <Tick label="only what is open ({undecided})" bind:checked={openOnly} />
    <Button size="small" kind="ghost" on:click={onclose}>Back to the pages</Button>
  </header>
  {#if fault}<p role="alert">{fault}</p>{/if}
  {#each shown as d (d.id)}
    {@const choice = choiceOf(d)}
    <article data-testid="difference" data-kind={d.kind}>
      <InPrint paper={workspace.data.paper} bar={d.measure} name="The bar" />
      <h3>{sides ? barLabel(sides.ours.score.measures, sides.ours.score.measures[d.measure]) : ''}: {d.kind}</h3>
      <div class="pair">
        {#each ['ours', 'theirs'] as const as which (which)}
          {@const measure = which === 'ours' ? d.measure : d.other}
          <div class="side" class:taken={choice?.take === which}>
            <p><strong>{which === 'ours' ? source : collation.name}</strong>: {which === 'ours' ? d.ours : d.theirs}</p>
            {#if sides?.hash === collation.hash && measure !== null && !(which === 'ours' && d.ours === 'no such bar')}
              <SystemView
                engraver={sides[which].engraver}
                chunk={chunk(measure)}
                options={OPTIONS}
                markings={[]}
                rows={[]}
                noteClasses={classes(which === 'ours' ? d.ourNotes : d.theirNotes)}
                reserve={90}
              />
            {:else if measure === null || (which === 'ours' && d.ours === 'no such bar')}<p class="quiet">no such bar</p>{/if}
            <RadioButton
              name="choice-{d.id}"
              value={which}
              checked={choice?.take === which}
              labelText={which === 'ours' ? 'Keep this' : d.takeable ? 'Take this' : 'Tell of it in the report'}
              on:change={() => choose(d, which)}
            />
          </div>
        {/each}
      </div>
      <div class="because">
        <Field
          label="Because"
          quietly
          placeholder="because …"
          maxlength="500"
          value={choice?.because ?? ''}
          disabled={!choice}
          onchange={(value) => choice && choose(d, choice.take, value)}
        />
        {#if choice}<Act onclick={() => choose(d, null)}>leave it open</Act>{/if}
        {#if d.kind === 'rhythm' && d.takeable}<span class="quiet">Taking it takes all notes of the bar.</span>{/if}
      </div>
    </article>
  {:else}
    <p class="quiet">{collation.differences.length ? 'Everything has been decided.' : 'The two do not differ.'}</p>
  {/each}
</div>

<style>
  .differences {
    overflow-y: auto;
    padding: 0.8rem 1.25rem 2rem;
  }

  header {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0.3rem 1rem;
  }

  article {
    padding: 0.7rem 0;
    border-bottom: 1px solid var(--line);
  }

  .pair {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 1rem;
  }

  .side {
    padding: 0.3rem 0.5rem;
    border-left: 3px solid transparent;
    min-width: 0;
  }

  .side.taken {
    border-left-color: var(--edition);
    background: var(--edition-soft);
  }

  .because {
    display: flex;
    align-items: baseline;
    gap: 0.7rem;
    padding-top: 0.4rem;
  }

  @media (max-width: 900px) {
    .pair {
      grid-template-columns: 1fr;
    }
  }
</style>

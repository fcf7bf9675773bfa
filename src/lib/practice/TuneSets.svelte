<script lang="ts">
  import { nanoid } from 'nanoid';
  import { SelectItem } from 'carbon-components-svelte';
  import { setTask } from '$core/rehearsal/tune-set';
  import type { SetEntry, TuneSet } from '$core/rehearsal/plan/plan';
  import { api } from '../api';
  import Act from '../controls/Act.svelte';
  import Choice from '../controls/Choice.svelte';
  import Field from '../controls/Field.svelte';
  import Stepper from '../controls/Stepper.svelte';
  import { sentenceOf } from '../workspace/latest';
  import type { Practice } from './practice.svelte';

  /** Tunes one after the other: order, how one goes into the next, what is otherwise the second time, one tempo. */
  const { practice, shelf }: { practice: Practice; shelf: readonly { id: number; title: string }[] } = $props();

  const { sets } = $derived(practice.plan);
  let name = $state('');

  const put = (set: TuneSet): void => practice.change({ sets: sets.map((s) => (s.key === set.key ? set : s)) });
  const putTune = (set: TuneSet, k: number, change: Partial<SetEntry>): void =>
    put({ ...set, tunes: set.tunes.map((t, n) => (n === k ? { ...t, ...change } : t)) });

  function add(): void {
    if (!name.trim()) return;
    practice.change({ sets: [...sets, { key: nanoid(), name: name.trim(), tempo: null, tunes: [] }] });
    name = '';
  }

  function addTune(set: TuneSet, id: string): void {
    const piece = shelf.find((p) => p.id === Number(id));
    if (piece) put({ ...set, tunes: [...set.tunes, { piece: piece.id, title: piece.title, times: 2, second: '', join: '' }] });
  }

  function swap(set: TuneSet, k: number): void {
    const tunes = [...set.tunes];
    [tunes[k - 1], tunes[k]] = [tunes[k], tunes[k - 1]];
    // Joins belong to two tunes that follow each other.
    put({ ...set, tunes: tunes.map((t, n) => (n >= k - 1 && n <= k + 1 ? { ...t, join: '' } : t)) });
  }

  function tempo(set: TuneSet, text: string): void {
    const value = Number(text);
    if (!text.trim()) put({ ...set, tempo: null });
    else if (value >= 10 && value <= 400) put({ ...set, tempo: value });
    else practice.fault = `“${text}” is no tempo: write quarters a minute, as 92.`;
  }

  async function suggest(set: TuneSet, k: number): Promise<void> {
    try {
      putTune(set, k, { join: await api.joinWords(set.tunes[k - 1].piece, set.tunes[k].piece) });
    } catch (error) {
      practice.fault = sentenceOf(error);
    }
  }
</script>

{#each sets as set (set.key)}
  <section data-testid="set">
    <h3>
      {set.name}
      <Field label="quarter =" value={set.tempo ?? ''} maxlength={5} onchange={(text) => tempo(set, text)} />
      <Act onclick={() => practice.change({ sets: sets.filter((s) => s.key !== set.key) })}>Take the set away</Act>
    </h3>
    <ol>
      {#each set.tunes as tune, k (k)}
        <li>
          {#if k > 0}
            <p class="row">
              <Field
                label="Into it"
                value={tune.join}
                maxlength={500}
                placeholder="how one goes into it"
                onchange={(join) => putTune(set, k, { join })}
              />
              <Act onclick={() => void suggest(set, k)}>From the notes</Act>
            </p>
          {/if}
          <p class="row">
            <strong>{tune.title}</strong>
            <Stepper
              label="times"
              value={tune.times}
              less="Fewer times"
              more="More times"
              onless={tune.times > 1 ? () => putTune(set, k, { times: tune.times - 1 }) : null}
              onmore={tune.times < 9 ? () => putTune(set, k, { times: tune.times + 1 }) : null}
            />
            {#if tune.times > 1}<Field
                label="the second time"
                value={tune.second}
                maxlength={500}
                placeholder="as the first"
                onchange={(second) => putTune(set, k, { second })}
              />{/if}
            {#if k > 0}<Act onclick={() => swap(set, k)}>Earlier</Act>{/if}
            <Act onclick={() => put({ ...set, tunes: set.tunes.filter((_, n) => n !== k) })} aria-label="Take away: {tune.title}"
              >Take away</Act
            >
          </p>
        </li>
      {/each}
    </ol>
    {#if set.tunes.length > 1}
      <p class="row">
        <Act onclick={() => void practice.add([{ task: setTask(practice.plan, set), document: null }])}>Into the plan as a run-through</Act>
      </p>
    {/if}
    <Choice label="Another tune" value="" onchange={(id) => addTune(set, id)}
      ><SelectItem value="" text="from the shelf" />{#each shelf as p (p.id)}<SelectItem value={p.id} text={p.title} />{/each}</Choice
    >
  </section>
{:else}
  <p class="quiet">Sets are tunes that are played one after the other, at one tempo.</p>
{/each}
<form
  class="row"
  onsubmit={(event) => {
    event.preventDefault();
    add();
  }}
>
  <Field label="Another set" bind:value={name} maxlength={200} placeholder="a name" />
  <Act type="submit" disabled={!name.trim()}>Add</Act>
</form>

<style>
  section {
    padding-bottom: 1rem;
  }

  h3,
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 1.2rem;
    align-items: baseline;
    padding: 0.25rem 0;
  }

  h3 {
    border-bottom: 1px solid var(--line);
  }
</style>

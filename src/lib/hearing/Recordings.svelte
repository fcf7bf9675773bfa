<script lang="ts">
  import Figures from '$lib/controls/Figures.svelte';
  import Act from '$lib/controls/Act.svelte';
  import Field from '$lib/controls/Field.svelte';
  import { nanoid } from 'nanoid';
  import { Button } from 'carbon-components-svelte';
  import { LIMITS } from '$core/style/limits';
  import { compareRecordings, momentOf } from '$core/performance/recordings';
  import type { Recording } from '$core/reading/reading';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace }: { workspace: Workspace } = $props();

  let label = $state('');
  let editing = $state<string | null>(null);
  let moment = $state('');
  let fault = $state('');
  let startedAt = $state<number | null>(null);

  const recordings = $derived(workspace.reading.recordings);
  const compared = $derived(
    workspace.score && workspace.playing.performed && recordings.length
      ? compareRecordings(workspace.score, workspace.playing.performed.plan, recordings)
      : null
  );
  const current = $derived(recordings.find((r) => r.id === editing) ?? null);
  const number = (measure: number): string => workspace.score?.measures[measure]?.number ?? 'end';

  const keep = (recording: Recording) => workspace.act({ type: 'keep-recording', id: recording.id, recording });

  function add(): void {
    if (!label.trim()) return;
    const recording = { id: `rec-${nanoid()}`, label: label.trim(), times: [] };
    keep(recording);
    editing = recording.id;
    label = '';
  }

  function put(measure: number, value: number): void {
    if (!current) return;
    const times = [...current.times.filter((t) => t.measure !== measure), { measure, seconds: Math.round(100 * value) / 100 }];
    keep({ ...current, times: times.sort((a, b) => a.measure - b.measure) });
  }

  function write(): void {
    const value = momentOf(moment);
    if (typeof value === 'string') {
      fault = value;
      return;
    }
    fault = '';
    put(workspace.selection.from, value);
    moment = '';
  }

  /** Taps a bar's beginning while the recording runs; the next bar is chosen. */
  function tap(event: Event): void {
    if (!current) return;
    startedAt ??= event.timeStamp;
    const value = (event.timeStamp - startedAt) / 1000;
    if (value > LIMITS.recording) return;
    put(workspace.selection.from, value);
    workspace.selection.bar(workspace.selection.from + 1);
  }
</script>

<p>
  Write down, or tap, when bars or sections of a recording begin. The recording itself stays with you; only your name for it and its times
  are kept.
</p>
<form onsubmit={(e) => (e.preventDefault(), add())}>
  <Field label="Name of the recording" quietly bind:value={label} placeholder="your name for a recording" maxlength="100" />
  <Button size="small" kind="tertiary" type="submit" disabled={!label.trim()}>Add</Button>
</form>
{#each recordings as r (r.id)}
  <p class="recording" class:now={r.id === editing}>
    <Act onclick={() => ((editing = r.id === editing ? null : r.id), (startedAt = null))}>{r.label}</Act>
    <span class="quiet">{r.times.length} times</span>
    <Act onclick={() => workspace.act({ type: 'keep-recording', id: r.id, recording: null })}>remove</Act>
  </p>
{/each}
{#if current}
  <form onsubmit={(e) => (e.preventDefault(), write())}>
    <Field label="Bar {number(workspace.selection.from)} begins at" bind:value={moment} placeholder="1:07.5" />
    <Button size="small" kind="ghost" type="submit">Write down</Button>
    <Act onpointerdown={tap} onkeydown={(e: KeyboardEvent) => e.key === 'Enter' && tap(e)}>tap as it begins</Act>
  </form>
  {#if fault}<p role="alert">{fault}</p>{/if}
{/if}
{#if compared?.stretches.length}
  <Figures heads={['Bars', ...recordings.map((r) => r.label), 'Plan', 'Page']} rows={compared.stretches} data-testid="compared">
    {#snippet cell(s, column)}
      {#if column === 0}<Act onclick={() => workspace.selection.bar(s.from)}>{number(s.from)}–{number(s.to - 1)}</Act>
      {:else if column <= s.tempi.length}{s.tempi[column - 1] === null ? '' : Math.round(s.tempi[column - 1]!)}{s.shares[column - 1] ===
        null
          ? ''
          : ` (${Math.round(100 * s.shares[column - 1]!)} %)`}
      {:else}{Math.round(column === s.tempi.length + 1 ? s.planned : s.literal)}{/if}
    {/snippet}
  </Figures>
  <p class="quiet">Beats a minute; in brackets the share of the whole that a stretch takes. Last over first stretch tells a ritardando.</p>
{/if}

<style>
  form,
  .recording {
    display: flex;
    gap: 0.5rem;
    align-items: center;
    padding: 0.3rem 0;
    flex-wrap: wrap;
  }

  .now {
    background: var(--selected);
  }
</style>

<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import Choice from '$lib/controls/Choice.svelte';
  import Tick from '$lib/controls/Tick.svelte';
  import { onMount } from 'svelte';
  import { Button, SelectItem } from 'carbon-components-svelte';
  import { CLICK_KINDS, CLICKS, type ClickKind } from '$core/performance/clicks';
  import Menu from '../frame/Menu.svelte';
  import type { Workspace } from '../workspace/workspace.svelte';
  import { ATTRIBUTION } from './instruments';
  import type { Sounding, Version } from './player.svelte';
  import { saveWav } from './wav';

  const { workspace }: { workspace: Workspace } = $props();
  const { player } = $derived(workspace);

  let rendering = $state(false);
  const staves = $derived(
    (workspace.score?.parts ?? []).flatMap((p) =>
      Array.from({ length: p.staves }, (_, k) => ({
        key: `${p.index}|${k + 1}`,
        name: `${p.name || `part ${p.index + 1}`}${p.staves > 1 ? `, staff ${k + 1}` : ''}`
      }))
    )
  );
  const bar = $derived(player.measure !== null && workspace.score ? workspace.barName(workspace.score.measures[player.measure]) : '');

  async function toggle(): Promise<void> {
    workspace.needPerformance();
    await player.toggle();
  }

  function key(event: KeyboardEvent): void {
    if (event.key.toLowerCase() !== 'h' || event.ctrlKey || event.metaKey || event.altKey) return;
    if (
      event.target instanceof HTMLElement &&
      event.target.closest('input:not([type=checkbox], [type=range]), textarea, select, [contenteditable]')
    )
      return;
    event.preventDefault();
    void toggle();
  }

  async function wav(): Promise<void> {
    rendering = true;
    try {
      await saveWav(workspace);
    } catch {
      player.fault = 'The sound file could not be made in this browser.';
    } finally {
      rendering = false;
    }
  }

  $effect(() => {
    if (workspace.score) workspace.needPerformance();
  });

  // Without its bar nothing could be stopped.
  onMount(() => () => player.playing && player.stop());
</script>

<svelte:window onkeydown={key} />

<div class="playbar not-printed" role="group" aria-label="Hearing">
  <Button
    size="small"
    kind="primary"
    disabled={!workspace.playing.performed || player.loading}
    on:click={toggle}
    title="H"
    data-testid="play">{player.loading ? 'Loading sounds …' : player.playing ? 'Stop' : 'Hear'}</Button
  >
  <Choice
    label="what"
    value={player.version}
    onchange={(value) => {
      player.version = value as Version;
      player.refresh();
    }}
    data-testid="version"><SelectItem value="plan" text="the reading" /><SelectItem value="page" text="the page to the letter" /></Choice
  >
  <Choice label="sounding" bind:value={() => player.sounding, (v) => (player.sounding = v as Sounding)}
    ><SelectItem value="everything" text="everything" /><SelectItem value="line" text="this part" /><SelectItem
      value="others"
      text="the other parts"
    /><SelectItem value="skeleton" text="the skeleton" /><SelectItem value="anchors" text="anchor notes" /></Choice
  >
  <label class="rate"
    >tempo <input
      type="range"
      min="25"
      max="150"
      step="5"
      value={Math.round(player.rate * 100)}
      oninput={(e) => player.setRate(Number(e.currentTarget.value) / 100)}
      data-testid="rate"
    /> <span class="number">{Math.round(player.rate * 100)} %</span></label
  >
  <Tick label="selected bars again and again" bind:checked={() => player.loop, (v) => (player.loop = v)} />
  <Choice
    label="clicks"
    value={player.clicking}
    onchange={(value) => {
      player.clicking = value as ClickKind;
      player.refresh();
    }}
    >{#each CLICK_KINDS as kind (kind)}<SelectItem value={kind} text={CLICKS[kind]} />{/each}</Choice
  >
  <Menu label="Sound" up>
    <Tick label="count a bar before" bind:checked={() => player.countIn, (v) => (player.countIn = v)} />
    <Tick label="plain tone" bind:checked={() => player.plain, (v) => (player.plain = v)} />
    {#each staves as staff (staff.key)}
      <Tick label="hear {staff.name}" checked={!player.muted.has(staff.key)} onchange={(checked) => player.mute(staff.key, !checked)} />
    {/each}
    <Act disabled={rendering || !workspace.playing.performed} onclick={wav}
      >{rendering ? 'Making the sound file …' : 'Sound file (WAV) of the selected bars'}</Act
    >
    <p class="quiet">{ATTRIBUTION}{player.sets.length ? ` Playing: ${player.sets.join(', ')}.` : ''}</p>
  </Menu>
  <span class="quiet" role="status" data-testid="playing-at">{player.fault ?? bar}</span>
</div>

<style>
  .playbar {
    display: flex;
    align-items: center;
    gap: 0.8rem;
    padding: 0.25rem 1rem;
    border-top: 1px solid var(--line);
    background: var(--panel);
    white-space: nowrap;
    font-size: 0.9rem;
    min-height: 2.3rem;
    box-sizing: border-box;
  }

  label {
    color: var(--muted);
    display: flex;
    align-items: center;
    gap: 0.35rem;
  }

  .rate input {
    width: 6rem;
    accent-color: var(--ink);
  }

  .number {
    width: 3.2rem;
  }

  p {
    white-space: normal;
    max-width: 18rem;
    font-size: 0.8rem;
  }
</style>

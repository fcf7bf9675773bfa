<script lang="ts">
  import Words from '$lib/controls/Words.svelte';
  import Act from '$lib/controls/Act.svelte';
  import { Button } from 'carbon-components-svelte';
  import { AsTyped } from '../workspace/as-typed';
  import type { Workspace } from '../workspace/workspace.svelte';

  interface Props {
    workspace: Workspace;
    /** What is known about the selected bars, as a first draft of the instructor's own words. */
    draft: () => string;
  }
  const { workspace, draft }: Props = $props();

  let editing = $state(false);
  let text = $state('');

  const own = $derived(workspace.reading.briefs.find((b) => b.from <= workspace.selection.from && b.to >= workspace.selection.to));

  /** The bars that the text is for; they stay while it is being written. */
  let bars = { from: 0, to: 0 };

  function begin(): void {
    bars = own ? { from: own.from, to: own.to } : { from: workspace.selection.from, to: workspace.selection.to };
    text = own?.text ?? draft();
    editing = true;
  }

  const typing = new AsTyped(save);

  function save(): void {
    if (text.trim() && text !== workspace.reading.briefs.find((b) => b.from === bars.from && b.to === bars.to)?.text)
      workspace.act({ type: 'write-brief', ...bars, text });
  }

  function done(): void {
    typing.drop();
    save();
    editing = false;
  }

  function letGo(): void {
    typing.drop();
    if (own) workspace.act({ type: 'write-brief', from: own.from, to: own.to, text: null });
    editing = false;
  }

  // What was typed is saved when another bar is chosen or the room is left.
  $effect(() => {
    void workspace.selection;
    return () => {
      if (editing) done();
    };
  });
</script>

<section class="written">
  <h3>In your words</h3>
  {#if editing}
    <Words
      label="The brief in your words"
      quietly
      bind:value={text}
      oninput={typing.typed}
      onblur={typing.now}
      rows={10}
      maxlength={8000}
    />
    <div class="acts">
      <Button size="small" kind="tertiary" on:click={done}>Done</Button>
      {#if own}<Button size="small" kind="ghost" on:click={letGo}>Let it go</Button>{/if}
    </div>
  {:else if own}
    <div class="text" data-testid="written-brief">{own.text}</div>
    <div class="acts"><Act onclick={begin}>Edit</Act></div>
  {:else}
    <Act onclick={begin}>Pin this brief and edit it</Act>
    <p class="quiet">A pinned brief stays as you wrote it, and stands in the commentary.</p>
  {/if}
</section>

<style>
  .written {
    padding-top: 0.7rem;
  }

  h3 {
    color: var(--muted);
  }

  .text {
    white-space: pre-line;
    background: var(--raised);
    border-left: 3px solid var(--edition);
    padding: 0.3rem 0.6rem;
  }

  .acts {
    display: flex;
    gap: 0.4rem;
    padding-top: 0.2rem;
  }
</style>

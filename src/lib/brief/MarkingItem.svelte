<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import { Button } from 'carbon-components-svelte';
  import { cmp, sub } from '$core/score/fraction';
  import { add } from '$core/score/fraction';
  import { markingName } from '$core/markings/describe';
  import type { Marking } from '$core/markings/marking';
  import { reasonsAt } from '$core/reading/reasons';
  import { placeName, placesIn } from '$core/reading/moments';
  import { inSentences } from '$core/sentences';
  import type { Workspace } from '../workspace/workspace.svelte';
  import MarkingForm from './MarkingForm.svelte';
  import { sourceNames } from './names';

  const { workspace, marking }: { workspace: Workspace; marking: Marking } = $props();

  const open = $derived(workspace.selection.openMarking === marking.id);
  const source = $derived(workspace.study.proposals.find((p) => p.key === marking.proposal) ?? null);
  /** Kept from a proposal that the rules would not make any more. */
  const orphaned = $derived(marking.proposal !== undefined && !workspace.study.busy && !source);
  /** The rule says something else now than when its proposal was kept. */
  const changed = $derived(source && marking.proposed !== undefined && source.marking.value !== marking.proposed ? source : null);

  function toggle(): void {
    workspace.selection.openMarking = open ? null : marking.id;
  }

  function remove(): void {
    workspace.act({ type: 'remove-marking', id: marking.id });
  }

  /** Moves the marking, with its length, to the next or previous note of its staff. */
  function move(by: 1 | -1): void {
    const { score } = workspace;
    const bar = workspace.measureOf(marking.start);
    if (!score || !bar) return;
    const places = placesIn(score, marking.part, Math.max(0, bar.index - 2), bar.index + 12).filter(
      (p) => p.staff === marking.staff && p.note
    );
    const after = places.filter((p) => cmp(p.start, marking.start) * by > 0);
    const target = by > 0 ? after[0] : after.at(-1);
    if (!target) return;
    const change: Partial<Omit<Marking, 'id'>> = { start: target.start };
    if (marking.note) change.note = target.note;
    if (marking.end) {
      change.end = add(marking.end, sub(target.start, marking.start));
      if (marking.endNote) {
        const goal = places.find((p) => cmp(p.start, change.end!) >= 0);
        if (!goal?.note) return;
        change.end = goal.start;
        change.endNote = goal.note;
      }
    }
    workspace.act({ type: 'change-marking', id: marking.id, change });
  }

  /** Into the plan of practice, with what is said of it. */
  function practise(): void {
    const [from, to] = [workspace.measureOf(marking.start), workspace.measureOf(marking.end ?? marking.start)];
    if (!from || !to) return;
    const said = [...workspace.reasonsOf(marking).map((b) => b.text), marking.remark ?? ''].filter(Boolean);
    const how = said.length ? inSentences(said) : 'As it is marked, every time.';
    void workspace.practice.toTask({ from: from.index, to: to.index, own: { title: markingName(marking), how } });
  }

  /** The facts at the marking's place as its reasons; those that it has already are not said twice. */
  function giveReasons(): void {
    const { score } = workspace;
    if (!score) return;
    workspace.study.needDetails();
    const known = new Set(workspace.reasonsOf(marking).map((b) => b.text));
    const found = reasonsAt(score, workspace.facts, workspace.study.details, marking).filter((b) => !known.has(b.text));
    if (!found.length) {
      workspace.notice = 'The facts of this place are among the reasons already.';
      return;
    }
    workspace.act({ type: 'change-marking', id: marking.id, change: { because: [...marking.because, ...found] } });
  }

  function key(event: KeyboardEvent): void {
    if (event.key === 'Delete') remove();
    else if (event.altKey && event.key === 'ArrowRight') move(1);
    else if (event.altKey && event.key === 'ArrowLeft') move(-1);
    else if (event.key === 'r' && !event.ctrlKey && !event.metaKey) giveReasons();
    else return;
    event.preventDefault();
  }
</script>

<article class="item" class:open data-testid="marking" data-id={marking.id}>
  <Act
    look="row"
    class="head"
    onclick={toggle}
    onkeydown={key}
    aria-expanded={open}
    title="Alt and arrow keys move it, Delete removes it, R gives it reasons from the facts of its place"
  >
    <span class="sign">{markingName(marking)}</span>
    <span class="quiet">{workspace.score ? placeName(workspace.score, marking.start) : ''}</span>
  </Act>
  {#each workspace.reasonsOf(marking) as because, k (k)}<p class="because">
      {because.text}
      {#if because.sources}<span class="quiet">({sourceNames(because.sources)})</span>{/if}
    </p>{/each}
  {#if marking.remark}<p class="because">To the player: {marking.remark}</p>{/if}
  {#if orphaned}<p class="question" role="note">The reason that the rule gave is no longer there. Does the marking stay?</p>{/if}
  {#if changed}
    <p class="question" role="note">
      The rule says “{changed.marking.value}” here now.
      <Act onclick={() => workspace.keep(changed)}>Take it</Act>
      <Act onclick={() => workspace.act({ type: 'change-marking', id: marking.id, change: { proposed: changed.marking.value } })}
        >Leave mine</Act
      >
    </p>
  {/if}
  {#if open}
    <MarkingForm {workspace} {marking} ondone={() => (workspace.selection.openMarking = null)} />
    <div class="acts">
      <Button size="small" kind="ghost" on:click={() => move(-1)}>Earlier</Button>
      <Button size="small" kind="ghost" on:click={() => move(1)}>Later</Button>
      <Button size="small" kind="ghost" on:click={giveReasons} title="R">Reasons</Button>
      <Button size="small" kind="ghost" on:click={practise}>Make it a task</Button>
      <Button size="small" kind="ghost" on:click={remove}>Remove</Button>
    </div>
  {/if}
</article>

<style>
  .item {
    border-left: 3px solid var(--edition);
    padding: 0.3rem 0.6rem;
    background: var(--raised);
  }

  .sign {
    color: var(--edition);
    font-weight: 600;
  }

  .because {
    font-size: 0.88rem;
  }

  .question {
    font-size: 0.88rem;
    background: var(--selected);
    padding: 0.2rem 0.4rem;
  }

  .acts {
    display: flex;
    gap: 0.2rem;
  }
</style>

<script lang="ts">
  import OneOf from '$lib/controls/OneOf.svelte';
  import Act from '$lib/controls/Act.svelte';
  import { Button } from 'carbon-components-svelte';
  import { placesWithin, type Question } from '$core/reading/questions';
  import { SOURCES } from '$core/style/bibliography';
  import type { Workspace } from '../workspace/workspace.svelte';
  import { today } from '../workspace/today';
  import type { LyingEffect } from '$core/technique/effects';
  import { markingName } from '$core/markings/describe';

  const { workspace, question }: { workspace: Workspace; question: Question } = $props();

  let open = $state(false);
  // svelte-ignore state_referenced_locally -- the choice starts from the answer in force and is the user's from then on
  let choice = $state(question.option ?? question.school.options[0].value);

  const range = $derived(workspace.selection.stretch());
  const places = $derived(placesWithin(question, range.from, range.to).length);
  const local = $derived(
    question.local.filter((a) => a.from.n / a.from.d < range.to.n / range.to.d && a.to.n / a.to.d > range.from.n / range.from.d)
  );
  const inForce = $derived(local.at(-1)?.option ?? question.option);
  const label = (value: string | null): string => question.school.options.find((o) => o.value === value)?.label ?? 'not decided';
  const effects = $derived(workspace.study.effects?.key === question.key ? workspace.study.effects.effects : null);

  function unfold(): void {
    open = !open;
    if (open) {
      choice = inForce ?? choice;
      workspace.study.askEffects(question.key, null);
    }
  }

  function forAll(): void {
    workspace.act({ type: 'answer-school', key: question.key, option: choice, on: today() });
    open = false;
  }

  function here(): void {
    workspace.act({ type: 'answer-here', answer: { key: question.key, option: choice, ...range, on: today() } });
    open = false;
  }

  /** Into the plan of practice: the chosen bars, tried each way. */
  function practise(): void {
    const { from, to } = workspace.selection;
    const ways = question.school.options.map((o) => o.label).join('; ');
    void workspace.practice.toTask({
      from,
      to,
      own: { title: question.school.question, how: `Play it each way and hear which one it wants: ${ways}.` }
    });
  }

  function later(): void {
    workspace.act({ type: 'postpone-question', key: question.key, on: today() });
    open = false;
  }

  /** "lies otherwise in 4 bars (bar 3, bow: down up), one finding fewer"; null where it lies as now. */
  function lying({ bars, example, findings }: LyingEffect): string | null {
    if (!bars.length && !findings) return null;
    const more = findings
      ? `${Math.abs(findings)} ${Math.abs(findings) === 1 ? 'finding' : 'findings'} ${findings > 0 ? 'more' : 'fewer'}`
      : '';
    const where = bars.length ? `lies otherwise in ${bars.length === 1 ? 'one bar' : `${bars.length} bars`} (${example})` : '';
    return [where, more].filter(Boolean).join(', ');
  }

  /** "adds 3, takes 2 away: from above, with an ending …" */
  function change(value: string): string {
    const effect = effects?.find((e) => e.option === value);
    if (!effect) return '';
    const lies = effect.lies && lying(effect.lies);
    if (!effect.added.length && !effect.gone.length) return lies ?? 'as now: changes no proposal';
    const names = [...new Set(effect.added.map((p) => markingName(p.marking)))].slice(0, 3).join(', ');
    return [
      effect.added.length ? `adds ${effect.added.length}${names ? ` (${names})` : ''}` : '',
      effect.gone.length ? `takes ${effect.gone.length} away` : '',
      lies ?? ''
    ]
      .filter(Boolean)
      .join(', ');
  }
</script>

<article class="card" data-testid="question" data-key={question.key}>
  <Act look="row" class="head" aria-expanded={open} onclick={unfold}>
    <span>{question.school.question}</span>
    <span class="quiet">
      {label(inForce)}{local.length
        ? `, here since ${local.at(-1)!.on}`
        : question.decidedOn
          ? `, decided on ${question.decidedOn}`
          : question.postponedOn
            ? `, put off on ${question.postponedOn}`
            : ', as usual for the period'}
    </span>
  </Act>
  {#if open}
    <OneOf
      label={question.school.question}
      quietly
      bind:value={choice}
      options={question.school.options.map((o) => ({ value: o.value, label: o.label }))}
    >
      {#snippet said(value)}
        {@const option = question.school.options.find((o) => o.value === value)!}
        <span
          ><strong>{option.label}.</strong>
          {option.reason}
          <span class="quiet">({option.sources.map((s) => SOURCES[s].short).join('; ')})</span>
          <em class="effect">{effects ? change(option.value) : 'working out what it changes …'}</em></span
        >
      {/snippet}
    </OneOf>
    <div class="acts">
      <Button size="small" kind="tertiary" on:click={forAll}>For the whole piece</Button>
      <Button size="small" kind="ghost" disabled={places === 0} on:click={here}>Here only</Button>
      <Button size="small" kind="ghost" on:click={later}>Later</Button>
      <Button size="small" kind="ghost" on:click={practise}>Make it a task</Button>
      {#if local.length}
        <Act onclick={() => workspace.act({ type: 'withdraw-answer', key: question.key, from: local.at(-1)!.from })}>as everywhere</Act>
      {:else if question.decidedOn}
        <Act onclick={() => workspace.act({ type: 'withdraw-answer', key: question.key, from: null })}>as usual</Act>
      {/if}
    </div>
  {/if}
</article>

<style>
  .card {
    border-left: 3px solid var(--tone-1);
    background: var(--raised);
    padding: 0.3rem 0.6rem;
    margin: 0.35rem 0;
  }

  .effect {
    display: block;
    color: var(--edition);
  }

  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem;
    align-items: center;
  }
</style>

<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { placeName } from '$core/reading/places';
  import { ruleById } from '$core/reading/rules/index';
  import { markingName, valueFault, valuesOf } from '$core/markings/describe';
  import type { Proposal } from '$core/reading/proposal';
  import type { Workspace } from '../workspace/workspace.svelte';
  import { sourceNames } from './names';

  const { workspace, proposal }: { workspace: Workspace; proposal: Proposal } = $props();

  const decision = $derived(workspace.decisionOf(proposal.key));
  const because = $derived(proposal.marking.because[0]);
  const choices = $derived(valuesOf(proposal.marking.kind));
  let changing = $state(false);
  let wrong = $state('');
  // svelte-ignore state_referenced_locally -- the field starts from the proposed value and is the user's from then on
  let value = $state(proposal.marking.value);

  function change(): void {
    wrong = valueFault(proposal.marking.kind, value.trim()) ?? '';
    if (!wrong) workspace.keep(proposal, { value: value.trim() });
  }
</script>

<article class="item" data-testid="proposal" data-key={proposal.key}>
  <p>
    <span class="sign">{markingName(proposal.marking)}</span>
    <span class="quiet">{workspace.score ? placeName(workspace.score, proposal.marking.start) : ''}</span>
  </p>
  <p class="because">
    {because.text} <a class="quiet" href="/rules#{proposal.rule}">rule</a>
    <span class="quiet">({sourceNames(because.sources)}; strength {Math.round(proposal.strength * 100)} %)</span>
  </p>
  {#each proposal.outweighs ?? [] as weaker (weaker.rule + weaker.value)}
    <p class="quiet because" data-testid="outweighed">
      Stronger here than “{ruleById(weaker.rule)?.title ?? weaker.rule}”, which would say {weaker.value} ({Math.round(
        weaker.strength * 100
      )} %).
    </p>
  {/each}
  {#if changing}
    <form onsubmit={(e) => (e.preventDefault(), change())}>
      {#if choices && choices.length > 1}
        <select bind:value aria-label="Changed value"
          >{#each choices as choice (choice)}<option>{choice}</option>{/each}</select
        >
      {:else}
        <input bind:value aria-label="Changed value" maxlength="200" />
      {/if}
      <Button size="small" type="submit">Keep it so</Button>
      <button type="button" class="bar-link" onclick={() => (changing = false)}>never mind</button>
      {#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
    </form>
  {:else if decision}
    <button class="bar-link" onclick={() => workspace.act({ type: 'reopen', key: proposal.key })}>Open again</button>
  {:else}
    <div class="acts">
      <Button size="small" kind="tertiary" on:click={() => workspace.keep(proposal)}>Keep</Button>
      <Button size="small" kind="ghost" on:click={() => (changing = true)}>Change</Button>
      <Button size="small" kind="ghost" on:click={() => workspace.act({ type: 'set-aside', key: proposal.key })}>Set aside</Button>
      <span class="hear" role="group" aria-label="Hear it">
        <button class="bar-link" title="The bars around it, with it" onclick={() => workspace.hear(proposal, true)}>hear with</button>
        <button class="bar-link" title="The same bars as they are now" onclick={() => workspace.hear(proposal, false)}>without</button>
      </span>
      <button
        class="bar-link"
        title="Switches this rule off for this reading; it can be switched on again under Style and schools"
        onclick={() => workspace.act({ type: 'weigh-rule', rule: proposal.rule, factor: 0 })}>not this rule</button
      >
    </div>
  {/if}
</article>

<style>
  .item {
    border: 1px dashed var(--edition);
    border-radius: 3px;
    padding: 0.4rem 0.6rem;
    background: var(--raised);
  }

  .sign {
    color: var(--edition);
    font-weight: 600;
  }

  .because {
    font-size: 0.88rem;
  }

  .acts,
  form {
    display: flex;
    gap: 0.25rem;
    align-items: center;
    padding-top: 0.3rem;
    flex-wrap: wrap;
  }

  select,
  input {
    font: inherit;
    color: inherit;
    background: var(--paper);
    border: 1px solid var(--line);
    padding: 0.15rem 0.3rem;
    min-width: 0;
  }
</style>

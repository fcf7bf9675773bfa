<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import Choice from '$lib/controls/Choice.svelte';
  import Field from '$lib/controls/Field.svelte';
  import { Button, SelectItem } from 'carbon-components-svelte';
  import { placeName } from '$core/reading/moments';
  import { strengthSaid } from '$core/reading/rules/rule';
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
    <span class="quiet" title="Strength {proposal.strength.toFixed(2)} of 1 in this period"
      >({sourceNames(because.sources)}; {strengthSaid(proposal.strength)})</span
    >
  </p>
  {#each proposal.outweighs ?? [] as weaker (weaker.rule + weaker.value)}
    <p class="quiet because" data-testid="outweighed">
      Stronger here than “{ruleById(weaker.rule)?.title ?? weaker.rule}”, which would say {weaker.value}.
    </p>
  {/each}
  {#if changing}
    <form onsubmit={(e) => (e.preventDefault(), change())}>
      {#if choices && choices.length > 1}
        <Choice label="Changed value" quietly bind:value
          >{#each choices as choice (choice)}<SelectItem value={choice} text={choice} />{/each}</Choice
        >
      {:else}
        <Field label="Changed value" quietly bind:value maxlength="200" />
      {/if}
      <Button size="small" type="submit">Keep it so</Button>
      <Act onclick={() => (changing = false)}>never mind</Act>
      {#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
    </form>
  {:else if decision}
    <Act onclick={() => workspace.act({ type: 'reopen', key: proposal.key })}>Open again</Act>
  {:else}
    <div class="acts">
      <Button size="small" kind="tertiary" on:click={() => workspace.keep(proposal)}>Keep</Button>
      <Button size="small" kind="ghost" on:click={() => (changing = true)}>Change</Button>
      <Button size="small" kind="ghost" on:click={() => workspace.act({ type: 'set-aside', key: proposal.key })}>Set aside</Button>
      <span class="hear" role="group" aria-label="Hear it">
        <Act title="The bars around it, with it" onclick={() => workspace.hear(proposal, true)}>hear with</Act>
        <Act title="The same bars as they are now" onclick={() => workspace.hear(proposal, false)}>without</Act>
      </span>
      <Act
        title="Switches this rule off for this reading; it can be switched on again under Style and schools"
        onclick={() => workspace.act({ type: 'weigh-rule', rule: proposal.rule, factor: 0 })}>not this rule</Act
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
</style>

<script lang="ts">
  import { Button, Modal } from 'carbon-components-svelte';
  import { SOURCES } from '$core/style/bibliography';
  import { ruleById } from '$core/reading/rules/index';
  import { PERIODS, PROFILES, type Period } from '$core/style/profiles';
  import { SCHOOLS, type School, type SchoolKey } from '$core/style/schools';
  import { today } from '../workspace/today';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace, open, onclose }: { workspace: Workspace; open: boolean; onclose: () => void } = $props();

  const period = $derived(workspace.reading.period);
  const usual = $derived(PROFILES[period].schools);
  /** Questions that this profile knows, and those that have been answered. */
  const questions = $derived(
    (SCHOOLS as readonly School[])
      .filter((s) => s.key in usual || s.key in workspace.reading.schools)
      .map((s) => ({ ...s, key: s.key as SchoolKey }))
  );

  // svelte-ignore state_referenced_locally -- the fields start from what is asked for and are the user's from then on
  let low = $state<number | null>(workspace.reading.requested?.low ?? null);
  // svelte-ignore state_referenced_locally
  let high = $state<number | null>(workspace.reading.requested?.high ?? null);
  let asked = $state('');

  function request(): void {
    const from = low ?? high;
    const to = high ?? low;
    asked =
      from === null || to === null
        ? 'Please give at least one number.'
        : from > to
          ? 'The lowest tempo must not be above the highest.'
          : '';
    if (!asked) workspace.act({ type: 'request-tempo', range: { low: from!, high: to! } });
  }

  const weighed = $derived(Object.entries(workspace.reading.ruleFactors));

  const chosen = (key: SchoolKey): string | undefined => workspace.reading.schools[key]?.option ?? usual[key];
</script>

<Modal {open} passiveModal size="lg" modalHeading="Style and schools" on:close={onclose} hasScrollingContent>
  <p class="intro">
    The period sets the defaults. Where good musicians differ, the choice is yours; what you choose is kept with its date and changes what
    is proposed.
  </p>
  <label class="period"
    >Period <select value={period} onchange={(e) => workspace.act({ type: 'set-period', period: e.currentTarget.value as Period })}
      >{#each PERIODS as p (p)}<option value={p}>{PROFILES[p].name}</option>{/each}</select
    ></label
  >
  <p class="quiet">{PROFILES[period].summary}</p>
  <form class="request" onsubmit={(e) => (e.preventDefault(), request())}>
    <label>A jury or audition asks for <input type="number" min="10" max="500" bind:value={low} aria-label="lowest" /></label>
    <label>to <input type="number" min="10" max="500" bind:value={high} aria-label="highest" /> beats a minute</label>
    <Button size="small" kind="ghost" type="submit">Set</Button>
    {#if workspace.reading.requested}
      <span class="quiet">{workspace.reading.requested.low} to {workspace.reading.requested.high} is asked for.</span>
      <button type="button" class="bar-link" onclick={() => workspace.act({ type: 'request-tempo', range: null })}
        >Nothing is asked for</button
      >
    {/if}
    {#if asked}<span class="wrong" role="alert">{asked}</span>{/if}
  </form>
  {#each questions as school (school.key)}
    {@const answer = workspace.reading.schools[school.key]}
    <fieldset data-testid="school-{school.key}">
      <legend
        >{school.question}
        {#if answer}<span class="quiet">decided on {answer.on}</span>{/if}</legend
      >
      {#each school.options as option (option.value)}
        <label>
          <input
            type="radio"
            name="school-{school.key}"
            value={option.value}
            checked={chosen(school.key) === option.value}
            onchange={() => workspace.act({ type: 'answer-school', key: school.key, option: option.value, on: today() })}
          />
          <span
            ><strong>{option.label}</strong>{#if usual[school.key] === option.value}
              <span class="quiet">(usual for this period)</span>{/if}<br />{option.reason}
            <span class="quiet">({option.sources.map((s) => SOURCES[s].short).join('; ')})</span></span
          >
        </label>
      {/each}
    </fieldset>
  {/each}
  {#if weighed.length}
    <fieldset>
      <legend>Rules that were weighed for this reading</legend>
      {#each weighed as [rule, factor] (rule)}
        <p>
          {ruleById(rule)?.title ?? rule}: {factor === 0 ? 'off' : `${Math.round(factor * 100)} %`}
          <button class="bar-link" onclick={() => workspace.act({ type: 'weigh-rule', rule, factor: 1 })}>as usual</button>
          <button class="bar-link" onclick={() => workspace.act({ type: 'weigh-rule', rule, factor: 1.5 })}>stronger</button>
        </p>
      {/each}
    </fieldset>
  {/if}
</Modal>

<style>
  .intro {
    padding-bottom: 0.6rem;
  }

  .period {
    display: block;
    padding-bottom: 0.3rem;
  }

  .request {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
    align-items: center;
    padding-top: 0.6rem;
  }

  .request input {
    width: 4.5rem;
    font: inherit;
    color: var(--ink);
    background: var(--raised);
    border: 1px solid var(--line);
  }

  .wrong {
    color: var(--cds-danger-01);
  }

  fieldset {
    border: 0;
    border-top: 1px solid var(--line);
    margin: 0.8rem 0 0;
    padding: 0.5rem 0 0;
  }

  legend {
    font-family: var(--heading-face);
    padding-right: 0.6rem;
  }

  fieldset label {
    display: flex;
    gap: 0.6rem;
    padding: 0.2rem 0;
    align-items: baseline;
  }

  select {
    font: inherit;
    color: var(--ink);
    background: var(--raised);
    border: 1px solid var(--line);
  }
</style>

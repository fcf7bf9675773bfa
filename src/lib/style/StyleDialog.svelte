<script lang="ts">
  import OneOf from '$lib/controls/OneOf.svelte';
  import Field from '$lib/controls/Field.svelte';
  import Act from '$lib/controls/Act.svelte';
  import { Button, Modal } from 'carbon-components-svelte';
  import { SOURCES } from '$core/style/bibliography';
  import { ruleById } from '$core/reading/rules/index';
  import { clicks } from '$core/style/tempo-words';
  import { beatOfMeter } from '$core/score/meter';
  import { tempoInForce } from '$core/score/tempo';
  import { toNumber } from '$core/score/fraction';
  import ComposerFields from './ComposerFields.svelte';
  import { PROFILES } from '$core/style/profiles';
  import { TEMPI, tempoRangeFault } from '$core/reading/tempo-range';
  import PeriodChoice from './PeriodChoice.svelte';
  import { isFor } from '$core/style/instruments/instrument';
  import { SCHOOLS, type School, type SchoolKey } from '$core/style/schools';
  import { today } from '../workspace/today';
  import type { Workspace } from '../workspace/workspace.svelte';

  /** Clicks of the metronome by which a tempo is put lower. */
  const CLICKS = [1, 2, 3];

  const { workspace, open, onclose }: { workspace: Workspace; open: boolean; onclose: () => void } = $props();

  const period = $derived(workspace.reading.period);
  const usual = $derived(PROFILES[period].schools);
  /** Questions that this profile knows, and those that have been answered. */
  const questions = $derived(
    (SCHOOLS as readonly School[])
      .filter((s) => (s.key in usual && isFor(s.needs, workspace.instrument)) || s.key in workspace.reading.schools)
      .map((s) => ({ ...s, key: s.key as SchoolKey }))
  );

  // svelte-ignore state_referenced_locally -- the fields start from what is asked for and are the user's from then on
  let low = $state<number | null>(workspace.reading.requested?.low ?? null);
  // svelte-ignore state_referenced_locally
  let high = $state<number | null>(workspace.reading.requested?.high ?? null);
  let asked = $state('');

  function request(): void {
    asked = tempoRangeFault(low, high);
    if (!asked) workspace.act({ type: 'request-tempo', range: { low: (low ?? high)!, high: (high ?? low)! } });
  }

  /** What a practice tempo is counted down from: what is asked for, else what is printed first. */
  const beat = $derived(workspace.score ? toNumber(beatOfMeter(workspace.score.measures[0]).beat) : 1);
  const printed = $derived(workspace.score ? tempoInForce(workspace.score, workspace.score.measures[0].start) : null);
  const from = $derived(workspace.reading.requested?.low ?? (printed === null ? null : printed / beat));

  function under(count: number): void {
    low = high = clicks(from!, -count);
    request();
  }

  const weighed = $derived(Object.entries(workspace.reading.ruleFactors));

  const chosen = (key: SchoolKey): string | undefined => workspace.reading.schools[key]?.option ?? usual[key];
</script>

<Modal {open} passiveModal size="lg" modalHeading="Style and schools" on:close={onclose} hasScrollingContent>
  <p class="intro">
    The period sets the defaults. Where good musicians differ, the choice is yours; what you choose is kept with its date and changes what
    is proposed.
  </p>
  <PeriodChoice value={period} onchange={(chosen) => workspace.act({ type: 'set-period', period: chosen })} />
  <p class="quiet">{PROFILES[period].summary}</p>
  <form class="request" onsubmit={(e) => (e.preventDefault(), request())}>
    <span>A jury or audition asks for</span>
    <Field label="lowest" quietly type="number" min={TEMPI.least} max={TEMPI.most} bind:value={low} />
    <span>to</span>
    <Field label="highest" quietly type="number" min={TEMPI.least} max={TEMPI.most} bind:value={high} />
    <span>beats a minute</span>
    <Button size="small" kind="ghost" type="submit">Set</Button>
    {#if workspace.reading.requested}
      <span class="quiet">{workspace.reading.requested.low} to {workspace.reading.requested.high} is asked for.</span>
      <Act onclick={() => workspace.act({ type: 'request-tempo', range: null })}>Nothing is asked for</Act>
    {/if}
    {#if from !== null}
      <span class="quiet">On the metronome, under {Math.round(from)}:</span>
      {#each CLICKS as count (count)}
        <Act onclick={() => under(count)}>{count === 1 ? 'a click' : `${count} clicks`} ({clicks(from, -count)})</Act>
      {/each}
    {/if}
    {#if asked}<span class="wrong" role="alert">{asked}</span>{/if}
  </form>
  {#each questions as school (school.key)}
    {@const answer = workspace.reading.schools[school.key]}
    <OneOf
      data-testid="school-{school.key}"
      label={school.question + (answer ? ` (decided on ${answer.on})` : '')}
      value={chosen(school.key)}
      options={school.options.map((o) => ({ value: o.value, label: o.label }))}
      onchange={(option) => workspace.act({ type: 'answer-school', key: school.key, option, on: today() })}
    >
      {#snippet said(value)}
        {@const option = school.options.find((o) => o.value === value)!}
        <span
          ><strong>{option.label}</strong>{#if usual[school.key] === option.value}<span class="quiet">&ensp;(usual for this period)</span
            >{/if}<br />{option.reason}
          <span class="quiet">({option.sources.map((s) => SOURCES[s].short).join('; ')})</span></span
        >
      {/snippet}
    </OneOf>
  {/each}
  <ComposerFields {workspace} />
  {#if weighed.length}
    <fieldset>
      <legend>Rules that were weighed for this reading</legend>
      {#each weighed as [rule, factor] (rule)}
        <p>
          {ruleById(rule)?.title ?? rule}: {factor === 0 ? 'off' : `${Math.round(factor * 100)} %`}
          <Act onclick={() => workspace.act({ type: 'weigh-rule', rule, factor: 1 })}>as usual</Act>
          <Act onclick={() => workspace.act({ type: 'weigh-rule', rule, factor: 1.5 })}>stronger</Act>
        </p>
      {/each}
    </fieldset>
  {/if}
</Modal>

<style>
  .intro {
    padding-bottom: 0.6rem;
  }

  .request {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
    align-items: center;
    padding-top: 0.6rem;
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
</style>

<script lang="ts">
  import Figures from '$lib/controls/Figures.svelte';
  import Choice from '$lib/controls/Choice.svelte';
  import Field from '$lib/controls/Field.svelte';
  import { SelectItem } from 'carbon-components-svelte';
  import { AREAS, forWhom } from '$core/reading/rules/rule';
  import { RULES } from '$core/reading/rules/index';
  import { SOURCES } from '$core/style/bibliography';
  import { PERIODS, PROFILES, strengthIn, type Period } from '$core/style/profiles';

  let period = $state<Period | ''>('');
  let wanted = $state('');
  const shown = $derived(
    RULES.filter(
      (r) =>
        (period === '' || strengthIn(r.periods, period) !== null) &&
        `${r.title} ${r.looksAt} ${r.proposes}`.toLowerCase().includes(wanted.trim().toLowerCase())
    )
  );

  const strengths = (r: (typeof RULES)[number]): string =>
    PERIODS.flatMap((p) => {
      const s = strengthIn(r.periods, p);
      return s === null ? [] : [`${PROFILES[p].name} ${Math.round(100 * s)} %`];
    }).join(', ');
</script>

<svelte:head><title>Rules · Nuvelo</title></svelte:head>

<!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls, and must do so from the keyboard) -->
<div class="rules" tabindex="0" role="region" aria-label="Rules">
  <header>
    <h1>Rules</h1>
    <Choice label="for" bind:value={period}
      ><SelectItem value="" text="all periods" />{#each PERIODS as p (p)}<SelectItem value={p} text={PROFILES[p].name} />{/each}</Choice
    >
    <Field label="with the words" bind:value={wanted} maxlength="60" />
    <span class="quiet" data-testid="rule-count">{shown.length} of {RULES.length}</span>
  </header>
  <p class="quiet">
    What each rule looks at, what it proposes, where it comes from, and how strongly it speaks. In a reading each can be switched off or
    made stronger, beside its proposals.
  </p>
  {#each AREAS as area (area)}
    {@const rules = shown.filter((r) => r.area === area)}
    {#if rules.length}
      <h2>{area[0].toUpperCase() + area.slice(1)}</h2>
      <Figures heads={['Rule', 'Looks at', 'Proposes', 'For', 'Sources']} rows={rules}>
        {#snippet cell(rule, column)}
          {#if column === 0}<strong id={rule.id}>{rule.title}</strong>
          {:else}{[rule.looksAt, rule.proposes, strengths(rule) + forWhom(rule), rule.sources.map((s) => SOURCES[s].short).join('; ')][
              column - 1
            ]}{/if}
        {/snippet}
      </Figures>
    {/if}
  {:else}<p>No rule has these words.</p>{/each}
</div>

<style>
  .rules {
    height: 100%;
    overflow-y: auto;
    padding: 1rem 1.5rem 3rem;
    box-sizing: border-box;
  }

  header {
    display: flex;
    gap: 1.2rem;
    align-items: baseline;
  }

  h2 {
    padding: 1rem 0 0.2rem;
  }
</style>

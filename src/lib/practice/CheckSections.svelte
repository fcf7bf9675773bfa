<script lang="ts">
  import { nanoid } from 'nanoid';
  import type { Check, CheckSection } from '$core/rehearsal/plan/plan';
  import { inShort } from '$core/rehearsal/plan/day';
  import Act from '../controls/Act.svelte';
  import Field from '../controls/Field.svelte';
  import Tick from '../controls/Tick.svelte';
  import type { Practice } from './practice.svelte';

  /** What each section is looked over for; ticks of today, with the days of before. @property piece of which; all where null */
  const { practice, piece = null }: { practice: Practice; piece?: number | null } = $props();

  const sections = $derived(practice.plan.checklist.filter((s) => piece === null || s.piece === piece));
  let editing = $state<string | null>(null);
  let added = $state('');

  const put = (section: CheckSection): void =>
    practice.change({ checklist: practice.plan.checklist.map((s) => (s.key === section.key ? section : s)) });
  const change = (section: CheckSection, check: Check, to: Check | null): void =>
    put({ ...section, checks: section.checks.flatMap((c) => (c.key === check.key ? (to ? [to] : []) : [c])) });

  function tick(section: CheckSection, check: Check, on: boolean): void {
    const others = check.ticks.filter((d) => d !== practice.today);
    change(section, check, { ...check, ticks: on ? [...others, practice.today] : others });
  }

  function add(section: CheckSection): void {
    if (!added.trim()) return;
    put({ ...section, checks: [...section.checks, { key: nanoid(), kind: null, text: added.trim(), ticks: [] }] });
    added = '';
  }

  const before = (check: Check): string => {
    const days = check.ticks.filter((d) => d !== practice.today).sort();
    return days.length ? days.slice(-4).map(inShort).join(', ') : '';
  };
</script>

{#each sections as section (section.key)}
  <section data-testid="check-section">
    <h3>
      {section.title}
      <Act onclick={() => (editing = editing === section.key ? null : section.key)}>{editing === section.key ? 'Done' : 'Edit'}</Act>
    </h3>
    {#each section.checks as check (check.key)}
      <p class="check">
        {#if editing === section.key}
          <Field
            label="What to look for"
            quietly
            value={check.text}
            maxlength={500}
            onchange={(text) => text.trim() && change(section, check, { ...check, text: text.trim() })}
          />
          <Act onclick={() => change(section, check, null)} aria-label="Take away: {check.text}">Take away</Act>
        {:else}
          <Tick label={check.text} checked={check.ticks.includes(practice.today)} onchange={(on) => tick(section, check, on)} />
          <span class="quiet">{before(check)}</span>
        {/if}
      </p>
    {/each}
    {#if editing === section.key}
      <form
        onsubmit={(event) => {
          event.preventDefault();
          add(section);
        }}
      >
        <Field label="One more" bind:value={added} maxlength={500} />
        <Act type="submit" disabled={!added.trim()}>Add</Act>
        <Act onclick={() => practice.change({ checklist: practice.plan.checklist.filter((s) => s.key !== section.key) })}
          >Take the section away</Act
        >
      </form>
    {/if}
  </section>
{:else}
  <p class="quiet">No checklist yet: a piece brings one when it comes into the plan.</p>
{/each}

<style>
  section {
    padding-bottom: 0.6rem;
  }

  h3 {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    padding: 0.4rem 0 0.1rem;
    border-bottom: 1px solid var(--line);
  }

  .check,
  form {
    display: flex;
    gap: 0.6rem;
    align-items: baseline;
    padding: 0.15rem 0;
  }

  .quiet {
    font-size: 0.8rem;
    white-space: nowrap;
  }
</style>

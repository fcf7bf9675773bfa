<script lang="ts">
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
    <label
      >for <select bind:value={period}
        ><option value="">all periods</option>{#each PERIODS as p (p)}<option value={p}>{PROFILES[p].name}</option>{/each}</select
      ></label
    >
    <label>with the words <input bind:value={wanted} maxlength="60" /></label>
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
      <table>
        <thead><tr><th>Rule</th><th>Looks at</th><th>Proposes</th><th>For</th><th>Sources</th></tr></thead>
        <tbody>
          {#each rules as rule (rule.id)}
            <tr id={rule.id}>
              <td><strong>{rule.title}</strong></td>
              <td>{rule.looksAt}</td>
              <td>{rule.proposes}</td>
              <td>{strengths(rule)}{forWhom(rule)}</td>
              <td>{rule.sources.map((s) => SOURCES[s].short).join('; ')}</td>
            </tr>
          {/each}
        </tbody>
      </table>
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

  table {
    border-collapse: collapse;
    width: 100%;
    table-layout: fixed;
    font-size: 0.9rem;
  }

  th {
    text-align: left;
    font-weight: 500;
    color: var(--muted);
  }

  td,
  th {
    vertical-align: top;
    padding: 0.25rem 0.8rem 0.25rem 0;
    border-bottom: 1px solid var(--line);
  }

  select,
  input {
    font: inherit;
    color: var(--ink);
    background: var(--raised);
    border: 1px solid var(--line);
  }
</style>

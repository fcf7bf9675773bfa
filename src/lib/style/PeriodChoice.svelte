<script lang="ts">
  import Choice from '$lib/controls/Choice.svelte';
  import { SelectItem } from 'carbon-components-svelte';
  import { PERIODS, PROFILES, type Period } from '$core/style/profiles';

  interface Props {
    value: Period;
    onchange: (period: Period) => void;
    [attribute: string]: unknown;
  }
  const { value, onchange, ...rest }: Props = $props();
</script>

<Choice label="Period" {value} onchange={(chosen) => onchange(chosen as Period)} {...rest}
  >{#each PERIODS as period (period)}<SelectItem value={period} text={PROFILES[period].name} />{/each}</Choice
>

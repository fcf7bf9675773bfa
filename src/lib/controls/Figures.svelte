<script lang="ts" generics="R">
  import type { Snippet } from 'svelte';
  import { DataTable } from 'carbon-components-svelte';

  interface Props {
    /** Heads of the columns. */
    heads: readonly string[];
    rows: readonly R[];
    /** What stands in a row under a head, by its index. */
    cell: Snippet<[row: R, column: number]>;
    [attribute: string]: unknown;
  }
  const { heads, rows, cell, ...rest }: Props = $props();

  /** Carbon names columns by keys of records; ours are counted. */
  type Row = { id: number; row: R } & Record<string, unknown>;
  const headers = $derived(heads.map((value, k) => ({ key: `${k}`, value })));
  const records = $derived(rows.map((row, id): Row => ({ id, row })));
</script>

<div class="figures" {...rest}>
  <DataTable size="compact" headers={headers as never} rows={records as never}>
    <svelte:fragment slot="cell" let:row let:cell={at}>
      {@render cell((row as Row).row, Number(at.key))}
    </svelte:fragment>
  </DataTable>
</div>

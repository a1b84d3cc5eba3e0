<script lang="ts">
  import { SHEET_COLUMNS } from '@alforja/core/sheet';
  import { GRID_COLUMNS } from './gridColumns';

  /** The names of the columns; each marks its column when it is pressed. */
  let { mark }: { mark: (col: number) => void } = $props();
</script>

<div
  role="row"
  aria-rowindex="1"
  class="border-hair bg-band sticky top-0 z-2 grid border-b text-[12.5px]"
  style="grid-template-columns: {GRID_COLUMNS}"
>
  <span role="columnheader" class="px-2 py-1.5 text-right">No.</span>
  {#each SHEET_COLUMNS as column, col (column.name)}
    <!-- svelte-ignore a11y_click_events_have_key_events -->
    <span
      role="columnheader"
      tabindex="-1"
      title="Mark the whole column"
      class="cursor-pointer truncate px-2 py-1.5 font-semibold {column.open ? '' : 'text-quiet'}"
      onclick={() => mark(col)}>{column.label}</span
    >
  {/each}
  <span role="columnheader" class="text-quiet truncate px-2 py-1.5">Findings</span>
</div>

<script lang="ts">
  import type { SheetCells, SheetColumn } from '@alforja/core/sheet';
  import { KIND_NAMES } from '../format';

  /** What a cell says, and why it could not be changed. */
  let {
    cells,
    column,
    trouble,
    end,
  }: { cells: SheetCells; column: SheetColumn; trouble: string | null; end: boolean } = $props();
  const SERIF: ReadonlySet<SheetColumn> = new Set(['title', 'text', 'choices', 'feedback']);
  const said = $derived(column === 'kind' ? (KIND_NAMES[cells.kind] ?? cells.kind) : cells[column]);
</script>

<span
  class="block truncate leading-[21px] {SERIF.has(column) ? 'font-serif text-[14.5px]' : 'num'} {column ===
  'points'
    ? 'text-right'
    : ''}"
  dir="auto">{said}</span
>
{#if trouble !== null}<span
    class="border-brick bg-surface text-brick absolute top-full z-3 w-max max-w-[340px] border px-2 py-1 text-[12.5px] {end
      ? 'right-0'
      : 'left-0'}"
    role="alert">{trouble}</span
  >{/if}

<script lang="ts">
  import { LOOSE } from '@alforja/core';
  import { plural } from '../format';
  import ItemPages from './ItemPages.svelte';
  import type { TickSheet } from './ticks.svelte';

  /** Items that stand in no quiz and no bank: ticked all at once, or one by one. */
  interface Props {
    transferId: string;
    count: number;
    filter: string;
    sheet: TickSheet;
  }
  let { transferId, count, filter, sheet }: Props = $props();
</script>

<div class="border-hair bg-band flex items-center gap-3 border-b px-4 py-1.5">
  <input
    type="checkbox"
    class="border-quiet text-agave size-[16px] shrink-0 rounded-sm dark:bg-transparent"
    aria-label="All that is in no quiz or bank"
    checked={sheet.loose === 'all'}
    indeterminate={sheet.loose === 'some'}
    onchange={() => sheet.allLoose(sheet.loose !== 'all')}
  />
  <h2 class="truncate text-[13.5px]">In no quiz or bank</h2>
  <span class="num text-quiet ml-auto shrink-0 text-[12.5px]">{plural(count, 'item')}</span>
</div>
<div class="border-hair border-b pb-1">
  <ItemPages {transferId} of={LOOSE} {filter} inside={null} {sheet} />
</div>

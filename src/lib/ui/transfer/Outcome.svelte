<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { TransferOptions } from '$lib/shared/transfers';
  import { count, plural } from '../format';
  import { includedOf } from './included';
  import SettingTicks from './SettingTicks.svelte';
  import type { TickSheet } from './ticks.svelte';

  interface Props {
    transferId: string;
    sheet: TickSheet;
    options: TransferOptions;
    toCourse: boolean;
    /** What lists call an item. */
    itemName: (id: string) => string | undefined;
    base: string;
  }
  let { transferId, sheet, options, toCourse, itemName, base }: Props = $props();
  const MOST_SHOWN = 25;
  const behind = $derived(sheet.contents.behind);
  const shown = $derived(behind.slice(0, MOST_SHOWN));
  const next = $derived(toCourse ? 'Landing' : 'Forecast');
</script>

<aside class="flex flex-col gap-4" aria-label="The outcome">
  <div class="border-hair bg-surface border px-4 py-3" role="status">
    <h2 class="text-[14px]">Goes</h2>
    <p class="num text-[20px] font-semibold">{includedOf(sheet.contents)}</p>
    {#if sheet.contents.items > 0}<p class="num text-quiet">{plural(sheet.contents.points, 'point')}</p>{/if}
    {#if sheet.trouble}<p class="text-brick">{sheet.trouble}</p>{/if}
    <Button href="{base}/{next.toLowerCase()}" size="sm" color="primary" class="mt-3">On to {next}</Button>
  </div>
  <SettingTicks {transferId} {options} {toCourse} />
  <div class="border-hair bg-surface border px-4 py-3">
    <h2 class="text-[14px]">Stays behind</h2>
    {#if behind.length === 0}<p class="text-quiet">Nothing: everything goes.</p>
    {:else}
      <ul>
        {#each shown as left, at (at)}<li class="truncate py-0.5" dir="auto">
            <span class="text-quiet">{left.kind}</span>
            {left.kind === 'item' ? (itemName(left.id) ?? left.title) : left.title}
          </li>{/each}
        {#if behind.length > shown.length}<li class="text-quiet">
            and {count(behind.length - shown.length)} more
          </li>{/if}
      </ul>
    {/if}
  </div>
</aside>

<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { TransferOptions } from '$lib/shared/transfers';
  import { count, plural } from '../format';
  import { foldBehind } from './behind';
  import { includedOf } from './included';
  import SettingTicks from './SettingTicks.svelte';
  import type { Thing } from './things';
  import type { TickSheet } from './ticks.svelte';

  interface Props {
    transferId: string;
    sheet: TickSheet;
    options: TransferOptions;
    toCourse: boolean;
    /** Everything that can be ticked, to fold items under what holds them. */
    things: ReadonlyMap<string, Thing>;
    /** What lists call an item. */
    itemName: (id: string) => string | undefined;
    base: string;
  }
  let { transferId, sheet, options, toCourse, things, itemName, base }: Props = $props();
  const MOST_SHOWN = 25;
  const behind = $derived(sheet.contents.behind);
  const folded = $derived(foldBehind(behind, things, itemName));
  const next = 'Forecast';
</script>

<aside class="flex flex-col gap-4" aria-label="The outcome">
  <div class="border-hair bg-surface border px-4 py-3" role="status">
    <h2 class="text-[14px]">Included</h2>
    <p class="num text-[20px] font-semibold">{includedOf(sheet.contents)}</p>
    {#if sheet.contents.items > 0}<p class="num text-quiet">{plural(sheet.contents.points, 'point')}</p>{/if}
    {#if sheet.trouble}<p class="text-brick">{sheet.trouble}</p>{/if}
    <Button href="{base}/{next.toLowerCase()}" color="primary" class="mt-3">Next: {next}</Button>
  </div>
  <SettingTicks {transferId} {options} {toCourse} />
  <div class="border-hair bg-surface border px-4 py-3">
    <h2 class="text-[14px]">Not included</h2>
    {#if behind.length === 0}<p class="text-quiet">Nothing; everything is included.</p>
    {:else}
      <ul>
        {#each folded.slice(0, MOST_SHOWN) as place (place.key)}
          <li class="py-0.5">
            {#if place.items.length > 0}
              <details>
                <summary class="flex cursor-pointer items-baseline gap-2"
                  ><span class="truncate" dir="auto">{place.title}</span>
                  <span class="text-quiet num ml-auto shrink-0">{plural(place.items.length, 'item')}</span
                  ></summary
                >
                <ul class="border-hair ml-1 border-l pl-3 text-[13px]">
                  {#each place.items.slice(0, MOST_SHOWN) as name, n (n)}<li class="truncate" dir="auto">
                      {name}
                    </li>{/each}
                  {#if place.items.length > MOST_SHOWN}<li class="text-quiet">
                      and {count(place.items.length - MOST_SHOWN)} more
                    </li>{/if}
                </ul>
              </details>
            {:else}<span class="flex items-baseline gap-2"
                ><span class="truncate" dir="auto">{place.title}</span><span
                  class="text-quiet ml-auto shrink-0">{place.word}</span
                ></span
              >{/if}
          </li>
        {/each}
        {#if folded.length > MOST_SHOWN}<li class="text-quiet">
            and {count(folded.length - MOST_SHOWN)} more
          </li>{/if}
      </ul>
    {/if}
  </div>
</aside>

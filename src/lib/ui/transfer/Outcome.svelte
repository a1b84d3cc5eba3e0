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
    base: string;
  }
  let { transferId, sheet, options, toCourse, base }: Props = $props();
  const behind = $derived(sheet.contents.behind);
  const next = 'Forecast';
</script>

<aside class="flex flex-col gap-4" aria-label="The outcome">
  <div class="border-hair bg-surface border px-4 py-3" role="status">
    <h2 class="text-[14px]">Included</h2>
    <p class="num text-[20px] font-semibold">{includedOf(sheet.contents)}</p>
    <!-- As high whatever is ticked: a button that moves while it is pressed is not pressed. -->
    {#if sheet.contents.total > 0}<p class="num text-quiet">{plural(sheet.contents.points, 'point')}</p>{/if}
    <Button href="{base}/{next.toLowerCase()}" color="primary" class="mt-3">Next: {next}</Button>
    {#if sheet.trouble}<p class="text-brick mt-2">{sheet.trouble}</p>{/if}
  </div>
  <SettingTicks {transferId} {options} {toCourse} />
  <div class="border-hair bg-surface border px-4 py-3">
    <h2 class="text-[14px]">Not included</h2>
    {#if behind.length === 0}<p class="text-quiet">Nothing; everything is included.</p>
    {:else}
      <ul>
        {#each behind as place (place.key)}
          <li class="py-0.5">
            {#if place.items > 0}
              <details>
                <summary class="flex cursor-pointer items-baseline gap-2"
                  ><span class="truncate" dir="auto">{place.title}</span>
                  <span class="text-quiet num ml-auto shrink-0">{plural(place.items, 'item')}</span></summary
                >
                <ul class="border-hair ml-1 border-l pl-3 text-[13px]">
                  {#each place.names as name, n (n)}<li class="truncate" dir="auto">
                      {name}
                    </li>{/each}
                  {#if place.items > place.names.length}<li class="text-quiet">
                      and {count(place.items - place.names.length)} more
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
        {#if sheet.contents.places > behind.length}<li class="text-quiet">
            and {count(sheet.contents.places - behind.length)} more
          </li>{/if}
      </ul>
    {/if}
  </div>
</aside>

<script lang="ts">
  import type { LossList } from '$lib/shared/losses';
  import { count, plural } from '../format';
  import Avoid from './Avoid.svelte';

  interface Props {
    losses: LossList;
    packageId: string;
    /** Changes the source so that these losses are none; absent where nothing is to be changed any more. */
    avoid?: (at: readonly number[]) => Promise<void>;
  }
  let { losses, packageId, avoid }: Props = $props();
  const edge = { error: 'border-brick', warning: 'border-ochre', note: 'border-hair' } as const;
</script>

{#each losses.sorts as sort (sort.name)}
  <h3 class="mt-4 text-[13.5px] first:mt-2">
    {sort.name} <span class="num text-quiet font-normal">{count(sort.count)}</span>
  </h3>
  {#each sort.groups as group (group.found.message)}
    {@const { found } = group}
    <div class="{edge[found.severity]} mt-1.5 border-l-3 pl-3" data-testid="loss">
      <div class="font-semibold"><span class="sr-only">{found.severity}: </span>{found.message}</div>
      <div class="text-quiet">{found.hint}</div>
      {#if avoid}<Avoid ways={group.avoid} of={group.count} {avoid} />{/if}
      {#if group.placed > 0}
        <details open={group.placed <= 3}>
          <summary class="text-quiet cursor-pointer text-[13px]">{plural(group.placed, 'place')}</summary>
          <ul class="text-[13.5px]">
            {#each group.places as place, at (at)}
              {@const way = place.avoid}
              <li class="flex min-h-7 items-center gap-3">
                <span class="min-w-0 truncate" dir="auto">
                  {#if place.seq !== null}<a
                      class="inline-block min-h-6 font-serif hover:underline"
                      href="/packages/{packageId}?item={place.seq}">{place.name}</a
                    >{:else}{place.name}{/if}</span
                >
                {#if avoid && way && group.placed > 1}<button
                    type="button"
                    class="act min-h-6 shrink-0"
                    title="{way.says}{way.scores ? `; ${way.scores}` : ''}"
                    onclick={() => avoid([way.at])}>Put this right</button
                  >{/if}
              </li>
            {/each}
            {#if group.placed > group.places.length}<li class="text-quiet">
                and {plural(group.placed - group.places.length, 'more', 'more')}
              </li>{/if}
          </ul>
        </details>
      {/if}
    </div>
  {/each}
  {#if sort.more > 0}<p class="text-quiet mt-1.5 text-[13px]">
      and {plural(sort.more, 'more sort of loss', 'more sorts of loss')}
    </p>{/if}
{/each}

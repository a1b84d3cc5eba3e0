<script lang="ts">
  import type { ForecastLoss } from '$lib/shared/transfers';
  import { count, plural } from '../format';
  import Avoid from './Avoid.svelte';
  import { lossSorts } from './lossSorts';

  interface Props {
    losses: readonly ForecastLoss[];
    /** Names of items by id, and where they stand in their package. */
    names: Readonly<Record<string, { seq: number; name: string }>>;
    /** What quizzes and banks are called, by their ids. */
    called?: Readonly<Record<string, string>>;
    packageId: string;
    /** Changes the source so that these losses are none; absent where nothing is to be changed any more. */
    avoid?: (at: readonly number[]) => Promise<void>;
  }
  let { losses, names, called = {}, packageId, avoid }: Props = $props();
  const edge = { error: 'border-brick', warning: 'border-ochre', note: 'border-hair' } as const;
  const sorts = $derived(lossSorts(losses));
  const MOST_NAMED = 200;
</script>

{#each sorts as sort (sort.name)}
  <h3 class="mt-4 text-[13.5px] first:mt-2">
    {sort.name} <span class="num text-quiet font-normal">{count(sort.count)}</span>
  </h3>
  {#each sort.groups as { found, all } (found.message)}
    {@const nodes = all.filter((f) => f.where.node !== null)}
    <div class="{edge[found.severity]} mt-1.5 border-l-3 pl-3" data-testid="loss">
      <div class="font-semibold"><span class="sr-only">{found.severity}: </span>{found.message}</div>
      <div class="text-quiet">{found.hint}</div>
      {#if avoid}<Avoid {all} {avoid} />{/if}
      {#if nodes.length > 0}
        <details open={nodes.length <= 3}>
          <summary class="text-quiet cursor-pointer text-[13px]">{plural(nodes.length, 'place')}</summary>
          <ul class="text-[13.5px]">
            {#each nodes.slice(0, MOST_NAMED) as loss, at (at)}
              {@const node = loss.where.node!}
              <li class="flex min-h-7 items-center gap-3">
                <span class="min-w-0 truncate" dir="auto">
                  {#if names[node]}<a
                      class="inline-block min-h-6 font-serif hover:underline"
                      href="/packages/{packageId}?item={names[node].seq}">{names[node].name}</a
                    >{:else}{Object.hasOwn(called, node) ? called[node] : node}{/if}</span
                >
                {#if avoid && loss.avoid && nodes.length > 1}<button
                    type="button"
                    class="act min-h-6 shrink-0"
                    title="{loss.avoid.says}{loss.avoid.scores ? `; ${loss.avoid.scores}` : ''}"
                    onclick={() => avoid([loss.avoid!.at])}>Put this right</button
                  >{/if}
              </li>
            {/each}
          </ul>
        </details>
      {/if}
    </div>
  {/each}
{/each}

<script lang="ts">
  import type { ForecastLoss } from '$lib/shared/transfers';
  import { count } from '../format';
  import AvoidLine from './AvoidLine.svelte';

  /** What avoids losses of the same words: one line for each sort of change, seen before it is made. */
  let { all, avoid }: { all: readonly ForecastLoss[]; avoid: (at: readonly number[]) => Promise<void> } =
    $props();
  const can = $derived(all.flatMap((loss) => loss.avoid ?? []));
  const sorts = $derived.by(() => {
    const by = new Map<string, (typeof can)[number][]>();
    for (const way of can) {
      const sort = `${way.says} ${way.scores === null}`;
      by.set(sort, [...(by.get(sort) ?? []), way]);
    }
    return [...by];
  });
</script>

{#each sorts as [sort, ways] (sort)}<AvoidLine {ways} {avoid} />{/each}
{#if can.length > 0 && can.length < all.length}<p class="text-quiet text-[13px]">
    {count(can.length)} of {count(all.length)} can be avoided.
  </p>{/if}

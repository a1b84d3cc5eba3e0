<script lang="ts">
  import type { Avoidance } from '$lib/shared/losses';
  import { count } from '../format';
  import AvoidLine from './AvoidLine.svelte';

  /** What avoids losses of the same words: one line for each sort of change, seen before it is made. */
  interface Props {
    ways: readonly Avoidance[];
    /** How many losses there are of these words. */
    of: number;
    avoid: (at: readonly number[]) => Promise<void>;
  }
  let { ways: can, of, avoid }: Props = $props();
  const sorts = $derived.by(() => {
    const by = new Map<string, Avoidance[]>();
    for (const way of can) {
      const sort = `${way.says} ${way.scores === null}`;
      by.set(sort, [...(by.get(sort) ?? []), way]);
    }
    return [...by];
  });
</script>

{#each sorts as [sort, ways] (sort)}<AvoidLine {ways} {avoid} />{/each}
{#if can.length > 0 && can.length < of}<p class="text-quiet text-[13px]">
    {count(can.length)} of {count(of)} can be avoided.
  </p>{/if}

<script lang="ts">
  import type { JudgedDifference } from '$lib/shared/transfers';
  import { plural } from '../format';
  import Accept from './Accept.svelte';
  import DifferenceLine from './DifferenceLine.svelte';
  import type { DifferenceGroup } from './differences';

  /** Differences of one sort on one line, which unfolds to each of them. */
  interface Props {
    g: DifferenceGroup;
    running: boolean;
    accept: (list: readonly JudgedDifference[], reason: string) => Promise<void>;
    mend: (list: readonly JudgedDifference[]) => Promise<void>;
  }
  let { g, running, accept, mend }: Props = $props();
  let open = $state(false);
  const MOST_UNFOLDED = 100;
</script>

<li class="border-hair border-b last:border-0">
  <div class="flex flex-wrap items-baseline gap-x-4 px-4 py-1.5">
    <button
      type="button"
      class="flex min-h-6 min-w-0 items-baseline gap-x-2 text-left"
      aria-expanded={open}
      onclick={() => (open = !open)}
    >
      <span aria-hidden="true" class="text-quiet w-3 {open ? 'rotate-90' : ''}">▸</span>
      <span class="font-semibold">{g.says}</span>
      {#if g.inSeam}<span class="text-quiet text-[13px]">each in its place below</span>{/if}
    </button>
    <span class="ml-auto text-[13.5px]"
      ><Accept what={g.says} onaccept={(reason) => accept(g.differences, reason)} /></span
    >
  </div>
  {#if open}
    <ul class="border-hair border-t pl-7">
      {#each g.differences.slice(0, MOST_UNFOLDED) as d (d.id)}<DifferenceLine
          {d}
          {running}
          onmend={() => mend([d])}
          onaccept={(reason) => accept([d], reason)}
        />{/each}
      {#if g.differences.length > MOST_UNFOLDED}<li class="text-quiet px-4 py-1.5 text-[13px]">
          and {plural(g.differences.length - MOST_UNFOLDED, 'more', 'more')}; the receipt lists them
        </li>{/if}
    </ul>
  {/if}
</li>

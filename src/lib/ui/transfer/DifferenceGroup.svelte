<script lang="ts">
  import type { DifferenceGroupShown, DifferencesMeant } from '$lib/shared/differences';
  import { plural } from '../format';
  import Accept from './Accept.svelte';
  import DifferenceLine from './DifferenceLine.svelte';
  import { groupSays } from './differences';

  /** Differences of one sort on one line, which unfolds to each of them. */
  interface Props {
    g: DifferenceGroupShown;
    running: boolean;
    accept: (meant: DifferencesMeant, reason: string) => Promise<void>;
    mend: (meant: DifferencesMeant) => Promise<void>;
  }
  let { g, running, accept, mend }: Props = $props();
  let open = $state(false);
  const says = $derived(groupSays(g.sort, g.count));
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
      <span class="font-semibold">{says}</span>
      {#if g.sort.about === 'item'}<span class="text-quiet text-[13px]">each in its place below</span>{/if}
    </button>
    <span class="ml-auto text-[13.5px]"
      ><Accept what={says} onaccept={(reason) => accept({ sort: g.id }, reason)} /></span
    >
  </div>
  {#if open}
    <ul class="border-hair border-t pl-7">
      {#each g.first as d (d.id)}<DifferenceLine
          {d}
          {running}
          onmend={() => mend({ ids: [d.id] })}
          onaccept={(reason) => accept({ ids: [d.id] }, reason)}
        />{/each}
      {#if g.count > g.first.length}<li class="text-quiet px-4 py-1.5 text-[13px]">
          and {plural(g.count - g.first.length, 'more', 'more')}; the receipt lists them
        </li>{/if}
    </ul>
  {/if}
</li>

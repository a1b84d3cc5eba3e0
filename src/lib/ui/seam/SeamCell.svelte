<script lang="ts">
  import type { SeamRow } from '@alforja/core';
  import KindIcon from '../KindIcon.svelte';
  import { count } from '../format';

  /** One side of a row; hatched where there is nothing on that side, empty until it is here. */
  let { row, side }: { row: SeamRow | null; side: 'left' | 'right' } = $props();
  const here = $derived(side === 'left' ? row?.left : row?.right);
  const there = $derived(side === 'left' ? row?.right : row?.left);
</script>

{#if !row}
  <div class="h-[38px]"></div>
{:else if here}
  <div class="flex h-[38px] items-center gap-2.5 px-3.5 max-md:gap-1.5 max-md:px-1.5">
    <span class="num number text-quiet shrink-0 text-right text-[12.5px] max-md:hidden" data-testid="number"
      >{here.n}</span
    >
    <KindIcon kind={here.kind} />
    <span class="min-w-0 grow truncate font-serif text-[15.5px]" dir="auto">{here.name}</span>
    <span
      class="max-w-[110px] shrink-0 truncate text-[12.5px] max-md:hidden {side === 'right' &&
      there &&
      there.key !== here.key &&
      row?.state === 'altered'
        ? 'text-ochre font-semibold'
        : 'text-quiet'}"
      dir="auto">{here.key}</span
    >
    <span
      class="num w-9 shrink-0 text-right max-md:w-6 {side === 'right' && there && there.points !== here.points
        ? 'text-ochre font-semibold'
        : ''}">{count(here.points)}</span
    >
  </div>
{:else}
  <div
    class="hatched flex h-[38px] items-center px-3.5 pl-[76px] text-[13.5px] max-md:pl-2 font-semibold {side ===
    'right'
      ? 'text-brick'
      : 'text-plum'}"
  >
    {side === 'right' ? 'not in what came back' : 'not in what was sent'}
  </div>
{/if}

<style>
  /* As wide as the longest number of the list. */
  .number {
    width: max(1.75rem, calc(var(--digits, 3) * 0.68em));
  }
  .hatched {
    background: repeating-linear-gradient(135deg, transparent 0 7px, var(--hair) 7px 8px);
    text-shadow:
      0 0 4px var(--surface),
      0 0 4px var(--surface),
      0 0 4px var(--surface);
  }
</style>

<script lang="ts">
  import type { Tick } from '@alforja/core';
  import type { ItemRow } from '$lib/shared/types';
  import KindIcon from '../KindIcon.svelte';
  import { count } from '../format';
  import type { TickSheet } from './ticks.svelte';

  interface Props {
    row: ItemRow;
    /** The title of the thing it goes with; null where it is ticked on its own. */
    inside: string | null;
    /** Whether it stands in no quiz and no bank. */
    loose: boolean;
    sheet: TickSheet;
  }
  let { row, inside, loose, sheet }: Props = $props();
  const tick = $derived<Tick>({ kind: 'item', nodeId: row.id });
  const on = $derived(inside !== null || (loose ? sheet.hasLoose(row.id) : sheet.has(tick)));
</script>

<li class="flex items-center gap-3 py-1.5 pr-4 pl-[60px] hover:bg-wash">
  <input
    type="checkbox"
    class="border-quiet text-agave size-[15px] shrink-0 rounded-sm dark:bg-transparent"
    aria-label={row.name}
    checked={on}
    disabled={inside !== null}
    onchange={() => (loose ? sheet.toggleLoose(row.id) : sheet.toggle(tick))}
  />
  <KindIcon kind={row.kind} />
  <span class="truncate font-serif text-[15px]" dir="auto">{row.name}</span>
  {#if inside}<span class="text-quiet max-w-[180px] shrink-0 truncate text-[12.5px]"
      >included with {inside}</span
    >{/if}
  <span class="num text-quiet ml-auto shrink-0">{count(row.points)}</span>
</li>

<script lang="ts">
  import type { ItemRow } from '$lib/shared/types';
  import KindIcon from '../KindIcon.svelte';
  import { count } from '../format';
  import { VirtualRows } from '../virtual.svelte';

  interface Props {
    rows: readonly ItemRow[];
    selected: number | null;
    select: (row: ItemRow) => void;
  }
  let { rows, selected, select }: Props = $props();
  const virtual = new VirtualRows({ count: 0, estimate: () => 60, key: (i) => rows[i]?.seq ?? i });
  $effect(() => virtual.set(rows.length));
  const at = $derived(rows.findIndex((r) => r.seq === selected));

  function press(event: KeyboardEvent): void {
    const moves: Record<string, number> = {
      ArrowDown: 1,
      ArrowUp: -1,
      PageDown: 10,
      PageUp: -10,
      Home: -rows.length,
      End: rows.length,
    };
    const by = moves[event.key];
    if (by === undefined || rows.length === 0) return;
    event.preventDefault();
    const next = Math.max(0, Math.min(rows.length - 1, at + by));
    virtual.scrollTo(next);
    select(rows[next]!);
  }
</script>

<div
  use:virtual.attach
  class="h-full overflow-y-auto outline-offset-[-3px]"
  role="listbox"
  aria-label="Items"
  tabindex="0"
  aria-activedescendant={at >= 0 ? `row-${rows[at]!.seq}` : undefined}
  onkeydown={press}
>
  <div class="relative w-full" style="height: {virtual.total}px" role="presentation">
    {#each virtual.rows as place (place.key)}
      {@const row = rows[place.index]}
      {#if row}
        <!-- svelte-ignore a11y_click_events_have_key_events -->
        <div
          use:virtual.measure
          data-index={place.index}
          id="row-{row.seq}"
          role="option"
          tabindex="-1"
          aria-selected={row.seq === selected}
          aria-setsize={rows.length}
          aria-posinset={place.index + 1}
          class="border-hair absolute top-0 left-0 flex w-full cursor-pointer gap-2.5 border-b border-l-3 py-2.5 pr-3.5 pl-3 {row.seq ===
          selected
            ? 'border-l-saddle bg-wash'
            : 'border-l-transparent hover:bg-wash'}"
          style="transform: translateY({place.start}px)"
          onclick={() => select(row)}
        >
          <span class="num text-quiet w-6 shrink-0 pt-0.5 text-right text-[12.5px]">{place.index + 1}</span>
          <span class="pt-0.5"><KindIcon kind={row.kind} /></span>
          <span class="min-w-0 grow">
            <span class="line-clamp-2 font-serif text-[15.5px] leading-snug" dir="auto">{row.name}</span>
            {#if row.trouble}<span class="text-ochre line-clamp-1 text-[12.5px]">{row.trouble}</span>{/if}
          </span>
          <span class="num shrink-0 pt-0.5">{count(row.points)}</span>
        </div>
      {/if}
    {/each}
  </div>
</div>

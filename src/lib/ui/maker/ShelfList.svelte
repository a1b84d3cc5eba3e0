<script lang="ts">
  import { untrack } from 'svelte';
  import KindIcon from '../KindIcon.svelte';
  import { count } from '../format';
  import { VirtualRows } from '../virtual.svelte';
  import type { ShelfRow } from '$lib/shared/making';
  import { dragged, dropped, type BankShelf } from './shelf.svelte';

  interface Props {
    shelf: BankShelf;
    /** Whether an item stands in what is made already. */
    holds: (row: ShelfRow) => boolean;
    put: () => void;
    look: (row: ShelfRow) => void;
  }
  let { shelf, holds, put, look }: Props = $props();
  const total = $derived(shelf.head?.total ?? 0);
  const ROW = 46;
  const virtual = new VirtualRows({
    count: 0,
    estimate: () => ROW,
    key: (i) => i,
    keep: () => shelf.at,
  });
  $effect(() => virtual.set(total));
  $effect(() => {
    const [from, to] = [virtual.rows[0]?.index ?? 0, virtual.rows.at(-1)?.index ?? 0];
    if (total > 0) untrack(() => shelf.want(from, to));
  });

  function go(to: number): void {
    shelf.at = Math.max(0, Math.min(total - 1, to));
    shelf.want(shelf.at, shelf.at);
    virtual.scrollTo(shelf.at);
  }
  function press(event: KeyboardEvent): void {
    if (event.ctrlKey || event.metaKey || event.altKey || total === 0) return;
    const moves: Record<string, number> = {
      ArrowDown: 1,
      ArrowUp: -1,
      PageDown: 10,
      PageUp: -10,
      Home: -total,
      End: total,
    };
    const by = moves[event.key];
    const row = shelf.rows.get(shelf.at);
    if (by !== undefined) go(shelf.at < 0 ? 0 : shelf.at + by);
    else if (event.key === ' ' && row) shelf.tick(shelf.at);
    else if (event.key === 'Enter' && shelf.chosen.length > 0) put();
    else if (event.key === 'v' && row) look(row);
    else return;
    event.preventDefault();
  }
  function take(event: DragEvent, n: number): void {
    if (!shelf.ticked.has(n)) shelf.ticked.clear();
    shelf.at = n;
    dragged.rows = shelf.chosen;
    event.dataTransfer?.setData('text/plain', dragged.rows.map((r) => r.name).join('\n'));
  }
</script>

<div
  use:virtual.attach
  class="border-hair bg-surface min-h-16 grow overflow-y-auto border-y outline-offset-[-3px]"
  role="listbox"
  aria-label="Questions of the bank"
  aria-multiselectable="true"
  tabindex="0"
  aria-activedescendant={shelf.at >= 0 ? `shelf-${shelf.at}` : undefined}
  onkeydown={press}
  onfocus={() => shelf.at < 0 && total > 0 && (shelf.at = 0)}
>
  <div class="relative w-full" style="height: {virtual.total}px" role="presentation">
    {#each virtual.rows as place (place.key)}
      {@const row = shelf.rows.get(place.index)}
      <!-- svelte-ignore a11y_click_events_have_key_events -->
      <div
        use:virtual.measure
        data-index={place.index}
        id="shelf-{place.index}"
        role="option"
        tabindex="-1"
        aria-selected={shelf.ticked.has(place.index)}
        aria-setsize={total}
        aria-posinset={place.index + 1}
        draggable={row !== undefined}
        ondragstart={(e) => take(e, place.index)}
        ondragend={dropped}
        class="border-hair absolute top-0 left-0 flex w-full cursor-pointer gap-2 border-b border-l-3 py-1.5 pr-2 pl-1.5 {place.index ===
        shelf.at
          ? 'border-l-saddle bg-wash'
          : 'hover:bg-wash border-l-transparent'}"
        style="transform: translateY({place.start}px)"
        onclick={(e) => {
          shelf.at = place.index;
          if ((e.target as HTMLElement).closest('[data-tick]') || e.ctrlKey || e.metaKey)
            shelf.tick(place.index);
        }}
        ondblclick={() => row && look(row)}
      >
        {#if row}
          <span
            data-tick
            aria-hidden="true"
            class="mt-0.5 grid size-[15px] shrink-0 place-items-center rounded-sm border text-[11px] leading-none {shelf.ticked.has(
              place.index,
            )
              ? 'border-agave bg-agave text-surface'
              : 'border-quiet'}">{shelf.ticked.has(place.index) ? '✓' : ''}</span
          >
          <span class="shrink-0"><KindIcon kind={row.kind} /></span>
          <span class="min-w-0 grow">
            <span class="line-clamp-2 font-serif text-[14.5px] leading-snug" dir="auto">{row.name}</span>
            {#if row.used || holds(row)}<span class="text-quiet text-[12px]"
                >{holds(row) ? 'in here already' : 'used before'}</span
              >{/if}
          </span>
          <span class="num shrink-0 text-[13px]">{count(row.points)}<span class="sr-only"> points</span></span
          >
        {:else}<span class="text-quiet">…</span>{/if}
      </div>
    {/each}
  </div>
</div>

<script lang="ts">
  import { untrack } from 'svelte';
  import KindIcon from '../KindIcon.svelte';
  import { count } from '../format';
  import { VirtualRows } from '../virtual.svelte';
  import type { Room } from './room.svelte';

  let { room }: { room: Room } = $props();
  const listed = $derived(room.listed);
  const trouble = $derived.by(() => {
    const first = new Map<number, string>();
    for (const { item, spoken } of room.view.findings)
      if (item !== null && spoken.severity !== 'note' && !first.has(item)) first.set(item, spoken.message);
    return first;
  });
  const at = $derived(room.current === null ? -1 : listed.indexOf(room.current));
  /** What the virtual list asks for every row. */
  let rows: { readonly keys: readonly number[]; readonly heights: Uint8Array } = {
    keys: [],
    heights: new Uint8Array(),
  };
  const virtual = new VirtualRows({
    count: 0,
    estimate: (i) => rows.heights[i] ?? 46,
    key: (i) => rows.keys[i] ?? -1 - i,
    keep: () => at,
  });
  $effect(() => {
    rows = {
      keys: listed,
      heights: Uint8Array.from(
        listed,
        (item) => 46 + (trouble.has(item) ? 20 : 0) + (room.edited.has(item) ? 20 : 0),
      ),
    };
    virtual.set(listed.length);
  });
  /** Rows around those in sight that have to have their names, and those whose names come along then. */
  const [NEAR, FAR] = [20, 60];
  const around = (from: number, to: number, by: number): number[] =>
    listed.slice(Math.max(0, from - by), to + 1 + by);
  async function name(from: number, to: number): Promise<void> {
    if (around(from, to, NEAR).some((item) => room.names.of(item) === null))
      await room.names.want(around(from, to, FAR));
  }
  /** While the list runs past, names are asked for once at a time, for where it stands by then. */
  let inSight: readonly [number, number] | null = null;
  let asking = false;
  async function follow(): Promise<void> {
    if (asking) return;
    asking = true;
    while (inSight) {
      const [from, to] = inSight;
      inSight = null;
      await name(from, to);
    }
    asking = false;
  }
  $effect(() => {
    // The active row stays in the page wherever the list stands, and may be far from what is in sight.
    const seen = virtual.rows.map((row) => row.index).filter((index) => index !== at);
    inSight = [seen[0] ?? 0, seen.at(-1) ?? 0];
    void untrack(follow);
  });
  $effect(() => {
    // What is active is brought into sight once the rows there have their names, and so their heights.
    const active = at;
    if (active >= 0)
      void untrack(() => name(active, active)).then(() => {
        if (active === at) virtual.scrollTo(active);
      });
  });

  function press(event: KeyboardEvent): void {
    const moves: Record<string, number> = {
      ArrowDown: 1,
      ArrowUp: -1,
      PageDown: 10,
      PageUp: -10,
      Home: -listed.length,
      End: listed.length,
    };
    const by = moves[event.key];
    if (by === undefined || listed.length === 0) return;
    event.preventDefault();
    room.select(listed[Math.max(0, Math.min(listed.length - 1, at + by))]!);
  }
</script>

<div
  use:virtual.attach
  class="h-full overflow-y-auto outline-offset-[-3px]"
  role="listbox"
  aria-label="Items"
  tabindex="0"
  aria-activedescendant={at >= 0 ? `row-${listed[at]!}` : undefined}
  onkeydown={press}
>
  <div class="relative w-full" style="height: {virtual.total}px" role="presentation">
    {#each virtual.rows as place (place.key)}
      {@const item = listed[place.index]}
      {#if item !== undefined}
        <!-- svelte-ignore a11y_click_events_have_key_events -->
        <div
          use:virtual.measure
          data-index={place.index}
          id="row-{item}"
          role="option"
          tabindex="-1"
          aria-selected={item === room.current}
          aria-setsize={listed.length}
          aria-posinset={place.index + 1}
          class="border-hair absolute top-0 left-0 flex w-full cursor-pointer gap-2.5 border-b border-l-3 py-2 pr-3.5 pl-2 {item ===
          room.current
            ? 'border-l-saddle bg-wash'
            : 'border-l-transparent hover:bg-wash'}"
          style="transform: translateY({place.start}px)"
          onclick={() => room.select(item)}
        >
          <span class="num text-quiet min-w-6 shrink-0 pt-0.5 text-right text-[12.5px]"
            >{room.numberOf(item)}</span
          >
          <span class="pt-0.5"><KindIcon kind={room.rows.kinds[room.rows.kind[item]!] ?? 'none'} /></span>
          <span class="min-w-0 grow">
            <span class="line-clamp-2 font-serif text-[15.5px] leading-snug" dir="auto"
              >{room.names.of(item) ?? '\u00a0'}</span
            >
            {#if room.edited.has(item)}<span class="text-saddle text-[12.5px] font-semibold">changed</span
              >{/if}
            {#if trouble.has(item)}<span class="text-ochre line-clamp-1 text-[12.5px]"
                >{trouble.get(item)}</span
              >{/if}
          </span>
          <span class="num shrink-0 pt-0.5"
            >{count(room.rows.points[item] ?? 0)}<span class="sr-only"> points</span></span
          >
        </div>
      {/if}
    {/each}
  </div>
</div>

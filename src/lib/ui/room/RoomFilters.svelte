<script lang="ts">
  import SlidersHorizontal from '@lucide/svelte/icons/sliders-horizontal';
  import { untrack } from 'svelte';
  import { count, KIND_NAMES, plural } from '../format';
  import { NO_FILTERS, UNCATEGORISED, type Choice } from './places';
  import type { Room } from './room.svelte';

  let { room }: { room: Room } = $props();
  /** How finding codes are told: by what the first of them says. */
  const said = $derived(
    new Map(room.view.findings.toReversed().map((f) => [f.spoken.code as string, f.spoken.message])),
  );
  const selects = [
    { name: 'kind', label: 'Kind', says: (v: string) => KIND_NAMES[v] ?? v },
    { name: 'category', label: 'Category', says: (v: string) => (v === UNCATEGORISED ? 'none' : v) },
    { name: 'points', label: 'Points', says: (v: string) => plural(Number(v), 'point') },
    { name: 'finding', label: 'Finding', says: (v: string) => said.get(v) ?? v },
  ] as const;
  const more = $derived(selects.some((s) => room.filters[s.name] !== '') || room.filters.key !== '');
  let open = $state(untrack(() => more));
  const listed = (choices: readonly Choice[], value: string): readonly Choice[] =>
    value === '' || choices.some((c) => c.value === value) ? choices : [...choices, { value, count: 0 }];
</script>

<div class="border-hair border-b px-3 py-2">
  <div class="flex items-center gap-2">
    <input
      type="search"
      aria-label="Filter this list"
      placeholder="Filter…"
      value={room.filters.q}
      oninput={(e) => room.narrow({ q: e.currentTarget.value })}
      class="border-hair bg-surface text-ink placeholder:text-quiet h-7 min-w-0 grow rounded border px-2 text-[13px]"
    />
    <button
      type="button"
      class="border-hair hover:bg-band inline-flex h-7 items-center gap-1 rounded border px-2 text-[13px] {more
        ? 'text-saddle font-semibold'
        : ''}"
      aria-expanded={open}
      onclick={() => (open = !open)}><SlidersHorizontal size={13} /> By kind, key…</button
    >
    {#if room.filtered}<button
        type="button"
        class="act h-7 text-[13px]"
        onclick={() => room.narrow(NO_FILTERS)}>Clear</button
      >{/if}
  </div>
  {#if open}
    <div class="mt-2 grid grid-cols-2 gap-2">
      {#each selects as s (s.name)}
        <label class="text-quiet min-w-0 text-[12px]"
          >{s.label}
          <select
            class="border-hair bg-surface text-ink block h-7 w-full truncate rounded border py-0 pr-7 pl-2 text-[13px]"
            value={room.filters[s.name]}
            onchange={(e) => room.narrow({ [s.name]: e.currentTarget.value })}
          >
            <option value="">any</option>
            {#each listed(room.choices[s.name], room.filters[s.name]) as c (c.value)}<option value={c.value}
                >{s.says(c.value)} ({count(c.count)})</option
              >{/each}
          </select></label
        >
      {/each}
      <label class="text-quiet col-span-2 text-[12px]"
        >Key holds
        <input
          type="search"
          value={room.filters.key}
          oninput={(e) => room.narrow({ key: e.currentTarget.value })}
          class="border-hair bg-surface text-ink block h-7 w-full rounded border px-2 text-[13px]"
        /></label
      >
    </div>
  {/if}
</div>

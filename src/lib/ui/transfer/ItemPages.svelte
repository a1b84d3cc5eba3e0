<script lang="ts">
  import { untrack } from 'svelte';
  import type { Tick } from '@alforja/core';
  import type { ItemPage } from '$lib/shared/contents';
  import type { ItemRow } from '$lib/shared/types';
  import { count, plural } from '../format';
  import ItemLine from './ItemLine.svelte';
  import type { TickSheet } from './ticks.svelte';

  /** Items of a thing, fetched a page at a time. */
  interface Props {
    transferId: string;
    of: Tick;
    filter: string;
    /** The title of the thing they go with; null where each is ticked on its own. */
    inside: string | null;
    sheet: TickSheet;
  }
  let { transferId, of, filter, inside, sheet }: Props = $props();
  let rows = $state.raw<readonly ItemRow[]>([]);
  let total = $state(0);
  let how = $state<'coming' | 'here' | 'failed'>('coming');
  let asked = 0;

  async function fetchFrom(from: number): Promise<void> {
    const mine = ++asked;
    how = 'coming';
    const query = new URLSearchParams({ kind: of.kind, node: of.nodeId, filter, from: String(from) });
    const response = await fetch(`/api/transfers/${transferId}/contents/items?${query}`).catch(() => null);
    const page = response?.ok ? ((await response.json()) as ItemPage) : null;
    if (mine !== asked) return;
    how = page ? 'here' : 'failed';
    if (!page) return;
    rows = from === 0 ? page.rows : [...rows, ...page.rows];
    total = page.total;
  }
  $effect(() => {
    void [of.kind, of.nodeId, filter];
    untrack(() => void fetchFrom(0));
  });
</script>

<ul class="border-hair border-t">
  {#each rows as row (row.seq)}<ItemLine {row} {inside} loose={of.kind === 'loose'} {sheet} />{/each}
</ul>
{#if how === 'failed'}
  <p class="text-brick py-1.5 pr-4 pl-[60px] text-[13px]" role="alert">
    The items could not be fetched. <button type="button" class="act" onclick={() => fetchFrom(rows.length)}
      >Try once more</button
    >
  </p>
{:else if how === 'coming' && rows.length === 0}
  <p class="text-quiet py-1.5 pr-4 pl-[60px] text-[13px]" role="status">Fetching items…</p>
{:else if rows.length < total}
  <p class="text-quiet py-1.5 pr-4 pl-[60px] text-[13px]">
    {count(rows.length)} of {plural(total, 'item')}.
    <button
      type="button"
      class="act min-h-6"
      disabled={how === 'coming'}
      onclick={() => fetchFrom(rows.length)}>Show more</button
    >
  </p>
{/if}

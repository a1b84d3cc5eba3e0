<script lang="ts">
  import type { Receipt } from '$lib/shared/receipt';
  import { readable, stamp } from '../format';
  import MoreListed from './MoreListed.svelte';

  /** What was planned, what is otherwise, and by which steps it went. */
  let { receipt }: { receipt: Receipt } = $props();
  const way = $derived(receipt.way);
</script>

{#if way.planned.length > 0}
  <h3 class="text-[14px]">Planned</h3>
  <ul class="mb-3">
    {#each way.planned as p, n (n)}<li class="border-hair border-b py-1 text-[13px]">
        <span class="font-serif text-[14.5px]" dir="auto">{p.name}</span>
        <span class="text-quiet">{p.kind}, {p.action}</span>
      </li>{/each}
  </ul>
{/if}
{#if receipt.differences.length > 0}
  <h3 class="text-[14px]">Differences</h3>
  <ul class="mb-3">
    {#each receipt.differences as d, at (at)}
      <li class="border-hair border-b py-1 text-[13px]">
        <span class="font-serif text-[14.5px]" dir="auto">{d.what}</span><br />
        <span class="text-quiet">planned</span> <span dir="auto">{readable(d.planned) || 'nothing'}</span>
        <span class="text-quiet">· found</span> <span dir="auto">{readable(d.found) || 'nothing'}</span>
        <span class="text-quiet">·</span>
        {#if d.accepted}<span class="text-quiet"
            >Accepted by {d.accepted.by}, {stamp(d.accepted.at, 'second')}: “{d.accepted.reason}”</span
          >{:else}<b>Open</b>{/if}
      </li>
    {/each}
  </ul>
  <MoreListed more={receipt.more?.differences} />
{/if}
{#each way.notes as note, n (n)}<p class="mb-2 text-[13px]">{note}</p>{/each}
{#if way.record.length > 0}
  <h3 class="text-[14px]">Record</h3>
  <ul class="mb-3" data-testid="record">
    {#each way.record as a, n (n)}<li class="border-hair flex flex-wrap gap-x-3 border-b py-1 text-[13px]">
        <span class="w-[150px] shrink-0 max-md:w-auto">{a.act} by {a.by}</span><span
          class="text-quiet min-w-0 flex-1 max-md:basis-full"
          dir="auto">{a.says}</span
        ><span class="num text-quiet whitespace-nowrap">{stamp(a.at, 'second')}</span>
      </li>{/each}
  </ul>
{/if}
{#if way.steps.length > 0}
  <h3 class="text-[14px]">Steps</h3>
  <ul class="mb-4">
    {#each way.steps as s, n (n)}<li class="border-hair flex flex-wrap gap-x-3 border-b py-1 text-[13px]">
        <span class="w-[190px] shrink-0 max-md:w-auto">{s.name}</span><span
          class="text-quiet min-w-0 flex-1 max-md:basis-full">{s.says || s.state}</span
        ><span class="num text-quiet whitespace-nowrap">{stamp(s.ended, 'second')}</span>
      </li>{/each}
  </ul>
{/if}

<script lang="ts">
  import { untrack, type Snippet } from 'svelte';
  import type { BankListing, ShelfRow } from '$lib/shared/making';
  import { plural } from '../format';
  import Peek from './Peek.svelte';
  import { bankKey, type BankShelf } from './shelf.svelte';
  import ShelfFilters from './ShelfFilters.svelte';
  import ShelfList from './ShelfList.svelte';

  interface Props {
    shelf: BankShelf;
    banks: readonly BankListing[];
    holds: (row: ShelfRow) => boolean;
    put: () => void;
    /** What can be done with what is chosen, or with all that is left. */
    actions: Snippet;
  }
  let { shelf, banks, holds, put, actions }: Props = $props();
  let looked = $state.raw<ShelfRow | null>(null);
  const places = $derived.by(() => {
    const groups = new Map<string, { key: string; name: string; banks: BankListing[] }>();
    for (const b of banks) {
      const key = b.kind === 'own' ? 'own' : b.place;
      const group = groups.get(key) ?? { key, name: b.kind === 'own' ? 'My banks' : b.placeName, banks: [] };
      group.banks.push(b);
      groups.set(key, group);
    }
    return [...groups.values()];
  });
  $effect(() => {
    // The first bank is open, so that there is something to take.
    if (untrack(() => shelf.bank) === null && banks.length > 0) shelf.open(banks[0]!);
  });
  const choose = (key: string): void => shelf.open(banks.find((b) => bankKey(b) === key) ?? null);
</script>

<section class="flex min-h-0 flex-col gap-2" aria-label="What can be put in">
  <label class="text-quiet text-[12.5px]"
    >Take from<select
      class="border-hair bg-surface text-ink block h-9 w-full truncate rounded border py-0 pr-8 pl-2 text-[14px]"
      value={shelf.bank ? bankKey(shelf.bank) : ''}
      onchange={(e) => choose(e.currentTarget.value)}
    >
      {#if banks.length === 0}<option value="">There is no bank yet</option>{/if}
      {#each places as group (group.key)}<optgroup label={group.name}>
          {#each group.banks as b (bankKey(b))}<option value={bankKey(b)}>{b.title} ({b.items})</option
            >{/each}
        </optgroup>{/each}
    </select></label
  >
  <ShelfFilters {shelf} />
  <p class="text-quiet flex items-baseline gap-2 text-[12.5px]" role="status">
    {#if shelf.trouble}<span class="text-brick">{shelf.trouble}</span>
    {:else if shelf.head}<span class="num"
        >{plural(shelf.head.total, 'question')}, {plural(shelf.head.points, 'point')}{shelf.ticked.size > 0
          ? `; ${shelf.ticked.size} ticked`
          : ''}</span
      >{/if}
    <span class="ml-auto">Space ticks, Enter puts in, V shows</span>
  </p>
  <ShelfList {shelf} {holds} {put} look={(row) => (looked = row)} />
  <div class="flex flex-wrap gap-2">{@render actions()}</div>
</section>
{#if looked && shelf.head}<Peek
    packageId={shelf.head.packageId}
    seq={looked.seq}
    close={() => (looked = null)}
  />{/if}

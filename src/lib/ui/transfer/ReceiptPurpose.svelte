<script lang="ts">
  import type { Receipt, ReceiptChange } from '$lib/shared/receipt';
  import { count } from '../format';
  import { FACET_NAMES } from '../seam/rows';
  import MoreListed from './MoreListed.svelte';

  /** What was changed on purpose before it was sent, with before and after. */
  let { receipt }: { receipt: Receipt } = $props();
  const LEFT_OUT = 'left out';
  const isOut = (c: ReceiptChange): boolean =>
    c.what === 'leave-out' || (c.what === 'membership' && c.after === LEFT_OUT);
  const out = $derived(receipt.onPurpose.filter(isOut));
  /** Thing by thing, in the order in which they stand. */
  const things = $derived.by(() => {
    const by = new Map<string, { readonly name: string; readonly changes: ReceiptChange[] }>();
    for (const change of receipt.onPurpose.filter((c) => !isOut(c))) {
      const thing = by.get(change.node) ?? { name: change.name, changes: [] };
      by.set(change.node, thing);
      thing.changes.push(change);
    }
    return [...by.values()];
  });
  const facet = (what: string): string =>
    Object.hasOwn(FACET_NAMES, what) ? FACET_NAMES[what as keyof typeof FACET_NAMES] : '';
</script>

{#if receipt.onPurpose.length > 0}
  <section aria-labelledby="purpose" data-testid="on-purpose">
    <h3 id="purpose" class="mt-3 text-[14px]">
      Changed on purpose: {count(receipt.onPurpose.length + (receipt.more?.onPurpose ?? 0))}
    </h3>
    <p class="text-quiet text-[13px]">
      {receipt.counts
        ? 'Put right here before it was sent, and found there as it was put right.'
        : 'Put right here before it was sent; whether it arrived so has not been checked.'}
    </p>
    <ul>
      {#each things as thing, n (n)}
        <li class="border-hair border-b py-1.5">
          <span class="font-serif text-[15px]" dir="auto">{thing.name}</span>
          {#each thing.changes as c, k (k)}<div class="text-[13px]" dir="auto">
              {#if facet(c.what)}{facet(c.what)}: <q>{c.before || 'nothing'}</q> before,
                <q>{c.after || 'nothing'}</q> now{:else}{c.after}{#if c.before}; before: <q>{c.before}</q
                  >{/if}{/if}
            </div>{/each}
        </li>
      {/each}
    </ul>
    {#if out.length > 0}
      <h4 class="mt-2 text-[13.5px] font-semibold">Left out: {count(out.length)}</h4>
      <ul class="gap-x-6 text-[13px] sm:columns-2">
        {#each out as c, n (n)}<li class="border-hair break-inside-avoid border-b py-0.5" dir="auto">
            {c.name}
          </li>{/each}
      </ul>
    {/if}
    <MoreListed more={receipt.more?.onPurpose} />
  </section>
{/if}

<script lang="ts">
  import { isLeftOut, type Receipt, type ReceiptChange } from '$lib/shared/receipt';
  import { count } from '../format';
  import { FACET_NAMES } from '../seam/rows';
  import MoreListed from './MoreListed.svelte';

  /** What was changed on purpose before it was sent, with before and after. */
  let { receipt }: { receipt: Receipt } = $props();
  const out = $derived(receipt.onPurpose.filter(isLeftOut));
  const more = $derived({ changed: receipt.more?.onPurpose ?? 0, out: receipt.more?.leftOut ?? 0 });
  /** Thing by thing, in the order in which they stand. */
  const things = $derived.by(() => {
    const by = new Map<string, { readonly name: string; readonly changes: ReceiptChange[] }>();
    for (const change of receipt.onPurpose.filter((c) => !isLeftOut(c))) {
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
      Changed on purpose: {count(receipt.onPurpose.length + more.changed + more.out)}
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
    <MoreListed more={more.changed} />
    {#if out.length > 0}
      <h4 class="mt-2 text-[13.5px] font-semibold">Left out: {count(out.length + more.out)}</h4>
      <ul class="gap-x-6 text-[13px] sm:columns-2">
        {#each out as c, n (n)}<li class="border-hair break-inside-avoid border-b py-0.5" dir="auto">
            {c.name}
          </li>{/each}
      </ul>
      <MoreListed more={more.out} />
    {/if}
  </section>
{/if}

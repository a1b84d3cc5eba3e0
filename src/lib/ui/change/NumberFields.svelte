<script lang="ts">
  import type { NumericShape, ResponseDeclaration } from '@alforja/core';
  import { typedNumber } from '../format';
  import type { ItemDraft } from './draft.svelte';

  /** The number that is right, and between which bounds others are. */
  let {
    draft,
    response,
    part,
    name,
  }: {
    draft: ItemDraft;
    response: ResponseDeclaration;
    /** Null where no number is right yet. */
    part: NumericShape | null;
    name: string;
  } = $props();
  const node = $derived(draft.item.id);
  const low = $derived(part?.tolerance?.low ?? part?.value ?? null);
  const high = $derived(part?.tolerance?.high ?? part?.value ?? null);
  function value(text: string): void {
    const n = typedNumber(text);
    if (n !== null) draft.put({ op: 'key', node, to: [n], response: response.id });
  }
  function bounds(from: number | null, to: number | null): void {
    if (from === null || to === null) return;
    draft.put({
      op: 'tolerance',
      node,
      response: response.id,
      to: from === to ? null : { mode: 'range', low: from, high: to },
    });
  }
  const field = 'border-hair bg-surface text-ink block h-8 w-24 rounded border px-2 text-[14px] num';
</script>

<div class="mt-2 flex flex-wrap items-end gap-3" role="group" aria-label="{name}: a number">
  <label class="text-quiet text-[12.5px]"
    >{name}<input
      class={field}
      inputmode="decimal"
      value={part?.value ?? ''}
      onchange={(e) => value(e.currentTarget.value)}
    /></label
  >
  {#if part}<label class="text-quiet text-[12.5px]"
      >accepted from<input
        class={field}
        inputmode="decimal"
        value={low}
        onchange={(e) => bounds(typedNumber(e.currentTarget.value), high)}
      /></label
    >
    <label class="text-quiet text-[12.5px]"
      >to<input
        class={field}
        inputmode="decimal"
        value={high}
        onchange={(e) => bounds(low, typedNumber(e.currentTarget.value))}
      /></label
    >
  {/if}
  {#if part?.tolerance}<button
      type="button"
      class="act pb-1.5 text-[13px]"
      onclick={() => draft.put({ op: 'tolerance', node, response: response.id, to: null })}>Exactly</button
    >{/if}
</div>

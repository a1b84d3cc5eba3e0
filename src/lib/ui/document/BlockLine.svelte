<script lang="ts">
  import type { HandRole } from '@alforja/core';
  import type { BlockView } from '$lib/shared/documents';
  import Content from '../content/Content.svelte';
  import { plainShowing } from '../content/answers.svelte';
  import { HAND_NAMES } from './words';

  /** A block of the document as it stands there; what it is can be said by hand. */
  let {
    block,
    files,
    open,
    busy,
    fixed,
    ontoggle,
    onsay,
  }: {
    block: BlockView;
    files: string;
    /** Whether one is about to say what it is. */
    open: boolean;
    busy: boolean;
    /** Rows of tables are not said to be anything one by one. */
    fixed: boolean;
    ontoggle: () => void;
    onsay: (to: HandRole | null) => void;
  } = $props();
  const show = $derived(plainShowing(files));
  const words = $derived(Object.entries(HAND_NAMES));
</script>

<div class="flex items-start gap-2 px-2 py-0.5" data-block={block.n}>
  {#if fixed}<span class="num text-quiet w-9 shrink-0 py-0.5 text-right text-[12px]">{block.n}</span>
  {:else}<button
      type="button"
      class="num text-quiet hover:bg-band min-h-6 w-9 shrink-0 rounded text-right text-[12px] {block.said
        ? 'text-saddle font-semibold'
        : ''}"
      aria-expanded={open}
      aria-label="Block {block.n}: say what it is"
      title="Say what this block is"
      onclick={ontoggle}>{block.n}</button
    >{/if}
  <div class="min-w-0 grow" style="padding-inline-start: {Math.min(block.level, 4) * 14}px">
    <div class="flex gap-1.5 font-serif text-[15px] {block.heading > 0 ? 'font-semibold' : ''}" dir="auto">
      {#if block.label}<span class="shrink-0 whitespace-pre">{block.label}</span>{/if}
      <div class="block-text min-w-0 grow"><Content nodes={block.content} {show} /></div>
    </div>
    {#if open}
      <label class="my-1 flex flex-wrap items-center gap-2 text-[13px]"
        ><span class="text-quiet">This is</span>
        <select
          class="border-hair bg-surface text-ink h-7 rounded border py-0 pr-7 pl-2 text-[13px]"
          value={block.said ?? ''}
          disabled={busy}
          onchange={(e) => onsay(e.currentTarget.value === '' ? null : (e.currentTarget.value as HandRole))}
        >
          <option value="">{block.as === 'unread' ? 'choose…' : 'as it was read'}</option>
          {#each words as [to, says] (to)}<option value={to}>{says}</option>{/each}
        </select></label
      >
    {/if}
  </div>
</div>

<style>
  .block-text :global(img) {
    max-height: 180px;
    max-width: 100%;
    height: auto;
    width: auto;
  }
  .block-text :global(td) {
    border: 1px solid var(--hair);
    padding: 1px 6px;
    vertical-align: top;
  }
</style>

<script lang="ts">
  import KindIcon from '../KindIcon.svelte';
  import Content from '../content/Content.svelte';
  import { typesOf, type Showing } from '../content/answers.svelte';
  import { plural } from '../format';
  import type { DocumentRow } from './rows';
  import { USE_NAMES } from './words';

  /** What a row of blocks became. */
  let { row, files }: { row: DocumentRow; files: string } = $props();
  const item = $derived(row.item);
  const show = $derived<Showing>({
    files,
    sheet: null,
    keyed: new Set(item?.keyed),
    printed: {},
    ...typesOf(item?.responses ?? []),
  });
</script>

{#if item && row.goesOn}
  <div class="text-quiet px-3 py-1.5 text-[13px]">more of question {row.number}</div>
{:else if item}
  <div class="flex items-start gap-2 px-3 py-1">
    <span class="num text-quiet w-7 shrink-0 pt-0.5 text-right text-[12.5px]">{row.number}</span>
    <span class="pt-0.5"><KindIcon kind={item.kind} /></span>
    <div class="min-w-0 grow">
      <div class="read item-text" dir="auto"><Content nodes={item.body} {show} /></div>
      {#if item.keyText}<p class="mt-1 flex gap-2 text-[13.5px]" dir="auto">
          <span class="text-saddle text-[12.5px] font-semibold">key</span>
          <span class="font-serif text-[15px]">{item.key.join(', ')}</span>
        </p>
      {:else if item.key.length === 0 && item.responses.length > 0}<p class="text-quiet text-[13px]">
          no key
        </p>{/if}
      {#each item.doubts as doubt, n (n)}<p class="text-ochre text-[13px]">{doubt}</p>{/each}
    </div>
    <span class="num text-quiet shrink-0 pt-0.5 text-right text-[12.5px]">{plural(item.points, 'point')}</span
    >
  </div>
{:else if row.as === 'unread'}
  <div class="hatched text-brick flex h-full items-start px-3 py-1.5 pl-[52px] text-[13.5px] font-semibold">
    {USE_NAMES.unread}
  </div>
{:else if row.as !== 'item'}
  <div class="text-quiet px-3 py-1.5 pl-[52px] text-[13px]">{USE_NAMES[row.as]}</div>
{/if}

<style>
  .hatched {
    background: repeating-linear-gradient(135deg, transparent 0 7px, var(--hair) 7px 8px);
    text-shadow:
      0 0 4px var(--surface),
      0 0 4px var(--surface),
      0 0 4px var(--surface);
  }
  .read {
    font-size: 15px;
    line-height: 1.4;
  }
  .read :global(fieldset) {
    margin-top: 2px;
  }
  .read :global(label) {
    padding-block: 1px;
  }
  .read :global(img) {
    max-height: 180px;
    width: auto;
  }
</style>

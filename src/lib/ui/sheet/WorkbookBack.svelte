<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import { columnLabel } from '@alforja/core/sheet';
  import type { WorkbookView } from '$lib/shared/sheet';
  import { count, plural } from '../format';
  import type { ItemSheet } from './itemSheet.svelte';

  /** The sheet as a file, and what a file that came back says otherwise; taken after a look. */
  let { sheet, close }: { sheet: ItemSheet; close: () => void } = $props();
  const base = $derived(`/api/packages/${sheet.packageId}/sheet`);
  let view = $state.raw<WorkbookView | null>(null);
  let name = $state('');
  let said = $state('');
  let busy = $state(false);
  const MOST_LISTED = 500;

  async function take(files: FileList | null): Promise<void> {
    const file = files?.[0];
    if (!file) return;
    busy = true;
    said = '';
    view = null;
    await sheet.settled();
    const response = await fetch(`${base}/workbook?name=${encodeURIComponent(file.name)}`, {
      method: 'POST',
      body: file,
    }).catch(() => null);
    const answer = (await response?.json().catch(() => null)) as (WorkbookView & { message?: string }) | null;
    if (response?.ok && answer) {
      view = answer;
      name = file.name;
    } else said = answer?.message ?? 'The server did not answer. Nothing was changed; try again.';
    busy = false;
  }
  async function apply(): Promise<void> {
    const cells = view!.cells.map(({ node, column, text }) => ({ node, column, text }));
    sheet.send(cells, 'workbook');
    view = null;
    await sheet.settled();
    said = sheet.said || `${plural(cells.length, 'cell')} taken from ${name}.`;
  }
</script>

<section
  class="border-hair bg-surface flex max-h-[46vh] flex-col border px-4 py-3"
  aria-label="As a workbook"
>
  <div class="flex flex-wrap items-center gap-4">
    <a class="act" href="{base}/file/xlsx" download>Save as a workbook (xlsx)</a>
    <a class="act" href="{base}/file/csv" download>Save as CSV</a>
    <label class="act cursor-pointer"
      >Take back a changed file…<input
        type="file"
        accept=".xlsx,.csv"
        class="sr-only"
        disabled={busy}
        onchange={(e) => {
          void take(e.currentTarget.files);
          e.currentTarget.value = '';
        }}
      /></label
    >
    <button type="button" class="act ml-auto" onclick={close}>Close</button>
  </div>
  <p class="text-quiet mt-1 text-[13px]">
    The column “Item” says which item a row is about; leave it as it is. Columns may be moved or taken out.
  </p>
  {#if busy}<p class="mt-2" role="status">Comparing {name || 'the file'} with the items…</p>{/if}
  {#if said}<p class="mt-2" role="status">{said}</p>{/if}
  {#if view}
    {#each view.troubles.slice(0, 20) as trouble, n (n)}<p class="text-ochre mt-1 text-[13px]">
        {trouble}
      </p>{/each}
    {#if view.troubles.length > 20}<p class="text-quiet text-[13px]">
        and {count(view.troubles.length - 20)} more rows
      </p>{/if}
    <p class="mt-2" role="status">
      {view.cells.length === 0
        ? `${name} says nothing else than the items do.`
        : `${plural(view.cells.length, 'cell')} in ${name} differ:`}
    </p>
    {#if view.cells.length > 0}
      <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
      <div
        class="border-hair mt-1 min-h-0 overflow-y-auto border-t"
        tabindex="0"
        role="region"
        aria-label="What differs"
      >
        <table class="w-full text-left text-[13px]">
          <thead class="text-quiet"
            ><tr
              ><th class="py-1 font-semibold">Item</th><th class="font-semibold">Column</th><th
                class="font-semibold">Now</th
              ><th class="font-semibold">In the file</th></tr
            ></thead
          >
          <tbody
            >{#each view.cells.slice(0, MOST_LISTED) as c, n (n)}<tr class="border-hair border-t align-top"
                ><td class="max-w-[260px] truncate py-1 pr-3 font-serif text-[14px]" dir="auto">{c.name}</td
                ><td class="pr-3">{columnLabel(c.column)}</td><td
                  class="text-quiet max-w-[280px] pr-3"
                  dir="auto">{c.before || 'nothing'}</td
                ><td class="max-w-[280px]" dir="auto">{c.text || 'nothing'}</td></tr
              >{/each}</tbody
          >
        </table>
      </div>
      <div class="mt-2">
        <Button color="primary" onclick={apply}>Take all {count(view.cells.length)}</Button>
      </div>
    {/if}
  {/if}
</section>

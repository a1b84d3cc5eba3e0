<script lang="ts">
  import { page } from '$app/state';
  import { onMount, untrack } from 'svelte';
  import { fromRuns } from '$lib/shared/room';
  import { plural } from '$lib/ui/format';
  import { Changes } from '$lib/ui/room/changes.svelte';
  import LayerBar from '$lib/ui/room/LayerBar.svelte';
  import FindReplace from '$lib/ui/sheet/FindReplace.svelte';
  import ItemGrid from '$lib/ui/sheet/ItemGrid.svelte';
  import { ItemSheet } from '$lib/ui/sheet/itemSheet.svelte';
  import SheetBar from '$lib/ui/sheet/SheetBar.svelte';
  import WorkbookBack from '$lib/ui/sheet/WorkbookBack.svelte';

  let { data } = $props();
  /** One sheet a package: news of it leave what is typed where it is. */
  const id = $derived(data.id);
  const sheet = $derived(new ItemSheet(id, new Changes(id)));
  const places = $derived([
    { value: '', title: 'All items', places: Array.from({ length: data.items }, (_, n) => n) },
    ...data.quizzes.map((q) => ({ value: `quiz:${q.id}`, title: q.title, places: fromRuns(q.runs) })),
    ...data.banks.map((b) => ({ value: `bank:${b.id}`, title: b.title, places: fromRuns(b.runs) })),
  ]);
  const asked = page.url.searchParams.get('in') ?? '';
  let panel = $state<'find' | 'workbook' | null>(null);
  let grid = $state<ItemGrid>();
  const done = (): void => void grid?.focus();
  onMount(() => {
    const here = places.find((p) => p.value === asked);
    if (here && asked !== '') sheet.narrow({ places: new Set(here.places) });
    void sheet.load().then(done);
  });
  $effect(() => {
    // Another reading brings findings and what followed, once nothing of one's own is on its way.
    if (sheet.loaded && data.reading !== sheet.reading && !sheet.busy && !sheet.editing)
      void untrack(() => sheet.load());
  });
  function press(event: KeyboardEvent): void {
    if (!(event.ctrlKey || event.metaKey) || !['f', 'h'].includes(event.key.toLowerCase())) return;
    event.preventDefault();
    panel = 'find';
  }
</script>

<svelte:head><title>{data.name} as a sheet · Alforja</title></svelte:head>
<svelte:window onkeydown={press} />
<div class="flex h-[calc(100vh-46px)] min-h-[480px] flex-col">
  <div class="flex flex-wrap items-baseline gap-x-4 gap-y-1 px-(--gutter) pt-2.5 pb-2">
    <h1 class="page-title break-all" dir="auto">{data.name}</h1>
    <span class="text-quiet">{plural(data.items, 'item')} as a sheet</span>
    <span class="ml-auto flex gap-4 text-[13.5px]">
      <button
        type="button"
        class="act"
        aria-expanded={panel === 'find'}
        onclick={() => (panel = panel === 'find' ? null : 'find')}>Find and replace</button
      >
      <button
        type="button"
        class="act"
        aria-expanded={panel === 'workbook'}
        onclick={() => (panel = panel === 'workbook' ? null : 'workbook')}>As a workbook</button
      >
      <a class="act" href="/packages/{data.id}{asked ? `?in=${encodeURIComponent(asked)}` : ''}"
        >Reading room</a
      >
    </span>
  </div>
  <LayerBar
    packageId={data.id}
    layer={data.layer}
    changes={sheet.changes}
    undo={(what) => sheet.undo(what)}
  />
  <div class="flex min-h-0 grow flex-col gap-2 px-(--gutter) pt-2 pb-3">
    {#if panel === 'find'}<FindReplace {sheet} close={() => (panel = null)} />
    {:else if panel === 'workbook'}<WorkbookBack {sheet} close={() => (panel = null)} />{/if}
    <div><SheetBar {sheet} {places} place={asked} {done} /></div>
    {#if !sheet.loaded}<p class="text-quiet" role="status">
        {sheet.trouble || `Opening ${plural(data.items, 'item')}…`}
      </p>
    {:else if sheet.shown.length === 0}<p class="text-quiet">
        {sheet.lines.length === 0 ? 'There are no items here.' : 'No row is like that. Clear a filter.'}
      </p>
    {:else}<ItemGrid bind:this={grid} {sheet} />{/if}
    <p class="text-quiet text-[12.5px]">
      Type over a cell, Enter keeps it, Ctrl Enter in all that are marked · Shift marks · Ctrl D fills down ·
      paste fills from the cell on · Ctrl Delete leaves rows out · Ctrl Z undoes · ? keys
    </p>
  </div>
</div>

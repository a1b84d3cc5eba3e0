<script lang="ts">
  import FileText from '@lucide/svelte/icons/file-text';
  import History from '@lucide/svelte/icons/history';
  import Redo from '@lucide/svelte/icons/redo-2';
  import Table from '@lucide/svelte/icons/table-2';
  import Undo from '@lucide/svelte/icons/undo-2';
  import type { LayerView } from '$lib/shared/edits';
  import { plural } from '../format';
  import { inText } from '../keyTarget';
  import type { Changes } from './changes.svelte';
  import LayerHistory from './LayerHistory.svelte';

  /** What was put right over the source: how much, undoing and redoing, and all of it step by step. */
  let {
    packageId,
    layer,
    changes,
    undo = (what) => changes[what](),
    sheet = null,
    documents = false,
  }: {
    packageId: string;
    layer: LayerView;
    changes: Changes;
    undo?: (what: 'undo' | 'redo') => Promise<unknown>;
    /** Where the sheet is to open, as the reading room's address says it; null where one is in it. */
    sheet?: string | null;
    /** Whether it was read from documents that can be looked at beside it. */
    documents?: boolean;
  } = $props();
  const behind = $derived(changes.busy || changes.reading);
  let open = $state(false);

  function press(event: KeyboardEvent): void {
    if (!(event.ctrlKey || event.metaKey) || inText(event.target)) return;
    const key = event.key.toLowerCase();
    if (key === 'z' && !event.shiftKey && layer.undo !== null) void undo('undo');
    else if ((key === 'y' || (key === 'z' && event.shiftKey)) && layer.redo !== null) void undo('redo');
    else return;
    event.preventDefault();
  }
</script>

<svelte:window onkeydown={press} />
<div
  class="border-hair flex min-h-9 shrink-0 flex-wrap items-center gap-x-4 gap-y-1 border-b px-(--gutter) py-1 text-[13px]"
>
  <span role="status">
    {#if layer.changes === 0}<span class="text-quiet">As it came; nothing changed</span>
    {:else}<b class="num">{plural(layer.changes, 'change')}</b>
      <span class="text-quiet">over the source, which stays as it came</span>{/if}
    {#if behind}<span class="text-quiet"> · taking it in…</span>{/if}
  </span>
  {#if layer.refused > 0}<button type="button" class="act text-ochre" onclick={() => (open = true)}
      >{plural(layer.refused, 'change')} to be looked at</button
    >{/if}
  {#if changes.trouble}<span class="text-brick" role="alert">{changes.trouble}</span>{/if}
  <span class="ml-auto flex flex-wrap items-center gap-1">
    <button
      type="button"
      class="bar"
      disabled={layer.undo === null || changes.busy}
      title={layer.undo ? `Undo: ${layer.undo}` : 'Nothing to undo'}
      onclick={() => undo('undo')}><Undo size={14} aria-hidden="true" /> Undo</button
    >
    <button
      type="button"
      class="bar"
      disabled={layer.redo === null || changes.busy}
      title={layer.redo ? `Redo: ${layer.redo}` : 'Nothing to redo'}
      onclick={() => undo('redo')}><Redo size={14} aria-hidden="true" /> Redo</button
    >
    <button type="button" class="bar" onclick={() => (open = true)}
      ><History size={14} aria-hidden="true" /> What was changed</button
    >
    {#if documents}<a class="bar" href="/packages/{packageId}/document"
        ><FileText size={14} aria-hidden="true" /> Beside the document</a
      >{/if}
    {#if sheet !== null}<a
        class="bar"
        href="/packages/{packageId}/sheet{sheet === '' ? '' : `?in=${encodeURIComponent(sheet)}`}"
        ><Table size={14} aria-hidden="true" /> As a sheet</a
      >{/if}
  </span>
</div>
{#if open}<LayerHistory bind:open {changes} />{/if}

<style>
  .bar {
    display: inline-flex;
    align-items: center;
    gap: 5px;
    height: 26px;
    padding: 0 8px;
    border-radius: 4px;
    white-space: nowrap;
  }
  .bar:hover:not(:disabled) {
    background: var(--band);
  }
  .bar:disabled {
    color: var(--quiet);
  }
</style>

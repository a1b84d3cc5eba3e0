<script lang="ts">
  import type { Layout } from '@alforja/core';
  import type { DocumentShown } from '$lib/shared/documents';
  import { ask } from '../ask';
  import { live } from '../live.svelte';

  /** Where a layout comes from and how sure it is; it can be remembered, and used for all documents of the source. */
  let {
    packageId,
    shown,
    misfit,
    several,
    busy,
    onlayout,
    onall,
  }: {
    packageId: string;
    shown: DocumentShown;
    misfit: boolean;
    /** Whether there are other documents. */
    several: boolean;
    busy: boolean;
    onlayout: (layout: Layout | null) => Promise<unknown>;
    onall: (layout: Layout) => Promise<unknown>;
  } = $props();
  let naming = $state(false);
  let name = $state('');
  let trouble = $state('');
  let done = $state('');

  function begin(): void {
    [naming, name, trouble, done] = [true, shown.path.replace(/^.*\//u, '').replace(/\.\w+$/u, ''), '', ''];
  }
  async function remember(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    try {
      await ask(`/api/packages/${packageId}/document`, { do: 'remember', path: shown.path, name });
      [naming, trouble, done] = [false, '', 'Saved. Documents that look like this are read alike.'];
      await live.reload();
    } catch (error) {
      trouble = (error as Error).message;
    }
  }
</script>

<div class="flex flex-wrap items-center gap-x-4 gap-y-1 text-[13px]">
  <p role="status">
    {#if shown.by === 'said'}Layout as you set it.
    {:else if shown.by === 'known'}Layout as you saved it for documents that look like this.
    {:else}Layout found in the {shown.choices.columns ? 'table' : 'document'},
      <b class="num">{Math.round(shown.layout.sure * 100)} %</b>
      sure.{/if}
    {#if misfit}<span class="text-ochre">The layout you set does not fit this one.</span>{/if}
    {#if shown.runnerUp && shown.layout.sure < 0.8}<span class="text-quiet">Next best: {shown.runnerUp}.</span
      >{/if}
  </p>
  <span class="ml-auto flex flex-wrap items-center gap-x-4">
    {#if shown.by === 'said'}<button type="button" class="act" disabled={busy} onclick={() => onlayout(null)}
        >Use what is found</button
      >{/if}
    {#if several}<button type="button" class="act" disabled={busy} onclick={() => onall(shown.layout)}
        >Use for all documents it fits</button
      >{/if}
    {#if naming}
      <form class="flex items-center gap-2" onsubmit={remember}>
        <label class="flex items-center gap-1.5"
          ><span class="text-quiet">Name</span>
          <input
            bind:value={name}
            required
            maxlength="200"
            class="border-hair bg-surface text-ink h-7 w-[200px] rounded border px-2 text-[13px]"
          /></label
        >
        <button type="submit" class="act" disabled={busy}>Save</button>
        <button type="button" class="act" onclick={() => (naming = false)}>Cancel</button>
      </form>
    {:else}<button type="button" class="act" onclick={begin}>Save this layout…</button>{/if}
  </span>
  {#if trouble}<p class="text-brick basis-full" role="alert">{trouble}</p>{/if}
  {#if done}<p class="text-quiet basis-full" role="status">
      {done} <a class="act" href="/rules">Reading rules</a>
    </p>{/if}
</div>

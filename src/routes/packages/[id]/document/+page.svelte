<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { HandRole, Layout } from '@alforja/core';
  import { page } from '$app/state';
  import DocumentList from '$lib/ui/document/DocumentList.svelte';
  import DocumentSeam from '$lib/ui/document/DocumentSeam.svelte';
  import LayoutBar from '$lib/ui/document/LayoutBar.svelte';
  import LayoutSaid from '$lib/ui/document/LayoutSaid.svelte';
  import { Changes } from '$lib/ui/room/changes.svelte';
  import LayerBar from '$lib/ui/room/LayerBar.svelte';

  let { data } = $props();
  const shown = $derived(data.view.shown);
  const changes = $derived(new Changes(data.held.id));
  const files = $derived(`/api/packages/${data.held.id}/file`);
  const several = $derived(data.view.documents.length > 1);
  const line = $derived(data.view.documents.find((d) => d.path === shown.path)!);
  const hrefOf = (path: string): string => `${page.url.pathname}?path=${encodeURIComponent(path)}`;

  const readAs = (to: Layout | null): Promise<boolean> =>
    changes.make('hand', [{ op: 'read-as', path: shown.path, to }]);
  const readAllAs = (to: Layout): Promise<boolean> => changes.make('hand', [{ op: 'read-as', to }]);
  const say = (block: number, to: HandRole | null): Promise<boolean> =>
    changes.make('hand', [{ op: 'block', path: shown.path, block, to }]);
</script>

<svelte:head><title>{shown.path} beside its questions · Alforja</title></svelte:head>
<div class="flex h-[calc(100vh-46px)] min-h-[480px] flex-col max-md:h-auto">
  <div class="border-hair flex flex-wrap items-center gap-x-4 gap-y-1 border-b px-(--gutter) py-2.5">
    <h1 class="page-title break-all" dir="auto">{data.held.name}</h1>
    <span class="text-quiet">beside the questions read from it</span>
    <span class="ml-auto flex flex-wrap items-center gap-2">
      <Button href="/packages/{data.held.id}" color="alternative">Open the questions</Button>
      <Button href="/bring?package={data.held.id}" color="primary">Bring into a course…</Button>
    </span>
  </div>
  <LayerBar packageId={data.held.id} layer={data.layer} {changes} />
  <div class="flex min-h-0 grow gap-3 px-(--gutter) py-3 max-md:flex-col">
    {#if several}<DocumentList documents={data.view.documents} path={shown.path} {hrefOf} />{/if}
    <div class="flex min-h-0 min-w-0 grow flex-col gap-2.5">
      <LayoutSaid
        packageId={data.held.id}
        {shown}
        misfit={line.misfit}
        {several}
        busy={changes.busy}
        onlayout={readAs}
        onall={readAllAs}
      />
      <LayoutBar {shown} busy={changes.busy} onlayout={(to) => void readAs(to)} />
      {#key shown.path}<DocumentSeam {shown} {files} busy={changes.busy} onsay={say} />{/key}
    </div>
  </div>
</div>

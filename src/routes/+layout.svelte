<script lang="ts">
  import '../app.css';
  import { fromEvent } from 'file-selector';
  import { onMount } from 'svelte';
  import ThemeProvider from 'flowbite-svelte/ThemeProvider.svelte';
  import AwayBanner from '$lib/ui/shell/AwayBanner.svelte';
  import Header from '$lib/ui/shell/Header.svelte';
  import Keys from '$lib/ui/shell/Keys.svelte';
  import Work from '$lib/ui/shell/Work.svelte';
  import { bringFiles, dropTarget, live } from '$lib/ui/live.svelte';
  import { theme } from '$lib/ui/theme';

  let { children, data } = $props();
  let searchBox = $state<HTMLInputElement | null>(null);
  let over = $state(false);
  let keys = $state(false);
  let depth = 0;
  onMount(() => {
    live.limit = data.limit;
    document.documentElement.dataset.up = '';
    return live.connect(data.news);
  });

  const hasFiles = (event: DragEvent): boolean => event.dataTransfer?.types.includes('Files') ?? false;
  function drag(event: DragEvent, by: number): void {
    if (!hasFiles(event)) return;
    event.preventDefault();
    depth = Math.max(0, depth + by);
    over = depth > 0;
  }
  function drop(event: DragEvent): void {
    if (!hasFiles(event)) return;
    event.preventDefault();
    depth = 0;
    over = false;
    // A folder that is dropped is all the files in it; where it cannot be looked into, there are its files at least.
    const plain = [...(event.dataTransfer?.files ?? [])];
    void fromEvent(event)
      .catch(() => plain)
      .then((found) => bringFiles(found.filter((f) => f instanceof File)));
  }
  function press(event: KeyboardEvent): void {
    // What a list or a sheet has taken for itself is not taken twice.
    if (event.defaultPrevented) return;
    const typing =
      (event.target as HTMLElement).closest('input, textarea, select, [contenteditable]') !== null;
    if ((event.key === 'k' && (event.ctrlKey || event.metaKey)) || (event.key === '/' && !typing)) {
      event.preventDefault();
      searchBox?.focus();
    } else if (event.key === '?' && !typing) keys = true;
  }
</script>

<svelte:window
  onkeydown={press}
  ondragenter={(e) => drag(e, 1)}
  ondragleave={(e) => drag(e, -1)}
  ondragover={(e) => hasFiles(e) && e.preventDefault()}
  ondrop={drop}
/>

<ThemeProvider {theme}>
  <a href="#main" class="bg-surface sr-only focus:not-sr-only focus:absolute focus:z-50 focus:p-2"
    >Skip to the content</a
  >
  <AwayBanner />
  <Header bind:searchBox notices={data.notices} unread={data.unread} />
  <main id="main" tabindex="-1" class="outline-none">{@render children()}</main>
  <Work />
  <Keys bind:open={keys} />
  {#if over}
    <div
      class="bg-paper/90 border-saddle pointer-events-none fixed inset-3 z-50 grid place-items-center rounded border-2 border-dashed"
    >
      <p class="font-serif text-[24px]">
        {dropTarget.take ? dropTarget.label : 'Drop to open; nothing is changed'}
      </p>
    </div>
  {/if}
</ThemeProvider>

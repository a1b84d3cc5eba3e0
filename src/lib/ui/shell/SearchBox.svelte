<script lang="ts">
  import { afterNavigate, goto } from '$app/navigation';
  import { page } from '$app/state';
  import Kbd from 'flowbite-svelte/Kbd.svelte';
  import { SEARCH_GROUPS, type SearchGroup } from '$lib/shared/finding';
  import { plural } from '../format';
  import HitLine from '../finding/HitLine.svelte';

  let { input = $bindable(null) }: { input?: HTMLInputElement | null } = $props();
  const AFTER_MS = 120;
  const uid = $props.id();
  let text = $state('');
  let groups = $state.raw<SearchGroup[]>([]);
  /** The query that the groups answer; null while none has come. */
  let answered = $state<string | null>(null);
  let failed = $state(false);
  let open = $state(false);
  let active = $state(-1);
  let timer: ReturnType<typeof setTimeout> | undefined;
  let stop = new AbortController();

  const hits = $derived(groups.flatMap((g) => g.hits));
  const all = $derived(`/find?q=${encodeURIComponent(text.trim())}`);
  const shown = $derived(open && text.trim() !== '' && (answered !== null || failed));
  /** Where a group's first hit stands among all. */
  const from = (at: number): number => groups.slice(0, at).reduce((sum, g) => sum + g.hits.length, 0);

  afterNavigate(() => {
    text = page.url.pathname === '/find' ? (page.url.searchParams.get('q') ?? '') : '';
    close();
  });
  function close(): void {
    open = false;
    active = -1;
    clearTimeout(timer);
    stop.abort();
  }
  function type(): void {
    open = true;
    active = -1;
    clearTimeout(timer);
    if (text.trim() === '') {
      groups = [];
      answered = null;
      return;
    }
    timer = setTimeout(() => void look(text.trim()), AFTER_MS);
  }
  async function look(query: string): Promise<void> {
    stop.abort();
    stop = new AbortController();
    try {
      const response = await fetch(`/api/find?q=${encodeURIComponent(query)}`, { signal: stop.signal });
      if (!response.ok) throw new Error(String(response.status));
      groups = (await response.json()) as SearchGroup[];
      answered = query;
      failed = false;
    } catch (error) {
      if ((error as Error).name !== 'AbortError') failed = true;
    }
  }
  function press(event: KeyboardEvent): void {
    if (event.key === 'Escape') {
      // The browser would empty the field; what was typed stays until it is pressed once more.
      if (open) event.preventDefault();
      close();
    } else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      open = true;
      const places = hits.length + 1;
      // The last place is the way to all results.
      active = (active + (event.key === 'ArrowDown' ? 1 : active < 0 ? 0 : -1) + places) % places;
      document.getElementById(`${uid}-${active}`)?.scrollIntoView({ block: 'nearest' });
    }
  }
  function submit(event: SubmitEvent): void {
    event.preventDefault();
    if (text.trim() === '') return;
    const target = hits[active]?.href ?? all;
    close();
    void goto(target);
  }
</script>

<form
  class="relative ml-auto w-[300px] max-lg:w-[220px] max-md:order-last max-md:w-full"
  role="search"
  action="/find"
  onsubmit={submit}
  onfocusout={(e) => {
    if (!e.currentTarget.contains(e.relatedTarget as Node | null)) close();
  }}
>
  <input
    bind:this={input}
    bind:value={text}
    name="q"
    type="search"
    role="combobox"
    autocomplete="off"
    aria-label="Search"
    aria-expanded={shown}
    aria-controls="{uid}-list"
    aria-activedescendant={shown && active >= 0 ? `${uid}-${active}` : undefined}
    placeholder="Search questions, courses, files…"
    oninput={type}
    onkeydown={press}
    class="border-hair bg-paper text-ink placeholder:text-quiet h-8 w-full rounded border px-2.5 pr-8 text-[13.5px]"
  />
  <Kbd
    class="max-md:hidden border-hair bg-surface text-quiet pointer-events-none absolute top-1.5 right-1.5 border px-1.5 py-0 text-[11px] dark:bg-transparent"
    >/</Kbd
  >
  <div
    id="{uid}-list"
    role="listbox"
    aria-label="Results"
    class="border-hair bg-surface absolute top-9 right-0 z-40 max-h-[75vh] w-[min(680px,calc(100vw-2rem))] overflow-y-auto rounded border py-1.5 shadow-lg"
    hidden={!shown}
  >
    {#each groups as group, g (group.of)}
      <div role="group" aria-labelledby="{uid}-{group.of}">
        <div id="{uid}-{group.of}" class="text-quiet px-4 pt-1.5 pb-0.5 text-[12.5px] font-semibold">
          {SEARCH_GROUPS[group.of]}
        </div>
        {#each group.hits as hit, n (n)}
          {@const at = from(g) + n}
          <a
            id="{uid}-{at}"
            role="option"
            tabindex="-1"
            aria-selected={at === active}
            href={hit.href}
            class="flex items-baseline gap-3 px-4 py-1 {at === active ? 'bg-band' : 'hover:bg-wash'}"
            ><HitLine {hit} /></a
          >
        {/each}
      </div>
    {/each}
    <a
      id="{uid}-{hits.length}"
      role="option"
      tabindex="-1"
      aria-selected={active === hits.length}
      href={all}
      class="border-hair mt-1 block border-t px-4 pt-1.5 pb-0.5 {active === hits.length
        ? 'bg-band'
        : 'hover:bg-wash'}"
      >{#if failed}The search did not answer. Press Enter to try again.{:else if hits.length === 0}No matches
        for “{text.trim()}”. Try fewer words.{:else}<span class="act">All results</span>{/if}</a
    >
  </div>
  <div class="sr-only" role="status">
    {#if shown && !failed}{hits.length === 0
        ? 'No matches'
        : `${plural(hits.length, 'result')}, arrow keys to move`}{/if}
  </div>
</form>

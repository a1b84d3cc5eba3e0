<script lang="ts">
  import Page from '$lib/ui/shell/Page.svelte';
  import Button from 'flowbite-svelte/Button.svelte';
  import { page } from '$app/state';
  import type { CourseListing } from '$lib/shared/courses';
  import { ask } from '$lib/ui/ask';
  import CourseSearch from '$lib/ui/courses/CourseSearch.svelte';
  import { holds, holdsAnything } from '$lib/ui/courses/holds';
  import { plural } from '$lib/ui/format';
  import { snapshotOf } from '$lib/ui/courses/snapshot';
  import { live } from '$lib/ui/live.svelte';

  let { data } = $props();
  let busy = $state('');
  let trouble = $state('');
  const asking = $derived<'to' | 'from' | null>(
    !data.to && !data.toFile ? 'to' : !data.from && !data.held && !data.repeat ? 'from' : null,
  );
  const fits = (c: CourseListing): boolean =>
    asking === 'to' ? c.mayChange : holdsAnything(c) && c.id !== data.to?.id;
  const found = $derived(data.found.filter(fits));
  /** What was brought a moment ago has to be read before anything of it can be chosen. */
  const reading = $derived(data.held?.reading ?? false);

  let search = $state<ReturnType<typeof CourseSearch>>();
  /** Where the last change leads while the page is on its way there: the next one builds on it. */
  let heading: URL | null = null;
  function set(changes: Record<string, string | null>): void {
    const url = new URL(heading ?? page.url);
    for (const [key, value] of Object.entries({ q: null, ...changes }))
      if (value === null) url.searchParams.delete(key);
      else url.searchParams.set(key, value);
    heading = url;
    const typed = 'q' in changes;
    // A search that was typed just before a choice must not undo it.
    if (!typed) search?.forget();
    void live.go(`${url.pathname}${url.search}`, { keepFocus: typed, replaceState: typed }).finally(() => {
      if (heading === url) heading = null;
    });
  }
  const holdsSay = ({ items, rubrics }: { items: number; rubrics: number }): string =>
    items === 0 && rubrics > 0 ? plural(rubrics, 'rubric') : plural(items, 'item');
  const tell = (said: string): void => void (busy = said);

  async function begin(): Promise<void> {
    trouble = '';
    try {
      if (data.repeat) {
        const { id } = await ask<{ id: string }>(`/api/transfers/${data.repeat}/do`, {
          do: 'elsewhere',
          to: data.to!.id,
        });
        await snapshotOf(data.to!, tell);
        await live.go(`/transfers/${id}/landing`);
        return;
      }
      if (data.from) await snapshotOf(data.from, tell);
      if (data.to) await snapshotOf(data.to, tell);
      const from = data.from ? { courseId: data.from.id } : { packageId: data.held!.id };
      const rubric = page.url.searchParams.get('rubric');
      const { id } = await ask<{ id: string }>('/api/transfers', {
        from,
        to: data.to?.id ?? null,
        ...(rubric ? { ticks: [{ kind: 'rubric', nodeId: rubric }] } : {}),
        ...(page.url.searchParams.has('all') ? { all: true } : {}),
      });
      await live.go(`/transfers/${id}/contents`);
    } catch (error) {
      trouble = (error as Error).message;
    } finally {
      busy = '';
    }
  }
</script>

{#snippet chosen(label: string, c: CourseListing, key: 'to' | 'from')}
  <div class="border-hair bg-surface flex flex-wrap items-baseline gap-x-3 border px-4 py-2.5">
    <span class="text-quiet w-[84px] shrink-0 text-[12.5px] font-semibold">{label}</span>
    <span class="font-serif text-[17px]" dir="auto">{c.title}</span>
    <span class="text-quiet">{c.code}, section {c.section}, {c.term}, {c.system}</span>
    <button
      type="button"
      class="act ml-auto"
      aria-label="Choose another: {label}"
      onclick={() => set({ [key]: null })}>Choose another</button
    >
    {#if key === 'to' && c.openAttempts > 0}<p class="text-ochre basis-full pl-[96px]">
        {plural(c.openAttempts, 'attempt')} in progress. What you bring arrives hidden.
      </p>{/if}
  </div>
{/snippet}

<Page title="Bring into a course">
  <div class="grid gap-2">
    {#if data.to}{@render chosen('Into', data.to, 'to')}
    {:else if data.toFile}
      <div class="border-hair bg-surface flex flex-wrap items-baseline gap-x-3 border px-4 py-2.5">
        <span class="text-quiet w-[84px] shrink-0 text-[12.5px] font-semibold">Becomes</span>
        <span class="font-serif text-[17px]">A file</span>
        <span class="text-quiet">to keep or to mail</span>
        <button
          type="button"
          class="act ml-auto"
          aria-label="Choose another: Becomes"
          onclick={() => set({ to: null })}>Choose another</button
        >
      </div>
    {/if}
    {#if data.from}{@render chosen('From', data.from, 'from')}
    {:else if data.held}
      <div class="border-hair bg-surface flex flex-wrap items-baseline gap-x-3 border px-4 py-2.5">
        <span class="text-quiet w-[84px] shrink-0 text-[12.5px] font-semibold">From</span>
        <span class="font-serif text-[17px]" dir="auto">{data.held.name}</span>
        <span class="text-quiet"
          >{data.held.made ? 'made here' : 'file'}, {reading ? 'being read' : holdsSay(data.held)}</span
        >
      </div>
    {/if}
  </div>
  {#if asking}
    <h2 class="mt-5 mb-2 text-[16px]">
      {asking === 'to' ? 'Into which course?' : 'From which course?'}
    </h2>
    {#key asking}
      <CourseSearch
        bind:this={search}
        label={asking === 'to' ? 'Find the destination' : 'Find the source'}
        value={data.query}
        onsearch={(q) => set({ q: q || null })}
        autofocus
      />
    {/key}
    <ul class="border-hair bg-surface mt-3 border border-b-0">
      {#each found as c (c.id)}
        <li class="border-hair border-b">
          <button
            type="button"
            class="hover:bg-wash grid w-full grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-4 px-4 py-2 text-left"
            onclick={() => set({ [asking]: c.id })}
          >
            <span class="min-w-0 truncate"
              ><span class="font-serif text-[16px]" dir="auto">{c.title}</span>
              <span class="text-quiet">{c.code}, section {c.section}</span></span
            ><span class="font-semibold">{c.term}</span>
            <span class="text-quiet truncate text-[12.5px]">{c.system} · {c.people.join(', ')}</span>
            <span class="num text-quiet text-[12.5px]"
              >{holds(c)}{c.openAttempts > 0
                ? `, ${plural(c.openAttempts, 'attempt')} in progress`
                : ''}</span
            >
          </button>
        </li>
      {:else}
        <li class="border-hair text-quiet border-b px-4 py-3">
          {data.query
            ? `No matches for “${data.query}”. Try fewer words.`
            : 'No courses yet. '}{#if !data.query}<a class="act" href="/systems">Connect a system</a>{/if}
        </li>
      {/each}
    </ul>
    {#if asking === 'to' && !data.repeat}<p class="mt-3">
        <button type="button" class="act" onclick={() => set({ to: 'file' })}
          >Into a file, to keep or to mail</button
        >
      </p>{/if}
    {#if asking === 'from'}<p class="text-quiet mt-3">
        Is it a file? Drop it anywhere, open it, and choose “Bring into a course…”. Is it a publisher’s? Look
        into
        <a class="act" href="/libraries">publishers’ libraries</a>.
      </p>{/if}
  {:else}
    {#if data.to && data.from && data.to.id === data.from.id}
      <p class="text-brick mt-3" role="alert">
        Source and destination are the same course. Choose another one.
      </p>
    {:else}
      <div class="mt-4 flex items-center gap-4">
        <Button color="primary" disabled={busy !== '' || reading} onclick={begin}
          >Open and choose what to include</Button
        >
        <span role="status" class="text-quiet"
          >{reading ? `Reading ${data.held?.name}…` : busy || 'Nothing is written until you send.'}</span
        >
      </div>
    {/if}
    {#if trouble}<p class="text-brick mt-3" role="alert">{trouble}</p>{/if}
  {/if}
</Page>

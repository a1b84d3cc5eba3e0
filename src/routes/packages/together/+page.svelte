<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import { ask } from '$lib/ui/ask';
  import { count, formatName, plural } from '$lib/ui/format';
  import { live } from '$lib/ui/live.svelte';
  import Page from '$lib/ui/shell/Page.svelte';
  import { commonName, isChapter } from '$lib/ui/together';

  let { data } = $props();
  /** Files that were unticked: everything that can go together does, unless one says otherwise. */
  let out = $state<ReadonlySet<string>>(new Set());
  let typed = $state<string | null>(null);
  let busy = $state(false);
  let trouble = $state('');
  const reading = $derived(data.files.filter((f) => f.state === 'reading').length);
  const chapters = $derived(data.files.filter((f) => isChapter(f)));
  const chosen = $derived(chapters.filter((f) => !out.has(f.id)));
  const sum = (of: 'items' | 'points'): number => chosen.reduce((n, f) => n + (f.summary?.[of] ?? 0), 0);
  const name = $derived(typed ?? commonName(chosen.map((f) => f.name)));

  function tick(id: string): void {
    const next = new Set(out);
    if (!next.delete(id)) next.add(id);
    out = next;
  }
  async function together(where: (id: string) => string): Promise<void> {
    [busy, trouble] = [true, ''];
    try {
      const { id } = await ask<{ id: string }>('/api/packages/together', {
        ids: chosen.map((f) => f.id),
        name,
      });
      await live.go(where(id));
    } catch (error) {
      trouble = (error as Error).message;
    } finally {
      busy = false;
    }
  }
</script>

{#snippet whatItIs({ summary, state, failure, id }: (typeof data.files)[number])}
  {#if summary}{formatName(summary.format)}
  {:else if state === 'failed'}<span class="text-brick">{failure?.message}</span>
  {:else}<span class="text-quiet">{live.jobOf(id)?.step || 'waiting to be read'}</span>{/if}
{/snippet}

<Page title="{plural(data.files.length, 'file')} came in" back={{ href: '/packages', name: 'Packages' }}>
  <table class="border-hair bg-surface w-full border text-left">
    <thead class="text-quiet border-hair border-b text-[12.5px]">
      <tr>
        <th class="w-9 py-1.5 pl-4"><span class="sr-only">Included</span></th>
        <th class="px-3 py-1.5 font-semibold">File</th>
        <th class="px-3 py-1.5 font-semibold max-md:hidden">What it is</th>
        <th class="px-3 py-1.5 text-right font-semibold">Questions</th>
        <th class="px-3 py-1.5 text-right font-semibold max-md:hidden">Points</th>
        <th class="px-4 py-1.5 font-semibold">To check</th>
      </tr>
    </thead>
    <tbody>
      {#each data.files as held (held.id)}
        {@const s = held.summary}
        <tr class="border-hair border-b last:border-0">
          <td class="py-1.5 pl-4">
            {#if isChapter(held)}<input
                type="checkbox"
                aria-label="Include {held.name}"
                checked={!out.has(held.id)}
                onchange={() => tick(held.id)}
                class="border-quiet text-agave size-[15px] rounded-sm dark:bg-transparent"
              />{/if}
          </td>
          <td class="max-w-[340px] px-3 py-1.5 max-md:max-w-[120px]">
            <a
              class="block truncate font-serif text-[15.5px] hover:underline"
              dir="auto"
              href="/packages/{held.id}">{held.name}</a
            >
            <span class="text-[12.5px] md:hidden">{@render whatItIs(held)}</span>
          </td>
          <td class="px-3 py-1.5 max-md:hidden">{@render whatItIs(held)}</td>
          <td class="num px-3 py-1.5 text-right">{s ? count(s.items) : ''}</td>
          <td class="num px-3 py-1.5 text-right max-md:hidden">{s ? count(s.points) : ''}</td>
          <td class="px-4 py-1.5">
            {#if s && s.errors + s.warnings > 0}<a class="act text-ochre" href="/packages/{held.id}"
                >{plural(s.errors + s.warnings, 'finding')}</a
              >{:else if s}<span class="text-quiet">nothing</span>{/if}
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
  <div class="mt-4 flex flex-wrap items-center gap-x-4 gap-y-2">
    {#if reading > 0}<p role="status" class="text-quiet">{plural(reading, 'file')} still to be read…</p>
    {:else if chosen.length >= 2}
      <p role="status">
        <b class="num">{count(chosen.length)}</b> together:
        <span class="num">{plural(sum('items'), 'question')}, {plural(sum('points'), 'point')}</span>
      </p>
      <label class="flex items-center gap-2"
        ><span class="text-quiet">Name</span>
        <input
          dir="auto"
          maxlength="200"
          value={name}
          oninput={(e) => (typed = e.currentTarget.value)}
          class="border-hair bg-surface text-ink h-8 w-[240px] rounded border px-2 font-serif text-[15.5px]"
        /></label
      >
      <Button
        color="primary"
        disabled={busy || name.trim() === ''}
        onclick={() => together((id) => `/bring?package=${id}&all=1`)}>Bring them into a course…</Button
      >
      <Button
        color="alternative"
        disabled={busy || name.trim() === ''}
        onclick={() => together((id) => `/packages/${id}/document`)}>Check against the documents</Button
      >
    {:else if chapters.length === 0}
      <p class="text-quiet">Each of these opens by itself.</p>
    {:else}<p class="text-quiet">Tick two or more to take them together.</p>{/if}
  </div>
  {#if chosen.length >= 2}<p class="text-quiet mt-2 text-[13px]">
      A bank for each file, or for each chapter in it. A file of answers goes with its questions.
    </p>{/if}
  {#if trouble}<p class="text-brick mt-3" role="alert">{trouble}</p>{/if}
</Page>

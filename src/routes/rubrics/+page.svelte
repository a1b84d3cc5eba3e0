<script lang="ts">
  import Page from '$lib/ui/shell/Page.svelte';
  import { goto } from '$app/navigation';
  import { find } from '@alforja/core';
  import Button from 'flowbite-svelte/Button.svelte';
  import { count, plural, when } from '$lib/ui/format';
  import { ask } from '$lib/ui/ask';
  import { takeTable } from '$lib/ui/rubrics/pasted';
  import { rowsOf } from '$lib/ui/rubrics/clipboard';

  let { data } = $props();
  let filter = $state('');
  let trouble = $state('');
  let ticked = $state<string[]>([]);
  const keyOf = (r: { place: string; id: string }): string => `${r.place}/${r.id}`;
  const shown = $derived(
    find(data.rubrics, filter, (r) => `${r.title} ${r.placeName} ${r.grades.join(' ')}`).map((h) => h.entry),
  );
  const KINDS = {
    own: 'made here',
    follower: 'linked copy',
    course: 'in a course',
    package: 'in a file',
  } as const;

  async function begin(): Promise<void> {
    try {
      const { id } = await ask<{ id: string }>('/api/rubrics', { do: 'new' });
      await goto(`/rubrics/own/${id}`);
    } catch (error) {
      trouble = (error as Error).message;
    }
  }
  /** Several go together, in one file beside no package. */
  async function bring(): Promise<void> {
    const chosen = data.rubrics.filter((r) => ticked.includes(keyOf(r)));
    try {
      const { package: id } = await ask<{ package: string }>('/api/rubrics', {
        do: 'pack',
        rubrics: chosen.map((r) => ({ place: r.place, rubric: r.id })),
      });
      await goto(`/bring?package=${id}`);
    } catch (error) {
      trouble = (error as Error).message;
    }
  }
  /** A table that is pasted anywhere on the page is taken for a rubric. */
  function paste(event: ClipboardEvent): void {
    if (!event.clipboardData || (event.target as HTMLElement).matches('input, textarea')) return;
    const { rows } = rowsOf(event.clipboardData);
    if (rows.length > 0) void takeTable(rows);
  }
</script>

<svelte:window onpaste={paste} />
<Page title="Rubrics">
  {#snippet aside()}{#if data.rubrics.length > 8}<input
        type="search"
        aria-label="Filter this list"
        placeholder="Filter…"
        bind:value={filter}
        class="border-hair bg-surface text-ink placeholder:text-quiet h-8 w-[220px] rounded border px-2.5 text-[13.5px]"
      />{/if}{/snippet}
  {#snippet actions()}
    {#if ticked.length > 0}<Button color="alternative" onclick={bring}
        >Bring {plural(ticked.length, 'rubric')} into a course…</Button
      >{/if}
    <Button color="alternative" href="/rubrics/table">From a table…</Button>
    <Button color="primary" onclick={begin}>New rubric</Button>
  {/snippet}
  {#if trouble}<p class="text-brick mb-2" role="alert">{trouble}</p>{/if}
  <p class="text-quiet mb-3 max-w-[760px] text-[13.5px]">
    Drop a CASE file, a CSV or a workbook anywhere, or paste a table from a word processor or a spreadsheet
    here.
  </p>
  {#if data.rubrics.length === 0}
    <p class="max-w-[640px]">
      No rubrics yet. Start a new one, paste a table here, or
      <a class="act" href="/sample-rubric.csv" download>download our sample rubric</a> and drop it. Rubrics of courses
      are listed once you open the course.
    </p>
  {:else}
    <ul class="border-hair bg-surface border border-b-0">
      {#each shown as r (r.place + r.id)}
        <li
          class="border-hair hover:bg-wash grid grid-cols-[16px_minmax(0,0.8fr)_minmax(0,2fr)_170px] items-baseline gap-4 border-b px-4 py-2 max-md:grid-cols-1"
        >
          <input
            type="checkbox"
            aria-label="{r.title}, {r.placeName}"
            value={keyOf(r)}
            bind:group={ticked}
            class="border-quiet text-agave size-[15px] self-center rounded-sm dark:bg-transparent"
          />
          <span class="min-w-0">
            <a
              class="block truncate font-serif text-[16px] hover:underline"
              dir="auto"
              href="/rubrics/{encodeURIComponent(r.place)}/{encodeURIComponent(r.id)}">{r.title}</a
            >
            {#if r.behind}<span class="text-ochre text-[12.5px]">its original has changed</span>{/if}
          </span>
          <span class="min-w-0">
            <span class="text-quiet block truncate"
              >{KINDS[r.kind]}{r.kind === 'course' || r.kind === 'package'
                ? `: ${r.placeName}`
                : ''}{r.kind === 'course' ? '' : `, ${when(r.at)}`}</span
            >
            {#if r.grades.length > 0}<span class="block truncate text-[13px]" dir="auto"
                >grades {r.grades.join('; ')}</span
              >{:else if r.kind === 'course'}<span class="text-ochre text-[13px]">not attached</span>{/if}
          </span>
          <span class="num text-right max-md:text-left"
            >{plural(r.criteria, 'criterion', 'criteria')}, {r.points === null
              ? 'not scored'
              : `${count(r.points)} points`}</span
          >
        </li>
      {:else}<li class="border-hair text-quiet border-b px-4 py-3">
          No matches for “{filter}”. Try fewer words.
        </li>{/each}
    </ul>
  {/if}
</Page>

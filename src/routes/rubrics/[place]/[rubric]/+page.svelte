<script lang="ts">
  import { untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import Button from 'flowbite-svelte/Button.svelte';
  import Page from '$lib/ui/shell/Page.svelte';
  import SheetHead from '$lib/ui/rubrics/SheetHead.svelte';
  import { live } from '$lib/ui/live.svelte';
  import FindingNote from '$lib/ui/room/FindingNote.svelte';
  import { ask } from '$lib/ui/ask';
  import { count, plural } from '$lib/ui/format';
  import AttachTo from '$lib/ui/rubrics/AttachTo.svelte';
  import Effect from '$lib/ui/rubrics/Effect.svelte';
  import Follower from '$lib/ui/rubrics/Follower.svelte';
  import Grid from '$lib/ui/rubrics/Grid.svelte';
  import Sheet from '$lib/ui/rubrics/Sheet.svelte';
  import { RubricSheet } from '$lib/ui/rubrics/sheet.svelte';
  import SideBySide from '$lib/ui/rubrics/SideBySide.svelte';

  let { data } = $props();
  const formats = [
    { target: 'case1.0', name: 'CASE' },
    { target: 'csv', name: 'CSV' },
    { target: 'xlsx', name: 'Workbook' },
    { target: 'html', name: 'Page to print' },
  ];
  let trouble = $state('');
  let asking = $state(false);
  /** One's own rubric is changed in place; news from the server does not replace what is being changed. */
  const changing = $derived(data.kind === 'own' ? data.address : null);
  const sheet = $derived(
    changing === null ? null : untrack(() => new RubricSheet(data.rubric, `/api/rubrics/${changing}`)),
  );
  const title = $derived(sheet ? sheet.rubric.title : data.rubric.title || data.rubric.id);
  const withOther = (value: string): void =>
    void live.go(value ? `${page.url.pathname}?with=${encodeURIComponent(value)}` : page.url.pathname);

  async function doing(work: () => Promise<void>): Promise<void> {
    trouble = '';
    await work().catch((error: Error) => (trouble = error.message));
  }
  const copy = (follows: boolean): Promise<void> =>
    doing(async () => {
      const { id } = await ask<{ id: string }>('/api/rubrics', {
        do: 'copy',
        place: data.place,
        rubric: data.rubric.id,
        follows,
      });
      await goto(`/rubrics/own/${id}`);
    });
  /** The package it goes in; of a file that may hold others, which of them it is. */
  async function packed(): Promise<{ package: string; rubric: string | null }> {
    if (data.kind === 'package') return { package: data.place, rubric: data.rubric.id };
    const { package: id } = await ask<{ package: string }>('/api/rubrics', {
      do: 'pack',
      rubrics: [{ place: data.place, rubric: data.rubric.id }],
    });
    return { package: id, rubric: null };
  }
  const bring = (): Promise<void> =>
    doing(async () => {
      const { package: id, rubric } = await packed();
      const only = rubric ? `&rubric=${encodeURIComponent(rubric)}` : '';
      await goto(`/bring?package=${id}${only}`);
    });
  const remove = (): Promise<void> =>
    doing(async () => {
      await ask(`/api/rubrics/${data.address}`, {}, { method: 'DELETE' });
      await goto('/rubrics');
    });
  const told = (what: 'take' | 'independent'): Promise<void> =>
    doing(async () => {
      await ask(`/api/rubrics/${data.address}`, { do: what });
      await live.reload();
    });
</script>

<Page {title} tab={title || 'Rubric'} back={{ href: '/rubrics', name: 'Rubrics' }}>
  {#snippet origin()}
    &nbsp;· {data.name}{data.locked ? ' · locked there' : ''}{data.grades.length > 0
      ? ` · grades ${data.grades.join(', ')}`
      : ''}{#if data.original && !data.original.gone}
      &nbsp;· {data.kind === 'follower' ? 'follows' : 'copied from'}
      <a
        class="act"
        href="/rubrics/{encodeURIComponent(data.original.place)}/{encodeURIComponent(data.original.id)}"
        >{data.original.title}</a
      >, {data.original.name}{/if}
  {/snippet}
  {#snippet heading()}
    {#if sheet}<SheetHead {sheet} />
    {:else}<div class="min-w-0 max-w-[760px]">
        <h1 class="page-title" dir="auto">{title}</h1>
        {#if data.rubric.description}<p class="item-text" dir="auto">{data.rubric.description}</p>{/if}
      </div>{/if}
  {/snippet}
  {#snippet actions()}
    <Button color="alternative" onclick={() => copy(false)}
      >{data.kind === 'own' ? 'Copy' : 'Copy, to change it'}</Button
    >
    {#if data.kind === 'own' || data.kind === 'course'}<Button color="alternative" onclick={() => copy(true)}
        >Keep a linked copy</Button
      >{/if}
    <Button color="primary" onclick={bring}>Bring into a course…</Button>
  {/snippet}
  <div class="mb-3 flex flex-wrap items-center gap-3">
    <span class="flex items-center gap-2.5 text-[13.5px]"
      ><span class="text-quiet">Download as</span>
      {#each formats as f (f.target)}<a class="act" href="/api/rubrics/{data.address}?to={f.target}" download
          >{f.name}</a
        >{/each}</span
    >
    {#if data.kind === 'own' || data.kind === 'follower'}
      {#if asking}<span class="ml-3 flex items-center gap-2.5 text-[13.5px]"
          >Delete it for good? <button type="button" class="act text-brick" onclick={remove}
            >Yes, delete it</button
          >
          <button type="button" class="act" onclick={() => (asking = false)}>Leave it</button></span
        >{:else}<button
          type="button"
          class="text-quiet hover:text-brick ml-3 min-h-6 text-[13.5px]"
          onclick={() => (asking = true)}>Delete…</button
        >{/if}
    {/if}
    <label class="ml-auto flex items-center gap-2 text-[13.5px]"
      >Compare with <select
        value={page.url.searchParams.get('with') ?? ''}
        onchange={(e) => withOther(e.currentTarget.value)}
        class="border-hair bg-surface text-ink h-8 max-w-[280px] rounded border py-0 text-[14px]"
      >
        <option value="">none</option>
        {#each data.others as o (o.place + o.id)}<option value="{o.place}/{o.id}"
            >{o.title} ({o.placeName})</option
          >{/each}
      </select></label
    >
  </div>
  {#if trouble}<p class="text-brick mb-3" role="alert">{trouble}</p>{/if}
  {#if data.courses.length > 0}<AttachTo courses={data.courses} {packed} />{/if}
  {#if data.kind === 'follower'}<Follower
      original={data.original}
      own={{ title: data.rubric.title, points: data.points }}
      ontake={() => told('take')}
      onindependent={() => told('independent')}
    />{/if}
  {#if data.comparison}
    {#if data.comparison.effect}
      <div class="mb-3"><Effect effect={data.comparison.effect} /></div>
    {/if}
    <SideBySide
      rows={data.comparison.rows}
      left={{ title: data.rubric.title, name: data.name, points: data.points }}
      right={{
        title: data.comparison.rubric.title,
        name: data.comparison.name,
        points: data.comparison.points,
      }}
    />
  {:else}
    {#if data.criteria > data.rubric.criteria.length}<p class="text-quiet mb-3">
        It has {plural(data.criteria, 'criterion', 'criteria')}; the first {count(
          data.rubric.criteria.length,
        )} are shown.
      </p>{/if}
    {#if sheet}<Sheet {sheet} />{:else}<Grid rubric={data.rubric} points={data.points} />{/if}
    {#each data.findings as found, at (at)}<div class="mt-3"><FindingNote {found} place /></div>{/each}
  {/if}
</Page>

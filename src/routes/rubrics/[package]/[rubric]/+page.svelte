<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import { page } from '$app/state';
  import { live } from '$lib/ui/live.svelte';
  import FindingNote from '$lib/ui/room/FindingNote.svelte';
  import Effect from '$lib/ui/rubrics/Effect.svelte';
  import Grid from '$lib/ui/rubrics/Grid.svelte';
  import SideBySide from '$lib/ui/rubrics/SideBySide.svelte';

  let { data } = $props();
  const formats = [
    { target: 'case1.0', name: 'CASE' },
    { target: 'csv', name: 'CSV' },
    { target: 'xlsx', name: 'Workbook' },
    { target: 'html', name: 'Page to print' },
  ];
  const withOther = (value: string): void =>
    void live.go(value ? `${page.url.pathname}?with=${encodeURIComponent(value)}` : page.url.pathname);
</script>

<svelte:head><title>{data.rubric.title} · Alforja</title></svelte:head>
<div class="mx-auto max-w-[1232px] px-6 py-5">
  <p class="text-quiet text-[13px]"><a class="act" href="/rubrics">Rubrics</a> · {data.name}</p>
  <h1 class="font-serif text-[22px]" dir="auto">{data.rubric.title || data.rubric.id}</h1>
  {#if data.rubric.description}<p class="item-text" dir="auto">{data.rubric.description}</p>{/if}
  <div class="mt-2 mb-3 flex flex-wrap items-center gap-3">
    {#each formats as f (f.target)}<Button
        size="xs"
        color="alternative"
        href="/api/rubrics/{data.address}?to={f.target}"
        download>{f.name}</Button
      >{/each}
    <label class="ml-auto flex items-center gap-2"
      >Compare with <select
        value={page.url.searchParams.get('with') ?? ''}
        onchange={(e) => withOther(e.currentTarget.value)}
        class="border-hair bg-surface text-ink h-8 max-w-[340px] rounded border py-0 text-[14px]"
      >
        <option value="">none</option>
        {#each data.others as o (o.packageId + o.id)}<option value="{o.packageId}/{o.id}"
            >{o.title} ({o.packageName})</option
          >{/each}
      </select></label
    >
  </div>
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
    <Grid rubric={data.rubric} points={data.points} />
    {#each data.findings as found, at (at)}<div class="mt-3"><FindingNote {found} place /></div>{/each}
  {/if}
</div>

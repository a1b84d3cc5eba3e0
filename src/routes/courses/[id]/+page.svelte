<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { CourseThing } from '@alforja/core';
  import { holdsAnything } from '$lib/ui/courses/holds';
  import { count, plural, readable, when } from '$lib/ui/format';

  let { data } = $props();
  const c = $derived(data.course);
  const blocks = $derived(
    data.snapshot
      ? [
          ...data.snapshot.outline.sections.map((s) => ({ ...s, things: inside(s.id) })),
          { id: '', name: 'Outside of sections', things: inside(null) },
        ].filter((b) => b.id !== '' || b.things.length > 0)
      : [],
  );
  const assignments = $derived(data.snapshot?.outline.assignments ?? []);
  const rubricsOf = (id: string): string[] =>
    (data.snapshot?.outline.rubrics ?? [])
      .filter((r) => r.rubric.attachedTo.includes(id))
      .map((r) => r.rubric.title || r.rubric.id);
  function inside(section: string | null): CourseThing[] {
    return data.snapshot!.outline.things.filter((t) => t.section === section);
  }
</script>

<svelte:head><title>{c.title} · Alforja</title></svelte:head>
<div class="mx-auto max-w-[1000px] px-6 py-5">
  <p class="text-quiet text-[13px]"><a class="act" href="/courses">Courses</a></p>
  <div class="flex flex-wrap items-baseline gap-x-4 gap-y-2">
    <h1 class="font-serif text-[22px]" dir="auto">{c.title}</h1>
    <span class="text-quiet">{c.code}, section {c.section}, {c.term}, {c.system} · {c.people.join(', ')}</span
    >
  </div>
  {#if c.openAttempts > 0}<p class="text-ochre mt-1">
      Students are in the middle of it: {count(c.openAttempts)} attempts are open.
    </p>{/if}
  <div class="mt-3 flex flex-wrap items-center gap-3">
    {#if c.mayChange}<Button color="primary" size="sm" href="/bring?to={encodeURIComponent(c.id)}"
        >Bring something in</Button
      >{/if}
    {#if holdsAnything(c)}<Button color="alternative" size="sm" href="/bring?from={encodeURIComponent(c.id)}"
        >Take something from it</Button
      >
      <Button color="alternative" size="sm" href="/bring?to=file&from={encodeURIComponent(c.id)}"
        >Keep as a file…</Button
      >{/if}
    {#if data.held?.state === 'ready' && data.held.summary && data.held.summary.items > 0}<a
        class="act"
        href="/packages/{data.held.id}">Read its questions</a
      >{/if}
    <span class="text-quiet ml-auto text-[12.5px]"
      >{data.snapshot ? `as seen ${when(data.snapshot.takenAt)}` : 'looking into it…'}</span
    >
  </div>
  {#if data.snapshot && c.rubrics === 0}<p class="text-quiet mt-3 text-[13px]">No rubrics here.</p>{/if}
  {#each blocks as b (b.id)}
    <h2 class="mt-5 mb-1 text-[15px]" dir="auto">{b.name}</h2>
    {#if b.things.length === 0}<p class="text-quiet text-[13px]">nothing</p>{/if}
    <ul>
      {#each b.things as t (t.id)}
        <li class="border-hair flex flex-wrap items-baseline gap-x-3 border-t py-1.5">
          {#if t.kind === 'rubric'}<a
              class="font-serif text-[16px] underline decoration-hair underline-offset-4"
              dir="auto"
              href="/rubrics/{encodeURIComponent(c.id)}/{encodeURIComponent(t.id)}"
              >{t.title || 'without a name'}</a
            >{:else}<span class="font-serif text-[16px]" dir="auto">{t.title || 'without a name'}</span>{/if}
          <span class="text-quiet">{t.kind === 'link' ? 'web link' : t.kind}{t.hidden ? ', hidden' : ''}</span
          >
          {#if t.opens || t.closes}<span class="text-quiet num text-[12.5px]"
              >{t.opens ? `opens ${readable(t.opens)}` : ''}{t.opens && t.closes ? ', ' : ''}{t.closes
                ? `closes ${readable(t.closes)}`
                : ''}</span
            >{/if}
          {#if t.kind === 'rubric'}<span class="num text-quiet ml-auto">{plural(t.points, 'point')}</span>
          {:else if t.kind !== 'link'}<span class="num text-quiet ml-auto"
              >{plural(t.items, 'question')}, {plural(t.points, 'point')}</span
            >{/if}
        </li>
      {/each}
    </ul>
  {/each}
  {#if assignments.length > 0}
    <h2 class="mt-5 mb-1 text-[15px]">Assignments</h2>
    <p class="text-quiet mb-1 text-[13px]">They stay where they are; the rubrics that grade them can go.</p>
    <ul>
      {#each assignments as a (a.id)}
        <li class="border-hair flex flex-wrap items-baseline gap-x-3 border-t py-1.5">
          <span class="font-serif text-[16px]" dir="auto">{a.title || 'without a name'}</span>
          {#each rubricsOf(a.id) as title, at (at)}<span class="text-quiet">graded by “{title}”</span>{/each}
          <span class="num text-quiet ml-auto">{plural(a.points, 'point')}</span>
        </li>
      {/each}
    </ul>
  {/if}
</div>

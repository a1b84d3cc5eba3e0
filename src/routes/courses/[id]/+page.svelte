<script lang="ts">
  import Page from '$lib/ui/shell/Page.svelte';
  import Button from 'flowbite-svelte/Button.svelte';
  import type { CourseThing } from '@alforja/core';
  import ThrowAway from '$lib/ui/ThrowAway.svelte';
  import { holdsAnything } from '$lib/ui/courses/holds';
  import { plural, readable, when } from '$lib/ui/format';

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

<Page title={c.title} back={{ href: '/courses', name: 'Courses' }}>
  {#snippet aside()}<span>{c.code}, section {c.section}, {c.term}, {c.system} · {c.people.join(', ')}</span
    >{/snippet}
  {#snippet actions()}
    {#if holdsAnything(c)}<Button color="alternative" href="/bring?to=file&from={encodeURIComponent(c.id)}"
        >Keep as a file…</Button
      >
      <Button color="alternative" href="/bring?from={encodeURIComponent(c.id)}"
        >Take something from it…</Button
      >{/if}
    {#if c.mayChange}<Button color="primary" href="/bring?to={encodeURIComponent(c.id)}"
        >Bring something in…</Button
      >{/if}
  {/snippet}
  <p class="flex flex-wrap items-baseline gap-x-4">
    {#if c.openAttempts > 0}<span class="text-ochre">{plural(c.openAttempts, 'attempt')} in progress.</span
      >{/if}
    {#if data.held?.state === 'ready' && data.held.summary && data.held.summary.items > 0}<a
        class="act"
        href="/packages/{data.held.id}">Read its questions</a
      >{/if}
    {#if data.held?.state === 'ready' && blocks.some((b) => b.things.some((t) => t.kind === 'link'))}<a
        class="act"
        href="/packages/{data.held.id}?in=links">Test its links</a
      >{/if}
    <span class="text-quiet"
      >{data.snapshot ? `Read ${when(data.snapshot.takenAt)}.` : 'Reading the course…'}{data.snapshot &&
      c.rubrics === 0
        ? ' No rubrics here.'
        : ''}</span
    >
  </p>
  {#each blocks as b (b.id)}
    <h2 class="mt-5 mb-1 text-[15px]" dir="auto">{b.name}</h2>
    {#if b.things.length === 0}<p class="text-quiet text-[13px]">Empty</p>{/if}
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
          {#if t.kind === 'rubric'}<span class="num text-quiet">{plural(t.points, 'point')}</span>
          {:else if t.kind !== 'link'}<span class="num text-quiet"
              >{plural(t.items, 'question')}, {plural(t.points, 'point')}</span
            >{/if}
        </li>
      {/each}
    </ul>
  {/each}
  {#if assignments.length > 0}
    <h2 class="mt-5 mb-1 text-[15px]">Assignments</h2>
    <p class="text-quiet mb-1 text-[13px]">
      Assignments stay in this course; the rubrics that grade them can be taken along.
    </p>
    <ul>
      {#each assignments as a (a.id)}
        <li class="border-hair flex flex-wrap items-baseline gap-x-3 border-t py-1.5">
          <span class="font-serif text-[16px]" dir="auto">{a.title || 'without a name'}</span>
          {#each rubricsOf(a.id) as title, at (at)}<span class="text-quiet">graded by “{title}”</span>{/each}
          <span class="num text-quiet">{plural(a.points, 'point')}</span>
        </li>
      {/each}
    </ul>
  {/if}
  {#if data.looks.length > 0}
    <h2 class="mt-5 mb-1 text-[15px]">Copies kept of this course</h2>
    <ul>
      {#each data.looks as look (look.id)}
        <li class="border-hair flex items-center gap-3 border-t py-0.5">
          <a class="act inline-flex min-h-6 items-center" href="/packages/{look.packageId}"
            >{when(look.takenAt)}</a
          >
          <ThrowAway kind="look" id={look.id} name="the copy of {c.title}, {when(look.takenAt)}" />
        </li>
      {/each}
    </ul>
  {/if}
</Page>

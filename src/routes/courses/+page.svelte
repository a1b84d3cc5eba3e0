<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import CourseSearch from '$lib/ui/courses/CourseSearch.svelte';
  import { holds, holdsAnything } from '$lib/ui/courses/holds';
  import { count, plural, when } from '$lib/ui/format';
  import { live } from '$lib/ui/live.svelte';

  let { data } = $props();
  const search = (q: string): void =>
    void live.go(q ? `/courses?q=${encodeURIComponent(q)}` : '/courses', {
      keepFocus: true,
      replaceState: true,
    });
  const terms = $derived([...new Set(data.courses.map((c) => c.term))]);
</script>

<svelte:head><title>Courses · Alforja</title></svelte:head>
<div class="mx-auto max-w-[1232px] px-6 py-5">
  <div class="mb-3 flex items-baseline gap-4">
    <h1 class="font-serif text-[22px]">Courses</h1>
    <span class="text-quiet text-[13px]">
      {#each data.systems as s, at (s.id)}{at > 0 ? ' · ' : ''}{s.name}{s.trouble
          ? ''
          : s.syncedAt
            ? `, seen ${when(s.syncedAt)}`
            : ', looking…'}{/each}
    </span>
    <a class="act ml-auto text-[13.5px]" href="/batches/new">Many courses at once</a>
    <a class="act text-[13.5px]" href="/systems">Systems</a>
  </div>
  {#each data.systems.filter((s) => s.trouble) as s (s.id)}
    <p class="text-brick mb-2" role="alert">{s.trouble} <a class="act" href="/systems">Systems</a></p>
  {/each}
  {#if data.systems.length === 0}
    <p>
      No course system is connected yet. <a class="act" href="/systems">Connect one</a> by its address and a token,
      and its courses stand here.
    </p>
  {:else}
    <div class="mb-3 flex items-center gap-3">
      <div class="grow"><CourseSearch label="Find a course" value={data.query} onsearch={search} /></div>
      <Button href="/bring" color="primary" size="sm">Bring something into a course</Button>
    </div>
    {#if data.courses.length === 0}
      <p class="text-quiet">
        No course says “{data.query}”, spelling forgiven. Leave a word out; every word has to fit somewhere.
      </p>
    {/if}
    {#each terms as term (term)}
      <h2 class="text-quiet mt-4 mb-1 text-[12.5px] font-semibold">{term || 'No term'}</h2>
      <ul class="border-hair bg-surface border border-b-0">
        {#each data.courses.filter((c) => c.term === term) as c (c.id)}
          <li
            class="border-hair hover:bg-wash grid grid-cols-[minmax(0,1.6fr)_minmax(0,1fr)_minmax(0,1.2fr)_160px] items-center gap-4 border-b px-4 py-2 max-md:grid-cols-1 max-md:gap-1"
          >
            <span class="min-w-0"
              ><a
                class="block truncate font-serif text-[16px] hover:underline"
                dir="auto"
                href="/courses/{c.id}">{c.title}</a
              ><span class="text-quiet text-[12.5px]">{c.code}, section {c.section}, {c.system}</span></span
            >
            <span class="truncate" dir="auto">{c.people.join(', ')}</span>
            <span class="min-w-0"
              ><span class="block truncate">{holds(c)}</span><span class="num text-quiet text-[12.5px]"
                >{c.items > 0 ? plural(c.items, 'question') : ''}{c.openAttempts > 0
                  ? `, ${count(c.openAttempts)} attempts open now`
                  : ''}</span
              ></span
            >
            <span class="flex justify-end gap-4 whitespace-nowrap max-md:justify-start">
              {#if holdsAnything(c)}<a
                  class="act"
                  href="/bring?from={encodeURIComponent(c.id)}"
                  aria-label="Take from {c.title}, section {c.section}, {c.term}">Take from</a
                >{/if}
              {#if c.mayChange}<a
                  class="act"
                  href="/bring?to={encodeURIComponent(c.id)}"
                  aria-label="Bring into {c.title}, section {c.section}, {c.term}">Bring into</a
                >{/if}
            </span>
          </li>
        {/each}
      </ul>
    {/each}
    {#if data.batches.length > 0}
      <h2 class="mt-6 mb-1 text-[15px]">Batches</h2>
      <ul>
        {#each data.batches as b (b.id)}<li>
            <a class="act" href="/batches/{b.id}">{b.title}</a>
            <span class="text-quiet">{when(b.createdAt)}</span>
          </li>{/each}
      </ul>
    {/if}
  {/if}
</div>

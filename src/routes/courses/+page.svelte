<script lang="ts">
  import Page from '$lib/ui/shell/Page.svelte';
  import Button from 'flowbite-svelte/Button.svelte';
  import CourseSearch from '$lib/ui/courses/CourseSearch.svelte';
  import TermStates from '$lib/ui/courses/TermStates.svelte';
  import { termCounts } from '$lib/ui/courses/terms';
  import { holds, holdsAnything } from '$lib/ui/courses/holds';
  import { plural, when } from '$lib/ui/format';
  import { live } from '$lib/ui/live.svelte';

  let { data } = $props();
  const search = (q: string): void =>
    void live.go(q ? `/courses?q=${encodeURIComponent(q)}` : '/courses', {
      keepFocus: true,
      replaceState: true,
    });
  const byTerm = $derived(termCounts(data.courses, data.states));
  const terms = $derived([...new Set(data.courses.map((c) => c.term))]);
</script>

<Page title="Courses">
  {#snippet aside()}<span class="text-[13px]"
      >{#each data.systems as s, at (s.id)}{at > 0 ? ' · ' : ''}{s.name}{s.trouble
          ? ''
          : s.syncedAt
            ? `, refreshed ${when(s.syncedAt)}`
            : ', refreshing…'}{/each}</span
    >{/snippet}
  {#snippet actions()}
    <a class="act mr-1" href="/systems">Systems</a>
    <Button href="/batches/new" color="alternative">Many courses at once…</Button>
    <Button href="/bring" color="primary">Bring something into a course</Button>
  {/snippet}
  {#each data.systems.filter((s) => s.trouble) as s (s.id)}
    <p class="text-brick mb-2" role="alert">{s.trouble} <a class="act" href="/systems">Systems</a></p>
  {/each}
  {#if data.systems.length === 0}
    <p>
      No course system is connected yet. <a class="act" href="/systems">Connect one</a> by its address and a token,
      and its courses are listed here.
    </p>
  {:else}
    <div class="mb-3"><CourseSearch label="Find a course" value={data.query} onsearch={search} /></div>
    {#if data.query === '' && byTerm.length > 0}<TermStates terms={byTerm} />{/if}
    {#if data.courses.length === 0}
      <p class="text-quiet">
        No course matches “{data.query}”. Try fewer words.
      </p>
    {/if}
    {#each terms as term (term)}
      <h2 class="text-quiet mt-4 mb-1 text-[12.5px] font-semibold">{term || 'No term'}</h2>
      <ul class="border-hair bg-surface border border-b-0">
        {#each data.courses.filter((c) => c.term === term) as c (c.id)}
          <li
            class="border-hair hover:bg-wash grid grid-cols-[minmax(0,1.6fr)_minmax(0,1fr)_minmax(0,1.2fr)_150px] items-center gap-x-4 border-b px-4 py-0.5 leading-tight max-md:grid-cols-1 max-md:gap-y-0.5 max-md:py-1.5"
          >
            <span class="min-w-0"
              ><a
                class="-mb-0.5 block truncate pb-0.5 font-serif text-[15.5px] hover:underline"
                dir="auto"
                href="/courses/{c.id}">{c.title}</a
              ><span class="text-quiet block truncate text-[12.5px]"
                >{c.code}, section {c.section}, {c.system}</span
              ></span
            >
            <span class="truncate" dir="auto">{c.people.join(', ')}</span>
            <span class="num min-w-0 truncate"
              >{holds(c)}<span class="text-quiet text-[12.5px]"
                >{c.items > 0 ? `, ${plural(c.items, 'question')}` : ''}{c.openAttempts > 0
                  ? `, ${plural(c.openAttempts, 'attempt')} in progress`
                  : ''}</span
              ></span
            >
            <span class="flex justify-end gap-4 whitespace-nowrap max-md:justify-start">
              {#if holdsAnything(c)}<a
                  class="act inline-flex min-h-6 items-center"
                  href="/bring?from={encodeURIComponent(c.id)}"
                  aria-label="Take from {c.title}, section {c.section}, {c.term}">Take from</a
                >{/if}
              {#if c.mayChange}<a
                  class="act inline-flex min-h-6 items-center"
                  href="/bring?to={encodeURIComponent(c.id)}"
                  aria-label="Bring into {c.title}, section {c.section}, {c.term}">Bring into</a
                >{/if}
            </span>
          </li>
        {/each}
      </ul>
    {/each}
    <p class="mt-4"><a class="act" href="/transfers">Batches and transfers</a></p>
  {/if}
</Page>

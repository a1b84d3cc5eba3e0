<script lang="ts">
  import { holds } from '$lib/ui/courses/holds';
  import KindIcon from '$lib/ui/KindIcon.svelte';
  import { plural } from '$lib/ui/format';

  let { data } = $props();
</script>

<svelte:head><title>{data.query} · Alforja</title></svelte:head>
<div class="mx-auto max-w-[900px] px-6 py-5">
  <h1 class="mb-3 font-serif text-[22px]">“{data.query}”</h1>
  {#if data.items.length + data.packages.length + data.courses.length + data.rubrics.length === 0}
    <p class="text-quiet">
      Nothing has these words. Beginnings of words are enough, and accents do not matter.
    </p>
  {/if}
  {#if data.courses.length > 0}
    <h2 class="text-quiet mt-4 mb-1 text-[13px]">{plural(data.courses.length, 'course')}</h2>
    <ul class="border-hair bg-surface border">
      {#each data.courses as c (c.id)}
        <li class="border-hair border-b last:border-0">
          <a class="hover:bg-wash flex items-baseline gap-3 px-4 py-2" href="/courses/{c.id}"
            ><span class="truncate font-serif text-[15.5px]" dir="auto">{c.title}</span>
            <span class="text-quiet shrink-0 text-[13px]"
              >{c.code}, section {c.section}, {c.term}, {c.system}</span
            >
            <span class="text-quiet ml-auto shrink-0 text-[13px]">{holds(c)}</span></a
          >
        </li>
      {/each}
    </ul>
  {/if}
  {#if data.rubrics.length > 0}
    <h2 class="text-quiet mt-4 mb-1 text-[13px]">{plural(data.rubrics.length, 'rubric')}</h2>
    <ul class="border-hair bg-surface border">
      {#each data.rubrics as r (r.place + r.id)}
        <li class="border-hair border-b last:border-0">
          <a
            class="hover:bg-wash flex items-baseline gap-3 px-4 py-2"
            href="/rubrics/{encodeURIComponent(r.place)}/{encodeURIComponent(r.id)}"
            ><span class="truncate font-serif text-[15.5px]" dir="auto">{r.title}</span>
            <span class="text-quiet ml-auto truncate text-[13px]">{r.placeName}</span></a
          >
        </li>
      {/each}
    </ul>
  {/if}
  {#if data.packages.length > 0}
    <h2 class="text-quiet mt-4 mb-1 text-[13px]">{plural(data.packages.length, 'package')}</h2>
    <ul class="border-hair bg-surface border">
      {#each data.packages as held (held.id)}
        <li class="border-hair border-b last:border-0">
          <a class="hover:bg-wash block px-4 py-2 font-serif text-[15.5px]" href="/packages/{held.id}"
            >{held.name} <span class="text-quiet font-sans text-[13px]">{held.summary?.title}</span></a
          >
        </li>
      {/each}
    </ul>
  {/if}
  {#if data.items.length > 0}
    <h2 class="text-quiet mt-4 mb-1 text-[13px]">{plural(data.items.length, 'item')}</h2>
    <ul class="border-hair bg-surface border">
      {#each data.items as hit (hit.packageId + hit.seq)}
        <li class="border-hair border-b last:border-0">
          <a
            class="hover:bg-wash flex items-center gap-3 px-4 py-2"
            href="/packages/{hit.packageId}?item={hit.seq}"
          >
            <KindIcon kind={hit.kind} /><span class="truncate font-serif text-[15.5px]" dir="auto"
              >{hit.name}</span
            >
            <span class="text-quiet ml-auto shrink-0 text-[13px]">{hit.packageName}</span>
          </a>
        </li>
      {/each}
    </ul>
  {/if}
</div>

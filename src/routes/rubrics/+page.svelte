<script lang="ts">
  import { count, plural, when } from '$lib/ui/format';

  let { data } = $props();
</script>

<svelte:head><title>Rubrics · Alforja</title></svelte:head>
<div class="mx-auto max-w-[1000px] px-6 py-5">
  <h1 class="mb-3 font-serif text-[22px]">Rubrics</h1>
  {#if data.rubrics.length === 0}
    <p class="max-w-[640px]">
      None yet. Drop a CASE file, a CSV or a workbook anywhere on the page: a row names the columns
      (criterion, weight, level 1, points 1, description 1, level 2 …), and each further row is a criterion.
    </p>
  {:else}
    <ul class="border-hair bg-surface border border-b-0">
      {#each data.rubrics as r (r.packageId + r.id)}
        <li
          class="border-hair hover:bg-wash grid grid-cols-[minmax(0,1.4fr)_minmax(0,1fr)_auto] items-baseline gap-4 border-b px-4 py-2 max-md:grid-cols-1"
        >
          <a
            class="truncate font-serif text-[16px] hover:underline"
            dir="auto"
            href="/rubrics/{r.packageId}/{encodeURIComponent(r.id)}">{r.title}</a
          >
          <span class="text-quiet truncate">{r.packageName}, {when(r.broughtAt)}</span>
          <span class="num"
            >{plural(r.criteria, 'criterion', 'criteria')}, {r.points === null
              ? 'not scored'
              : `${count(r.points)} points`}</span
          >
        </li>
      {/each}
    </ul>
  {/if}
</div>

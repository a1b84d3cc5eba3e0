<script lang="ts">
  import HitLine from '$lib/ui/finding/HitLine.svelte';
  import Page from '$lib/ui/shell/Page.svelte';
  import { count } from '$lib/ui/format';
  import { SEARCH_GROUPS } from '$lib/shared/finding';

  let { data } = $props();
</script>

<Page title={data.query === '' ? 'Search' : `“${data.query}”`} tab="Search">
  {#if data.query === ''}
    <p class="text-quiet">
      Type in the search box above: part of a question, a right answer, a title, a code, a name.
    </p>
  {:else if data.groups.length === 0}
    <p class="text-quiet">No matches for “{data.query}”. Try fewer words.</p>
  {/if}
  {#each data.groups as group (group.of)}
    <h2 class="text-quiet mt-4 mb-1 text-[13px] first:mt-0">
      {SEARCH_GROUPS[group.of]}, {group.more
        ? `the first ${count(group.hits.length)}`
        : count(group.hits.length)}
    </h2>
    <ul class="border-hair bg-surface border">
      {#each group.hits as hit, at (at)}
        <li class="border-hair border-b last:border-0">
          <a class="hover:bg-wash flex items-baseline gap-3 px-4 py-1.5" href={hit.href}><HitLine {hit} /></a>
        </li>
      {/each}
    </ul>
  {/each}
</Page>

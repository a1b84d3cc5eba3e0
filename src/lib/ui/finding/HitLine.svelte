<script lang="ts">
  import type { SearchHit } from '$lib/shared/finding';
  import KindIcon from '../KindIcon.svelte';

  let { hit }: { hit: SearchHit } = $props();
</script>

{#if hit.kind}<span class="self-center"><KindIcon kind={hit.kind} /></span>{/if}
<!-- On a phone what it is about stands below its name, which needs the width. -->
<span class="flex min-w-0 grow items-baseline gap-x-3 max-md:block">
  <span
    class="block min-w-0 truncate font-serif text-[15px] max-md:line-clamp-2 max-md:whitespace-normal"
    dir="auto">{hit.name}</span
  >
  <span
    class="text-quiet ml-auto block max-w-[50%] shrink-0 truncate text-[13px] max-md:max-w-full"
    dir="auto">{hit.note}</span
  >
</span>

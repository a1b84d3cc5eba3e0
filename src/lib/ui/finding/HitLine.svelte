<script lang="ts">
  import type { SearchHit } from '$lib/shared/finding';
  import KindIcon from '../KindIcon.svelte';

  let { hit }: { hit: SearchHit } = $props();
</script>

{#if hit.kind}<span class="self-center"><KindIcon kind={hit.kind} /></span>{/if}
<span class="min-w-0 truncate font-serif text-[15px]" dir="auto">{hit.name}</span>
<span class="text-quiet ml-auto max-w-[50%] shrink-0 truncate text-[13px]" dir="auto">{hit.note}</span>

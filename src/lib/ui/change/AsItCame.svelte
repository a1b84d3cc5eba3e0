<script lang="ts">
  import type { ItemDraft } from './draft.svelte';

  /** Takes back what was changed of one part of an item, where something was. */
  let { draft, part, says }: { draft: ItemDraft; part: string; says: string } = $props();
  const back = $derived(draft.came(part));
</script>

{#if back}<button
    type="button"
    class="act inline-flex min-h-6 items-center text-[12.5px]"
    aria-label="{says}: as it came"
    onclick={back}>As it came</button
  >{/if}

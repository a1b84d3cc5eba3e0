<script lang="ts">
  import type { SpokenFinding } from '@alforja/core';

  let { found, place = false }: { found: SpokenFinding; place?: boolean } = $props();
  const edge = $derived(
    { error: 'border-brick', warning: 'border-ochre', note: 'border-hair' }[found.severity],
  );
  const where = $derived(
    [found.where.path, found.where.line && `line ${found.where.line}`].filter(Boolean).join(', '),
  );
</script>

<div class="{edge} mt-3 border-l-3 pl-3">
  <div class="font-semibold"><span class="sr-only">{found.severity}: </span>{found.message}</div>
  <div class="text-quiet">
    {found.hint}{#if place && where}<span class="ml-2">{where}</span>{/if}
  </div>
</div>

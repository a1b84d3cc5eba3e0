<script lang="ts">
  import { shownName } from '@alforja/core';
  import { enhance } from '$app/forms';
  import type { SpokenFinding } from '@alforja/core';

  let { found, place = false }: { found: SpokenFinding; place?: boolean } = $props();
  const edge = $derived(
    { error: 'border-brick', warning: 'border-ochre', note: 'border-hair' }[found.severity],
  );
  const where = $derived(
    [shownName(found.where.path ?? ''), found.where.line && `line ${found.where.line}`]
      .filter(Boolean)
      .join(', '),
  );
  const proposal = $derived(found.code === 'reading-proposed' ? found.params : null);
</script>

<div class="{edge} mt-3 border-l-3 pl-3">
  <div class="font-semibold"><span class="sr-only">{found.severity}: </span>{found.message}</div>
  <div class="text-quiet">
    {found.hint}{#if place && where}<span class="ml-2">{where}</span>{/if}
  </div>
  {#if proposal}
    <form method="POST" action="/rules?/confirm" use:enhance class="mt-1">
      <input type="hidden" name="name" value="{proposal.label}: {proposal.means}" />
      <input type="hidden" name="origin" value={proposal.origin} />
      <input type="hidden" name="label" value={proposal.label} />
      <input type="hidden" name="means" value={proposal.means} />
      <button type="submit" class="act">Read it as {proposal.means}</button>
      <a class="act ml-4" href="/rules">Reading rules</a>
    </form>
  {/if}
</div>

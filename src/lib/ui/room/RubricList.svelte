<script lang="ts">
  import { UNNAMED } from '@alforja/core';
  import type { SpokenFinding } from '@alforja/core';
  import { count, plural } from '../format';
  import { Changes } from './changes.svelte';
  import FindingNote from './FindingNote.svelte';
  import Rename from './Rename.svelte';

  /** The rubrics of a file, with a way to say what the columns of its table are. */
  let {
    packageId,
    rubrics,
    spoken,
    found,
    tabular,
  }: {
    packageId: string;
    rubrics: readonly { id: string; title: string; criteria: number }[];
    /** The first of what was found, and how much that is. */
    spoken: readonly SpokenFinding[];
    found: number;
    tabular: boolean;
  } = $props();
  const changes = $derived(new Changes(packageId));
</script>

<div class="mx-auto w-full max-w-[860px] overflow-y-auto px-6 py-5">
  <div class="mb-2 flex items-baseline gap-4">
    <h2 class="text-[15px]">{plural(rubrics.length, 'rubric')}</h2>
    {#if tabular}<a class="act ml-auto" href="/rubrics/table?package={packageId}"
        >{rubrics.length > 0 ? 'How its columns are read…' : 'Say what its columns are…'}</a
      >{/if}
  </div>
  <ul class="border-hair bg-surface border-x border-t empty:hidden">
    {#each rubrics as r (r.id)}
      <li class="border-hair flex items-baseline gap-4 border-b px-4 py-2">
        <a
          class="font-serif text-[16px] hover:underline"
          dir="auto"
          href="/rubrics/{packageId}/{encodeURIComponent(r.id)}">{r.title || UNNAMED.rubric}</a
        ><span class="text-quiet ml-auto">{plural(r.criteria, 'criterion', 'criteria')}</span><Rename
          value={r.title}
          what={r.title || UNNAMED.rubric}
          take={(to) => changes.make('hand', [{ op: 'title', node: r.id, kind: 'rubric', to }])}
        />
      </li>
    {/each}
  </ul>
  {#each spoken as one, at (at)}<div class="mt-3"><FindingNote found={one} place /></div>{/each}
  {#if found > spoken.length}<p class="text-quiet mt-3">
      The first {count(spoken.length)} of {count(found)} findings.
    </p>{/if}
</div>

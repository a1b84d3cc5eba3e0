<script lang="ts">
  import type { Feedback } from '@alforja/core';
  import Content from '../content/Content.svelte';
  import { plainShowing } from '../content/answers.svelte';
  import { plural } from '../format';

  /** What an item can tell those who answer it. */
  let { texts, files }: { texts: readonly Feedback[]; files: string } = $props();
</script>

{#if texts.length > 0}
  <h3 class="mt-4 text-[13.5px]">{plural(texts.length, 'feedback text')}</h3>
  {#each texts as f, at (at)}<div class="item-text text-quiet border-hair mt-1 border-l-2 pl-3">
      <Content nodes={f.content} show={plainShowing(files)} />
    </div>{/each}
{/if}

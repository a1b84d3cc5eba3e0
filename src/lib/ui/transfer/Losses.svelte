<script lang="ts">
  import type { SpokenFinding } from '@alforja/core';
  import { plural } from '../format';

  interface Props {
    losses: readonly SpokenFinding[];
    /** Names of items by id, and where they stand in their package. */
    names: Readonly<Record<string, { seq: number; name: string }>>;
    packageId: string;
  }
  let { losses, names, packageId }: Props = $props();
  const order = { error: 0, warning: 1, note: 2 } as const;
  const edge = { error: 'border-brick', warning: 'border-ochre', note: 'border-hair' } as const;
  /** The same words for several items are said once. */
  const groups = $derived.by(() => {
    const byWords = new Map<string, { found: SpokenFinding; nodes: string[] }>();
    for (const found of losses) {
      const had = byWords.get(found.message);
      const node = found.where.node;
      if (had) had.nodes.push(...(node ? [node] : []));
      else byWords.set(found.message, { found, nodes: node ? [node] : [] });
    }
    return [...byWords.values()].sort((a, b) => order[a.found.severity] - order[b.found.severity]);
  });
</script>

{#each groups as { found, nodes } (found.message)}
  <div class="{edge[found.severity]} mt-3 border-l-3 pl-3" data-testid="loss">
    <div class="font-semibold"><span class="sr-only">{found.severity}: </span>{found.message}</div>
    <div class="text-quiet">{found.hint}</div>
    {#if nodes.length > 0}
      <details open={nodes.length <= 3}>
        <summary class="text-quiet text-[13px]">{plural(nodes.length, 'place')}</summary>
        <ul class="text-[13.5px]">
          {#each nodes.slice(0, 200) as node, at (at)}
            <li class="truncate" dir="auto">
              {#if names[node]}<a
                  class="font-serif hover:underline"
                  href="/packages/{packageId}?item={names[node].seq}">{names[node].name}</a
                >{:else}{node}{/if}
            </li>
          {/each}
        </ul>
      </details>
    {/if}
  </div>
{/each}

<script lang="ts">
  import { UNNAMED } from '@alforja/core';
  import type { OutlineNode, Tree } from '@alforja/core';
  import { count } from '../format';
  import type { Place } from './places';

  interface Props {
    tree: Tree;
    place: Place;
    counts: { all: number; loose: number; decide: number; repaired: number; quiz: (id: string) => number };
    go: (place: Place) => void;
  }
  let { tree, place, counts, go }: Props = $props();
  const same = (p: Place): boolean =>
    p.kind === place.kind && ('id' in p ? 'id' in place && p.id === place.id : true);
  const images = $derived(tree.files.filter((f) => /\.(?:png|jpe?g|gif|webp|svg)$/iu.test(f.path)).length);
  const folders = $derived(tree.outline.some((n) => n.children.length > 0));
</script>

{#snippet row(target: Place, name: string, n: string, warn = false)}
  <li>
    <button
      type="button"
      class="flex w-full items-baseline gap-2 px-6 py-1 text-left {same(target)
        ? 'bg-band font-semibold'
        : 'hover:bg-band/60'}"
      aria-current={same(target) ? 'true' : undefined}
      onclick={() => go(target)}
    >
      <span class="truncate" dir="auto">{name}</span><span
        class="num ml-auto shrink-0 {warn ? 'text-ochre font-semibold' : 'text-quiet'}">{n}</span
      >
    </button>
  </li>
{/snippet}

{#snippet folder(nodes: readonly OutlineNode[], depth: number)}
  {#each nodes as node, n (n)}
    <li class="text-quiet truncate px-6 py-0.5" style="padding-left: {24 + depth * 12}px" dir="auto">
      {node.title || 'Untitled'}
    </li>
    {@render folder(node.children, depth + 1)}
  {/each}
{/snippet}

<nav aria-label="Contents of the package" class="flex flex-col gap-3.5 py-4 text-[13.5px]">
  <ul>{@render row({ kind: 'all' }, 'All items', count(counts.all))}</ul>
  {#if tree.quizzes.length > 0}
    <div>
      <h2 class="text-quiet px-6 pb-1 text-[12.5px]">Quizzes</h2>
      <ul>
        {#each tree.quizzes as quiz (quiz.id)}{@render row(
            { kind: 'quiz', id: quiz.id },
            quiz.title || UNNAMED.quiz,
            count(counts.quiz(quiz.id)),
          )}{/each}
      </ul>
    </div>
  {/if}
  {#if tree.banks.length > 0}
    <div>
      <h2 class="text-quiet px-6 pb-1 text-[12.5px]">Banks</h2>
      <ul>
        {#each tree.banks as bank (bank.id)}{@render row(
            { kind: 'bank', id: bank.id },
            bank.title || UNNAMED.bank,
            count(bank.items.length),
          )}{/each}
      </ul>
    </div>
  {/if}
  {#if counts.loose > 0}<ul>
      {@render row({ kind: 'loose' }, 'In no quiz or bank', count(counts.loose))}
    </ul>{/if}
  {#if tree.links.length > 0}
    <div>
      <h2 class="text-quiet px-6 pb-1 text-[12.5px]">Links</h2>
      <ul>
        {@render row(
          { kind: 'links' },
          tree.links.length === 1 ? tree.links[0]!.title || 'Link' : 'All links',
          String(tree.links.length),
        )}
      </ul>
    </div>
  {/if}
  {#if tree.files.length > 0}
    <div>
      <h2 class="text-quiet px-6 pb-1 text-[12.5px]">Files</h2>
      <ul>
        {@render row(
          { kind: 'files' },
          images === tree.files.length ? 'Images' : 'Files',
          count(tree.files.length),
        )}
      </ul>
    </div>
  {/if}
  {#if counts.decide + counts.repaired > 0}
    <div>
      <h2 class="text-quiet px-6 pb-1 text-[12.5px]">Findings</h2>
      <ul>
        {#if counts.decide > 0}{@render row(
            { kind: 'findings', which: 'decide' },
            'To decide',
            count(counts.decide),
            true,
          )}{/if}
        {#if counts.repaired > 0}{@render row(
            { kind: 'findings', which: 'notes' },
            'Noted on reading',
            count(counts.repaired),
          )}{/if}
      </ul>
    </div>
  {/if}
  {#if folders}
    <div>
      <h2 class="text-quiet px-6 pb-1 text-[12.5px]">Order in the course</h2>
      <ul>{@render folder(tree.outline, 0)}</ul>
    </div>
  {/if}
</nav>

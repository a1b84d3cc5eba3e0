<script lang="ts">
  import { diffWords } from 'diff';
  import type { CriterionPair, RubricLevel } from '@alforja/core';
  import { count, pointsRange } from '../format';
  import Stitch from '../seam/Stitch.svelte';

  interface Side {
    readonly name: string;
    readonly title: string;
    readonly points: number | null;
  }
  interface Props {
    rows: readonly CriterionPair[];
    left: Side;
    right: Side;
  }
  let { rows, left, right }: Props = $props();
  const text = (l: RubricLevel | null): string =>
    l ? [l.title, pointsRange(l.points), l.description, l.feedback].filter((t) => t !== '').join(' · ') : '';
  /** The parts of one side, those that the other has not marked. */
  const parts = (mine: string, other: string, side: 'left' | 'right'): { text: string; differs: boolean }[] =>
    diffWords(side === 'left' ? mine : other, side === 'left' ? other : mine)
      .filter((p) => (side === 'left' ? !p.added : !p.removed))
      .map((p) => ({ text: p.value, differs: p.added || p.removed }));
</script>

{#snippet marked(mine: string, other: string, side: 'left' | 'right')}
  {#each parts(mine, other, side) as p, at (at)}{#if p.differs}<mark
        class="bg-band text-ink rounded-sm px-0.5 font-semibold">{p.text}</mark
      >{:else}{p.text}{/if}{/each}
{/snippet}

{#snippet pouch(pair: CriterionPair, side: 'left' | 'right')}
  {@const c = pair[side]}
  {@const other = pair[side === 'left' ? 'right' : 'left']}
  {#if c}
    <p class="font-serif text-[15.5px] font-semibold" dir="auto">
      {@render marked(c.title, other?.title ?? c.title, side)}{#if c.weight !== null}<span
          class="num text-quiet ml-2 font-sans text-[12.5px] font-normal"
        >
          weight {count(c.weight)}</span
        >{/if}
    </p>
    {#if c.description}<p class="text-[13.5px]" dir="auto">
        {@render marked(c.description, other?.description ?? '', side)}
      </p>{/if}
    <ul>
      {#each pair.levels as l, at (at)}
        <li class="num border-hair mt-1 border-t pt-1 text-[13.5px]" dir="auto">
          {#if l[side]}{@render marked(
              text(l[side]),
              other ? text(l[side === 'left' ? 'right' : 'left']) : text(l[side]),
              side,
            )}
          {:else}<span class="text-brick">no such level</span>{/if}
        </li>
      {/each}
    </ul>
  {:else}<p class="text-brick font-semibold">not there</p>{/if}
{/snippet}

<div class="border-hair bg-surface border" data-testid="rubric-seam">
  <div class="border-hair grid grid-cols-[minmax(0,1fr)_96px_minmax(0,1fr)] border-b">
    {#each [left, null, right] as side, at (at)}
      {#if side}<div class="px-3.5 py-2">
          <span class="font-semibold" dir="auto">{side.title}</span>
          <span class="text-quiet block text-[12.5px]">{side.name}</span>
          <span class="num text-[12.5px]"
            >{side.points === null ? 'not scored' : `${count(side.points)} points`}</span
          >
        </div>
      {:else}<div class="border-hair num border-x py-2 text-center text-[12.5px]">
          {#each ['intact', 'altered', 'missing', 'extra'] as const as state (state)}<span class="block"
              ><b>{rows.filter((r) => r.state === state).length}</b> {state}</span
            >{/each}
        </div>{/if}
    {/each}
  </div>
  <ul aria-label="Criteria side by side">
    {#each rows as pair, at (at)}
      <li class="border-hair grid grid-cols-[minmax(0,1fr)_96px_minmax(0,1fr)] border-b last:border-0">
        <div class="px-3.5 py-2.5">{@render pouch(pair, 'left')}</div>
        <div class="border-hair flex items-center border-x">
          <span class="sr-only">{pair.state}</span><Stitch state={pair.state} />
        </div>
        <div class="px-3.5 py-2.5">{@render pouch(pair, 'right')}</div>
      </li>
    {/each}
  </ul>
</div>

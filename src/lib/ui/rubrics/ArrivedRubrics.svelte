<script lang="ts">
  import type { RubricSides, State } from '@alforja/core';
  import Effect from './Effect.svelte';
  import SideBySide from './SideBySide.svelte';

  interface Side {
    readonly title: string;
    readonly points: number | null;
  }
  interface Props {
    rubrics: readonly {
      readonly state: State;
      readonly planned: Side | null;
      readonly arrived: Side | null;
      readonly sides: RubricSides | null;
    }[];
    leftName: string;
    rightName: string;
  }
  let { rubrics, leftName, rightName }: Props = $props();
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div
  class="grid min-h-[160px] grow content-start gap-4 overflow-y-auto"
  role="region"
  aria-label="Rubrics, planned and arrived"
  tabindex="0"
>
  {#each rubrics as r, at (at)}
    {#if r.sides && r.planned && r.arrived}
      {#if r.sides.effect}<Effect effect={r.sides.effect} />{/if}
      <SideBySide
        rows={r.sides.rows}
        left={{ ...r.planned, name: leftName }}
        right={{ ...r.arrived, name: rightName }}
      />
    {:else}<p class="border-hair bg-surface border px-3.5 py-2.5">
        <span class="font-serif text-[16px]" dir="auto">{(r.planned ?? r.arrived)?.title}</span>
        <b class={r.planned ? 'text-brick' : 'text-plum'}
          >{r.planned ? 'has not arrived' : 'is there, and was not planned'}</b
        >
      </p>{/if}
  {/each}
</div>

<script lang="ts">
  import type { Layout, LayoutChoices, QuestionColumn } from '@alforja/core';
  import { layoutOfColumns } from './layoutParts';
  import { COLUMN_NAMES } from './words';

  /** What each column of a table of questions says. */
  let {
    columns,
    busy,
    onlayout,
  }: {
    columns: NonNullable<LayoutChoices['columns']>;
    busy: boolean;
    onlayout: (layout: Layout) => void;
  } = $props();
  const set = (at: number, role: QuestionColumn): void =>
    onlayout(layoutOfColumns(columns.map((c, n) => (n === at ? { ...c, role } : c))));
</script>

{#each columns as { name, role }, at (at)}
  <label class="flex items-center gap-1.5 whitespace-nowrap"
    ><span dir="auto" class="max-w-[160px] truncate">{name}</span>
    <select
      class="border-hair bg-surface text-ink h-7 max-w-[190px] rounded border py-0 pr-7 pl-2 text-[13px]"
      aria-label="What the column {name} says"
      value={role}
      disabled={busy}
      onchange={(e) => set(at, e.currentTarget.value as QuestionColumn)}
      >{#each Object.entries(COLUMN_NAMES) as [to, says] (to)}{#if to !== 'correct' || role === 'correct'}<option
            value={to}>{says}</option
          >{/if}{/each}</select
    ></label
  >
{/each}

<script lang="ts">
  import type { PouchTotals } from '@alforja/core';
  import { count } from '../format';

  let {
    title,
    from,
    totals,
    than = null,
  }: { title: string; from: string; totals: PouchTotals; than?: PouchTotals | null } = $props();
  const names: readonly (readonly [keyof PouchTotals, string])[] = [
    ['items', 'item'],
    ['points', 'point'],
    ['quizzes', 'quiz'],
    ['banks', 'bank'],
    ['draws', 'draw'],
    ['files', 'file'],
    ['rubrics', 'rubric'],
  ];
</script>

<div class="px-3.5 py-2.5 max-md:px-2">
  <div class="flex items-baseline gap-3">
    <h2 class="text-[14px]">{title}</h2>
    <span class="text-quiet ml-auto truncate text-[13px]">{from}</span>
  </div>
  <div class="mt-1 flex flex-wrap gap-x-4 text-[13px]">
    {#each names as [key, name] (key)}
      {@const [mine, other] = [totals[key] ?? 0, than?.[key] ?? 0]}
      {@const by = than ? Number((mine - other).toPrecision(9)) : 0}
      {#if mine > 0 || other > 0}
        <span
          ><span class="num">{count(mine)}</span>
          <span class="text-quiet">{mine === 1 ? name : key}</span>{#if by !== 0}<b
              class="num ml-1 {by < 0 ? 'text-brick' : 'text-plum'}"
              >{by > 0 ? '+' : '−'}{count(Math.abs(by))}</b
            >{/if}</span
        >
      {/if}
    {/each}
  </div>
</div>

<script lang="ts">
  import type { Rubric } from '@alforja/core';
  import { count } from '../format';
  import CriterionCell from './CriterionCell.svelte';
  import LevelCell from './LevelCell.svelte';

  let { rubric, points }: { rubric: Rubric; points: number | null } = $props();
  const widest = $derived(Math.max(1, ...rubric.criteria.map((c) => c.levels.length)));
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="border-hair bg-surface overflow-x-auto border" role="region" aria-label="The rubric" tabindex="0">
  <table class="w-full text-left" style="min-width: {180 + widest * 150}px">
    <tbody>
      {#each rubric.criteria as c, n (n)}
        <tr class="border-hair border-b align-top last:border-0">
          <th
            scope="row"
            class="border-hair bg-surface sticky left-0 w-[200px] border-r px-3 py-2.5 font-normal"
          >
            <CriterionCell criterion={c} mode={rubric.mode} />
          </th>
          {#each c.levels as l, n (n)}
            <td class="border-hair border-r px-3 py-2.5 last:border-r-0">
              <LevelCell level={l} />
            </td>
          {:else}<td class="text-ochre px-3 py-2.5">no levels</td>{/each}
          {#if c.levels.length < widest && c.levels.length > 0}<td colspan={widest - c.levels.length}
            ></td>{/if}
        </tr>
      {/each}
    </tbody>
    <tfoot>
      {#if rubric.freeComments}<tr class="border-hair border-t"
          ><th scope="row" class="px-3 py-2 font-normal">Free comments</th><td
            class="text-quiet px-3 py-2"
            colspan={widest}>graders write their own</td
          ></tr
        >{/if}
      <tr class="border-hair border-t-2"
        ><th scope="row" class="px-3 py-2">Total</th><td class="num px-3 py-2 font-semibold" colspan={widest}
          >{points === null ? 'not scored' : `${count(points)} points`}</td
        ></tr
      >
    </tfoot>
  </table>
</div>

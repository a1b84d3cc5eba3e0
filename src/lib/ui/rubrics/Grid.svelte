<script lang="ts">
  import type { Rubric, RubricLevel } from '@alforja/core';
  import { count } from '../format';

  let { rubric, points }: { rubric: Rubric; points: number | null } = $props();
  const widest = $derived(Math.max(1, ...rubric.criteria.map((c) => c.levels.length)));
  const said = (l: RubricLevel): string =>
    !l.points
      ? ''
      : l.points.low === l.points.high
        ? count(l.points.high)
        : `${count(l.points.low)} to ${count(l.points.high)}`;
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="border-hair bg-surface overflow-x-auto border" role="region" aria-label="The rubric" tabindex="0">
  <table class="w-full text-left" style="min-width: {180 + widest * 150}px">
    <tbody>
      {#each rubric.criteria as c (c.id)}
        <tr class="border-hair border-b align-top last:border-0">
          <th scope="row" class="border-hair w-[200px] border-r px-3 py-2.5 font-normal">
            <span class="block font-serif text-[16px] font-semibold" dir="auto">{c.title}</span>
            {#if c.weight !== null}<span class="num text-quiet text-[12.5px]"
                >weight {count(c.weight)}{rubric.mode === 'percentage' ? ' %' : ''}</span
              >{/if}
            {#if c.description}<span class="item-text block text-[14px]" dir="auto">{c.description}</span
              >{/if}
          </th>
          {#each c.levels as l (l.id)}
            <td class="border-hair border-r px-3 py-2.5 last:border-r-0">
              <span class="flex items-baseline gap-2"
                ><b dir="auto">{l.title}</b>{#if l.points}<span class="num text-saddle ml-auto font-semibold"
                    >{said(l)}</span
                  >{/if}</span
              >
              {#if l.description}<span class="item-text block text-[14.5px] whitespace-pre-line" dir="auto"
                  >{l.description}</span
                >{/if}
              {#if l.feedback}<span class="text-quiet block text-[13px] italic" dir="auto">{l.feedback}</span
                >{/if}
            </td>
          {:else}<td class="text-ochre px-3 py-2.5">no levels</td>{/each}
          {#if c.levels.length < widest && c.levels.length > 0}<td colspan={widest - c.levels.length}
            ></td>{/if}
        </tr>
      {/each}
    </tbody>
    <tfoot>
      <tr class="border-hair border-t-2"
        ><th scope="row" class="px-3 py-2">Total</th><td class="num px-3 py-2 font-semibold" colspan={widest}
          >{points === null ? 'not scored' : `${count(points)} points`}</td
        ></tr
      >
    </tfoot>
  </table>
</div>

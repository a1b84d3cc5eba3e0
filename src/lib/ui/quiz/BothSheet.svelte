<script lang="ts">
  import type { BothView } from '$lib/shared/quizzes';
  import { count } from '../format';
  import Stitch from '../seam/Stitch.svelte';

  /** One candidate's answers and what they score on each side, those that differ first. */
  let { rows }: { rows: BothView['sheet']['rows'] } = $props();
  const state = (row: (typeof rows)[number]): 'missing' | 'altered' | 'intact' =>
    row.arrived === null ? 'missing' : row.differs ? 'altered' : 'intact';
</script>

<table class="w-full table-fixed text-[14px]" data-testid="both-sheet">
  <thead class="text-quiet text-left text-[12.5px]">
    <tr class="border-hair border-b">
      <th scope="col" class="py-1 pr-3 font-normal">Question and answer</th>
      <th scope="col" class="w-[90px] px-3 text-right font-normal">Sent</th>
      <th scope="col" class="w-[70px]"><span class="sr-only">How they hold together</span></th>
      <th scope="col" class="w-[90px] px-3 text-left font-normal">Arrived</th>
    </tr>
  </thead>
  <tbody>
    {#each rows as row, n (n)}<tr class="border-hair border-b">
        <th scope="row" class="min-w-0 py-1.5 pr-3 text-left font-normal">
          <span class="line-clamp-1 font-serif text-[15px]" dir="auto">{row.name}</span>
          <span class="text-quiet line-clamp-1 text-[13px]" dir="auto"
            >{row.answer.length > 0 ? row.answer.join('; ') : 'no answer'}</span
          >
        </th>
        <td class="num px-3 text-right">{count(row.source)}</td>
        <td class="h-10 p-0"><Stitch state={state(row)} /></td>
        <td class="num px-3 text-left {row.differs ? 'text-ochre font-semibold' : ''}"
          >{row.arrived === null ? 'not there' : count(row.arrived)}</td
        >
      </tr>{/each}
  </tbody>
</table>

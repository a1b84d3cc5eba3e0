<script lang="ts">
  import type { EChartsCoreOption } from 'echarts/core';
  import Chart from '../charts/Chart.svelte';
  import { decal, type Ink } from '../charts/ink';
  import { count } from '../format';
  import { TERM_STATE_NAMES, TERM_STATES, type TermCounts, type TermState } from './terms';

  let { terms }: { terms: readonly TermCounts[] } = $props();
  const ROW = 26;
  const COLOURS = { done: 'saddle', open: 'ochre', stopped: 'brick', begun: 'plum', none: 'hair' } as const;
  const shown = $derived<TermState[]>(TERM_STATES.filter((s) => terms.some((t) => t.counts[s] > 0)));
  const says = $derived(
    `Courses by state: ${terms
      .map(
        (t) =>
          `${t.term || 'no term'}: ${shown.map((s) => `${count(t.counts[s])} ${TERM_STATE_NAMES[s]}`).join(', ')}`,
      )
      .join('; ')}`,
  );
  const draw = (ink: Ink): EChartsCoreOption => ({
    grid: { left: 4, right: 16, top: 24, bottom: 2, containLabel: true },
    legend: { top: 0, left: 0, textStyle: ink.text, itemWidth: 16, itemHeight: 10 },
    xAxis: { type: 'value', show: false },
    yAxis: {
      type: 'category',
      inverse: true,
      data: terms.map((t) => t.term || 'no term'),
      axisTick: { show: false },
      axisLine: { show: false },
      axisLabel: ink.text,
    },
    series: shown.map((s, at) => ({
      name: TERM_STATE_NAMES[s],
      type: 'bar',
      stack: 'states',
      barWidth: 12,
      data: terms.map((t) => t.counts[s]),
      itemStyle: { color: ink.colour(COLOURS[s]), ...decal(at) },
    })),
  });
</script>

<figure class="border-hair bg-surface mb-3 border px-4 py-2">
  <Chart {draw} {says} height={terms.length * ROW + 30} />
  <details class="text-[13px]">
    <summary class="text-quiet cursor-pointer">As a table</summary>
    <table class="mt-1">
      <thead>
        <tr
          ><td></td>{#each shown as s (s)}<th class="px-3 text-right font-semibold">{TERM_STATE_NAMES[s]}</th
            >{/each}</tr
        >
      </thead>
      <tbody>
        {#each terms as t (t.term)}<tr class="border-hair border-t"
            ><th scope="row" class="py-0.5 pr-3 text-left font-normal">{t.term || 'no term'}</th
            >{#each shown as s (s)}<td class="num px-3 text-right">{count(t.counts[s])}</td>{/each}</tr
          >{/each}
      </tbody>
    </table>
  </details>
</figure>

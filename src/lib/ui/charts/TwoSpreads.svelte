<script lang="ts">
  import type { EChartsCoreOption } from 'echarts/core';
  import type { Distribution } from '@alforja/core';
  import Chart from './Chart.svelte';
  import { decal, type Ink, legendAbove, namesAxis } from './ink';
  import { about, columnsOfBoth, percent } from './spread';

  interface Named {
    readonly name: string;
    readonly spread: Distribution;
  }
  /** Two spreads of the same count, one over the other. */
  let { title, unit, first, second }: { title: string; unit: string; first: Named; second: Named } = $props();
  const columns = $derived(columnsOfBoth(first.spread, second.spread));
  const says = $derived(
    `${title}: ${[first, second].map((s) => `${s.name} on average ${about(s.spread.mean)} ${unit}`).join(', ')}; ` +
      columns
        .filter((c) => c.chances[0] !== c.chances[1])
        .map((c) => `${c.name} ${percent(c.chances[0])} and ${percent(c.chances[1])}`)
        .join(', '),
  );
  const draw = (ink: Ink): EChartsCoreOption => ({
    grid: { left: 4, right: 8, top: 26, bottom: 2, containLabel: true },
    legend: legendAbove(ink),
    xAxis: namesAxis(
      ink,
      columns.map((c) => c.name),
    ),
    yAxis: { type: 'value', show: false },
    series: [first, second].map(({ name }, at) => ({
      name,
      type: 'bar',
      barGap: '-70%',
      data: columns.map((c) => c.chances[at]),
      itemStyle: { color: ink.colour(at === 0 ? 'saddle' : 'agave'), ...decal(at) },
    })),
  });
</script>

<figure class="min-w-0">
  <figcaption class="mb-1 text-[13.5px]">
    <b>{title}</b>
    <span class="text-quiet"
      >{[first, second]
        .map((s) => `${s.name}: on average ${about(s.spread.mean)}, spread ${about(s.spread.deviation)}`)
        .join('; ')}</span
    >
  </figcaption>
  <Chart {draw} {says} height={180} />
  <details class="text-[13px]">
    <summary class="text-quiet cursor-pointer">As a table</summary>
    <table class="mt-1">
      <tbody>
        {#each columns as c, n (n)}<tr class="border-hair border-b"
            ><th scope="row" class="num py-0.5 pr-6 text-left font-normal">{c.name} {unit}</th><td
              class="num pr-6 text-right">{percent(c.chances[0])}</td
            ><td class="num text-right">{percent(c.chances[1])}</td></tr
          >{/each}
      </tbody>
    </table>
  </details>
</figure>

<script lang="ts">
  import type { EChartsCoreOption } from 'echarts/core';
  import type { Distribution } from '@alforja/core';
  import Chart from './Chart.svelte';
  import { type Ink, namesAxis } from './ink';
  import { about, columnsOf, percent } from './spread';

  interface Props {
    title: string;
    /** What the values count: "points", "minutes". */
    unit: string;
    spread: Distribution;
  }
  let { title, unit, spread }: Props = $props();
  const columns = $derived(columnsOf(spread));
  const says = $derived(
    `${title}: on average ${about(spread.mean)} ${unit}; ${columns.map((c) => `${c.name} ${percent(c.chance)}`).join(', ')}`,
  );
  const draw = (ink: Ink): EChartsCoreOption => ({
    grid: { left: 4, right: 8, top: 18, bottom: 2, containLabel: true },
    xAxis: namesAxis(
      ink,
      columns.map((c) => c.name),
    ),
    yAxis: { type: 'value', show: false },
    series: [
      {
        type: 'bar',
        barMaxWidth: 34,
        data: columns.map((c) => c.chance),
        itemStyle: { color: ink.colour('saddle') },
        label: {
          ...ink.text,
          show: columns.length <= 14,
          position: 'top',
          formatter: ({ value }: { value: number }) => percent(value),
        },
      },
    ],
  });
</script>

<figure class="min-w-0">
  <figcaption class="mb-1 text-[13.5px]">
    <b>{title}</b>
    <span class="text-quiet">on average {about(spread.mean)} {unit}, spread {about(spread.deviation)}</span>
  </figcaption>
  <Chart {draw} {says} height={150} />
  <details class="text-[13px]">
    <summary class="text-quiet cursor-pointer">As a table</summary>
    <table class="mt-1 w-full">
      <tbody>
        {#each columns as c (c.name)}<tr class="border-hair border-b"
            ><th scope="row" class="num py-0.5 pr-3 text-left font-normal">{c.name} {unit}</th><td
              class="num text-right">{percent(c.chance)}</td
            ></tr
          >{/each}
      </tbody>
    </table>
  </details>
</figure>

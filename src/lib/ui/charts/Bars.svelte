<script lang="ts">
  import type { EChartsCoreOption } from 'echarts/core';
  import { count } from '../format';
  import Chart from './Chart.svelte';
  import { type Ink, namesAxis } from './ink';

  interface Bar {
    readonly name: string;
    readonly value: number;
  }
  interface Props {
    title: string;
    /** What the values count: "points", "items". */
    unit: string;
    bars: readonly Bar[];
    colour?: 'saddle' | 'ochre';
  }
  let { title, unit, bars, colour = 'saddle' }: Props = $props();
  const MOST = 12;
  const ROW = 24;
  /** The largest ones, and all others as one: a picture of fifty bars tells nothing. */
  const shown = $derived(
    bars.length <= MOST
      ? bars
      : [
          ...bars.slice(0, MOST - 1),
          {
            name: `${bars.length - MOST + 1} others`,
            value: bars.slice(MOST - 1).reduce((sum, b) => sum + b.value, 0),
          },
        ],
  );
  const says = $derived(`${title}: ${shown.map((b) => `${b.name} ${count(b.value)}`).join(', ')} ${unit}`);
  const draw = (ink: Ink): EChartsCoreOption => ({
    grid: { left: 4, right: 44, top: 2, bottom: 2, containLabel: true },
    xAxis: { type: 'value', show: false },
    yAxis: {
      ...namesAxis(
        ink,
        shown.map((b) => b.name),
        { width: 170, overflow: 'truncate' },
      ),
      inverse: true,
    },
    series: [
      {
        type: 'bar',
        barWidth: 12,
        data: shown.map((b) => b.value),
        itemStyle: { color: ink.colour(colour) },
        label: {
          ...ink.text,
          show: true,
          position: 'right',
          formatter: ({ value }: { value: number }) => count(value),
        },
      },
    ],
  });
</script>

<figure class="min-w-0">
  <figcaption class="mb-1 text-[13.5px] font-semibold">{title}</figcaption>
  <Chart {draw} {says} height={shown.length * ROW + 6} />
  <details class="text-[13px]">
    <summary class="text-quiet cursor-pointer">As a table</summary>
    <table class="mt-1 w-full">
      <tbody>
        {#each bars as bar, at (at)}<tr class="border-hair border-b"
            ><th scope="row" class="py-0.5 pr-3 text-left font-normal" dir="auto">{bar.name}</th><td
              class="num text-right">{count(bar.value)} {unit}</td
            ></tr
          >{/each}
      </tbody>
    </table>
  </details>
</figure>

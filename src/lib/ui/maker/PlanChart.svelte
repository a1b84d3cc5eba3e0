<script lang="ts">
  import type { EChartsCoreOption } from 'echarts/core';
  import type { Plan } from '@alforja/core';
  import type { MakerView } from '$lib/shared/making';
  import Chart from '../charts/Chart.svelte';
  import { decal, type Ink, legendAbove, namesAxis } from '../charts/ink';
  import { count, KIND_NAMES } from '../format';

  /** Points by category and by kind: what the quiz gives beside what the plan says. */
  let { plan, view }: { plan: Plan; view: MakerView } = $props();
  interface Bar {
    readonly name: string;
    readonly planned: number;
    readonly given: number;
  }
  function bars(by: 'category' | 'kind', given: MakerView['kinds'], named: (name: string) => string): Bar[] {
    const planned = new Map<string, number>();
    for (const c of plan.cells) planned.set(c[by], (planned.get(c[by]) ?? 0) + c.count * c.points);
    const has = new Map(given.map(([name, , points]) => [name, points]));
    return [...new Set([...planned.keys(), ...has.keys()])].map((name) => ({
      name: named(name),
      planned: planned.get(name) ?? 0,
      given: Math.round((has.get(name) ?? 0) * 10) / 10,
    }));
  }
  const charts = $derived([
    { title: 'Points by category', bars: bars('category', view.categories, (n) => n || 'No category') },
    { title: 'Points by kind', bars: bars('kind', view.kinds, (n) => KIND_NAMES[n] ?? n) },
  ]);
  const says = (title: string, all: readonly Bar[]): string =>
    `${title}: ${all.map((b) => `${b.name} ${count(b.given)}, planned ${count(b.planned)}`).join('; ')}`;
  const ROW = 40;
  const drawn =
    (all: readonly Bar[]) =>
    (ink: Ink): EChartsCoreOption => ({
      grid: { left: 4, right: 34, top: 24, bottom: 2, containLabel: true },
      legend: legendAbove(ink),
      xAxis: { type: 'value', show: false },
      yAxis: {
        ...namesAxis(
          ink,
          all.map((b) => b.name),
          { width: 120, overflow: 'truncate' },
        ),
        inverse: true,
      },
      series: [
        { name: 'planned', of: (b: Bar) => b.planned, colour: 'saddle', at: 1 },
        { name: 'as it stands', of: (b: Bar) => b.given, colour: 'agave', at: 0 },
      ].map(({ name, of, colour, at }) => ({
        name,
        type: 'bar',
        barWidth: 10,
        data: all.map(of),
        itemStyle: { color: ink.colour(colour as 'agave'), ...decal(at) },
        label: {
          ...ink.text,
          show: true,
          position: 'right',
          formatter: ({ value }: { value: number }) => count(value),
        },
      })),
    });
</script>

<div class="mt-4 grid gap-4 sm:grid-cols-2">
  {#each charts as chart (chart.title)}<figure class="min-w-0">
      <figcaption class="text-[13px] font-semibold">{chart.title}</figcaption>
      <Chart
        draw={drawn(chart.bars)}
        says={says(chart.title, chart.bars)}
        height={chart.bars.length * ROW + 30}
      />
    </figure>{/each}
</div>

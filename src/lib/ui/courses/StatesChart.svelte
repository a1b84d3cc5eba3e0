<script lang="ts">
  import { onMount } from 'svelte';
  import type { ECharts } from 'echarts/core';

  interface Row {
    readonly at: number;
    readonly source: string;
    readonly counts: {
      readonly intact: number;
      readonly altered: number;
      readonly missing: number;
      readonly extra: number;
    } | null;
  }
  let { rows }: { rows: readonly Row[] } = $props();
  let box = $state<HTMLElement | null>(null);
  let chart = $state.raw<ECharts | null>(null);
  const STATES = ['intact', 'altered', 'missing', 'extra'] as const;
  const says = $derived(
    STATES.map((s) => `${rows.reduce((sum, r) => sum + (r.counts?.[s] ?? 0), 0)} ${s}`).join(', '),
  );

  onMount(() => {
    let gone = false;
    const resize = (): void => chart?.resize();
    void (async () => {
      const [
        { init, use },
        { BarChart },
        { GridComponent, LegendComponent, TooltipComponent },
        { SVGRenderer },
      ] = await Promise.all([
        import('echarts/core'),
        import('echarts/charts'),
        import('echarts/components'),
        import('echarts/renderers'),
      ]);
      if (gone || !box) return;
      use([BarChart, GridComponent, LegendComponent, TooltipComponent, SVGRenderer]);
      chart = init(box, null, { renderer: 'svg' });
      window.addEventListener('resize', resize);
    })();
    return () => {
      gone = true;
      window.removeEventListener('resize', resize);
      chart?.dispose();
    };
  });
  $effect(() => {
    if (!chart || !box) return;
    const style = getComputedStyle(box);
    const colour = (name: string): string => style.getPropertyValue(`--${name}`).trim();
    const colours = {
      intact: colour('saddle'),
      altered: colour('ochre'),
      missing: colour('brick'),
      extra: colour('plum'),
    };
    // Colour is never alone: each state has a pattern of its own.
    const decals = { intact: null, altered: 'rect', missing: 'triangle', extra: 'circle' } as const;
    const text = { color: colour('ink'), fontFamily: style.fontFamily, fontSize: 12 };
    chart.setOption(
      {
        animation: false,
        grid: { left: 8, right: 8, top: 34, bottom: 4, containLabel: true },
        legend: { top: 0, left: 0, textStyle: text, itemWidth: 16, itemHeight: 10 },
        tooltip: { trigger: 'axis', axisPointer: { type: 'shadow' } },
        xAxis: {
          type: 'category',
          data: rows.map((r) => r.source.split(',')[0]),
          axisLabel: { ...text, interval: 0, hideOverlap: true, width: 90, overflow: 'truncate' },
        },
        yAxis: { type: 'value', axisLabel: text, splitLine: { lineStyle: { color: colour('hair') } } },
        series: STATES.map((s) => ({
          name: s,
          type: 'bar',
          stack: 'states',
          data: rows.map((r) => r.counts?.[s] ?? 0),
          itemStyle: {
            color: colours[s],
            ...(decals[s]
              ? { decal: { symbol: decals[s], color: 'rgba(255,255,255,0.55)', symbolSize: 0.6 } }
              : {}),
          },
        })),
      },
      { notMerge: true },
    );
  });
</script>

<figure class="border-hair bg-surface border px-3 py-2">
  <div bind:this={box} class="h-[200px]" role="img" aria-label="Questions by course and state: {says}"></div>
</figure>

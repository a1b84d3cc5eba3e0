<script lang="ts">
  import { onMount } from 'svelte';
  import type { ECharts, EChartsCoreOption } from 'echarts/core';
  import { inkOf, type Ink } from './ink';

  interface Props {
    /** What is drawn, in the colours of the page as it stands. */
    draw: (ink: Ink) => EChartsCoreOption;
    /** The same in words, for those who do not see it. */
    says: string;
    height: number;
  }
  let { draw, says, height }: Props = $props();
  let box = $state<HTMLElement | null>(null);
  let chart = $state.raw<ECharts | null>(null);
  /** Counts changes of the theme, whose colours the picture takes. */
  let theme = $state(0);

  onMount(() => {
    let gone = false;
    const size = new ResizeObserver(() => chart?.resize());
    const themed = new MutationObserver(() => (theme += 1));
    themed.observe(document.documentElement, { attributeFilter: ['class'] });
    void (async () => {
      // In the browser only, and only the parts used: the whole library is ten times as large.
      const [{ init, use }, { BarChart }, parts, { SVGRenderer }] = await Promise.all([
        import('echarts/core'),
        import('echarts/charts'),
        import('echarts/components'),
        import('echarts/renderers'),
      ]);
      if (gone || !box) return;
      use([BarChart, parts.GridComponent, parts.LegendComponent, parts.TooltipComponent, SVGRenderer]);
      chart = init(box, null, { renderer: 'svg' });
      size.observe(box);
    })();
    return () => {
      gone = true;
      size.disconnect();
      themed.disconnect();
      chart?.dispose();
    };
  });
  $effect(() => {
    void theme;
    if (chart && box) chart.setOption({ animation: false, ...draw(inkOf(box)) }, { notMerge: true });
  });
  $effect(() => {
    void height;
    chart?.resize();
  });
</script>

<div bind:this={box} style="height: {height}px" role="img" aria-label={says}></div>

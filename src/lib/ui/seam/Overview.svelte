<script lang="ts">
  import type { State } from '@alforja/core';

  /** `rows` is how many there are, `stateAt` how each stands. */
  interface Props {
    rows: number;
    stateAt: (index: number) => State;
    go: (index: number) => void;
  }
  let { rows, stateAt, go }: Props = $props();
  let canvas = $state<HTMLCanvasElement | null>(null);
  let height = $state(0);

  // One mark an item; where there are more items than pixels, the most troubled of each pixel shows.
  const worst: Record<State, number> = { intact: 0, extra: 1, altered: 2, missing: 3 };
  $effect(() => {
    const context = canvas?.getContext('2d');
    if (!canvas || !context || height === 0) return;
    const style = getComputedStyle(canvas);
    const colour = (state: State): string =>
      style.getPropertyValue(
        { intact: '--hair', altered: '--ochre', missing: '--brick', extra: '--plum' }[state],
      );
    canvas.height = height;
    context.clearRect(0, 0, canvas.width, height);
    const slot = Math.min(14, height / Math.max(1, rows));
    const marks = new Map<number, State>();
    for (let at = 0; at < rows; at++) {
      const state = stateAt(at);
      const y = slot >= 2 ? at : Math.floor(at * slot);
      const had = marks.get(y);
      if (!had || worst[state] > worst[had]) marks.set(y, state);
    }
    for (const [y, state] of marks) {
      context.fillStyle = colour(state);
      const top = slot >= 2 ? y * slot : y;
      const tall = slot >= 2 ? Math.max(1, slot - 3) : 1;
      if (state === 'missing') context.fillRect(0, top, 7, tall);
      else if (state === 'extra') context.fillRect(9, top, 7, tall);
      else if (state === 'altered') {
        context.fillRect(0, top, 6, tall);
        context.fillRect(10, top, 6, tall);
      } else context.fillRect(0, top, 16, tall);
    }
  });
  function jump(event: MouseEvent): void {
    const slot = Math.min(14, height / Math.max(1, rows));
    go(Math.floor(event.offsetY / slot));
  }
</script>

<!-- A picture of the whole list for the mouse; the keyboard has N, Home and End in the list itself. -->
<div class="border-hair relative w-[27px] shrink-0 border-l py-1.5 max-md:hidden" aria-hidden="true">
  <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
  <div class="h-full cursor-pointer" bind:clientHeight={height} onclick={jump}>
    <canvas bind:this={canvas} width="16" class="pointer-events-none absolute left-[5px]"></canvas>
  </div>
</div>

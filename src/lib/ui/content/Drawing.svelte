<script lang="ts">
  import type { DrawingInteraction } from '@alforja/core';
  import Content from './Content.svelte';
  import { fileAddress, type Showing } from './answers.svelte';

  let { interaction, show }: { interaction: DrawingInteraction; show: Showing } = $props();
  const live = $derived(show.sheet?.live ?? false);
  const width = $derived(interaction.picture.width ?? 400);
  const height = $derived(interaction.picture.height ?? 260);
  let canvas = $state<HTMLCanvasElement | null>(null);
  let drawing = false;
  const handed = $derived((show.sheet?.of(interaction.responseId).length ?? 0) > 0);

  function at(event: PointerEvent): [number, number] {
    const box = canvas!.getBoundingClientRect();
    return [
      ((event.clientX - box.left) * width) / box.width,
      ((event.clientY - box.top) * height) / box.height,
    ];
  }
  function start(event: PointerEvent): void {
    const pen = canvas?.getContext('2d');
    if (!live || !pen) return;
    drawing = true;
    pen.strokeStyle = getComputedStyle(canvas!).getPropertyValue('--brick');
    pen.lineWidth = 2;
    pen.beginPath();
    pen.moveTo(...at(event));
  }
  function move(event: PointerEvent): void {
    const pen = canvas?.getContext('2d');
    if (!drawing || !pen) return;
    pen.lineTo(...at(event));
    pen.stroke();
  }
  function stop(): void {
    if (drawing) show.sheet?.set(interaction.responseId, ['file']);
    drawing = false;
  }
  function clear(): void {
    canvas?.getContext('2d')?.clearRect(0, 0, width, height);
    show.sheet?.set(interaction.responseId, []);
  }
</script>

<Content nodes={interaction.prompt} {show} />
<div class="relative mt-2 inline-block max-w-full">
  <img
    src={fileAddress(show.files, interaction.picture.src)}
    alt={interaction.picture.alt}
    {width}
    {height}
  />
  <canvas
    bind:this={canvas}
    {width}
    {height}
    class="absolute inset-0 h-full w-full touch-none {live ? 'cursor-crosshair' : ''}"
    onpointerdown={start}
    onpointermove={move}
    onpointerup={stop}
    onpointerleave={stop}
  ></canvas>
</div>
<p class="font-sans text-[13.5px]">
  <button type="button" class="act disabled:text-quiet" disabled={!live || !handed} onclick={clear}
    >Clear</button
  >
  <button
    type="button"
    class="act disabled:text-quiet ml-3"
    disabled={!live || handed}
    onclick={() => show.sheet?.set(interaction.responseId, ['file'])}>Hand in as it is</button
  >
</p>

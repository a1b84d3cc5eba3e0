<script lang="ts">
  import type { DraftDraw, DraftSection } from '@alforja/core';
  import { count } from '../format';
  import type { Maker } from './maker.svelte';

  /** What a section draws: how many, out of what, worth how much each. */
  let { maker, section, draw }: { maker: Maker; section: DraftSection; draw: DraftDraw } = $props();
  const weighed = $derived(maker.view.sections.find((s) => s.id === section.id));
  function set(to: Partial<DraftDraw>): void {
    maker.do({ do: 'draw', section: section.id, to });
  }
  function pick(text: string): void {
    const to = Math.round(Number(text));
    if (Number.isFinite(to) && to >= 0) set({ pick: to });
  }
  function each(text: string): void {
    const to = text.trim() === '' ? null : Number(text);
    if (to === null || (Number.isFinite(to) && to >= 0)) set({ pointsEach: to });
  }
  const field =
    'num border-hair bg-surface text-ink h-8 w-[62px] rounded border px-1.5 text-right text-[14px]';
</script>

<div class="border-hair flex flex-wrap items-center gap-x-2 gap-y-1 border-b py-2">
  <label class="flex items-center gap-2"
    >Draw <input
      type="number"
      min="0"
      value={draw.pick}
      onchange={(e) => pick(e.currentTarget.value)}
      class={field}
    /></label
  >
  <span>of <b class="num">{weighed?.pool ?? '…'}</b>,</span>
  <label class="flex items-center gap-2"
    ><input
      type="number"
      min="0"
      step="any"
      placeholder="as is"
      value={draw.pointsEach ?? ''}
      onchange={(e) => each(e.currentTarget.value)}
      class="{field} placeholder:text-quiet"
    /> points each</label
  >
  {#if draw.pointsEach === null && weighed}<span class="text-quiet text-[13px]"
      >as each is worth by itself: {weighed.least === weighed.most
        ? count(weighed.least)
        : `${count(weighed.least)} to ${count(weighed.most)}`} in all</span
    >{/if}
  <span class="text-quiet basis-full text-[13px]" dir="auto">out of {weighed?.pooled ?? '…'}</span>
</div>

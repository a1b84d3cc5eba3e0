<script lang="ts">
  import type { RubricLevel } from '@alforja/core';
  import { count } from '../format';

  let { level: l }: { level: RubricLevel } = $props();
  const said = $derived(!l.points ? '' : l.points.low === l.points.high ? count(l.points.high) : `${count(l.points.low)} to ${count(l.points.high)}`); // prettier-ignore
</script>

<span class="flex items-baseline gap-2"
  ><b dir="auto">{l.title}</b>{#if l.points}<span class="num text-saddle ml-auto font-semibold">{said}</span
    >{/if}</span
>
{#if l.description}<span class="block font-serif text-[14.5px] leading-snug whitespace-pre-line" dir="auto"
    >{l.description}</span
  >{/if}
{#if l.feedback}<span class="text-quiet block text-[13px] italic" dir="auto">{l.feedback}</span>{/if}

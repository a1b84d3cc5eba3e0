<script lang="ts">
  import type { RubricLevel } from '@alforja/core';
  import { pointsRange } from '../format';

  let { level: l }: { level: RubricLevel } = $props();
</script>

<span class="flex items-baseline gap-2"
  ><b dir="auto">{l.title}</b>{#if l.points}<span class="num text-saddle ml-auto font-semibold"
      >{pointsRange(l.points)}</span
    >{/if}</span
>
{#if l.description}<span class="block font-serif text-[14.5px] leading-snug whitespace-pre-line" dir="auto"
    >{l.description}</span
  >{/if}
{#if l.feedback}<span class="text-quiet block text-[13px] italic" dir="auto">{l.feedback}</span>{/if}

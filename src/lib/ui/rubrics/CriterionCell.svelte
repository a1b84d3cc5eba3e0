<script lang="ts">
  import type { Criterion, RubricMode } from '@alforja/core';
  import { count } from '../format';

  let { criterion: c, mode }: { criterion: Criterion; mode: RubricMode } = $props();
</script>

<span class="block font-serif text-[16px] font-semibold" dir="auto">{c.title}</span>
{#if c.weight !== null}<span class="num text-quiet text-[12.5px]"
    >weight {count(c.weight)}{mode === 'percentage' ? ' %' : ''}</span
  >{/if}
{#if c.description}<span class="block font-serif text-[14px] leading-snug" dir="auto">{c.description}</span
  >{/if}

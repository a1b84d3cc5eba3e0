<script lang="ts">
  import type { GradeEffect } from '@alforja/core';
  import { count } from '../format';

  let { effect }: { effect: GradeEffect } = $props();
</script>

<p class="text-ochre" data-testid="effect">
  The same ticks ({effect.ticks.join(', ')}): {count(effect.from)} of {count(effect.outOf[0])} at the left, {count(
    effect.to,
  )} of {count(effect.outOf[1])} at the right.
</p>

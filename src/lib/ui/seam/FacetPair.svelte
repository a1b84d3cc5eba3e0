<script lang="ts">
  import type { Difference } from '@alforja/core';
  import Facet from './Facet.svelte';
  import { showsScore } from './rows';

  /** Both sides of one difference, and what is said of it between them. */
  let { difference, purpose = false }: { difference: Difference; purpose?: boolean } = $props();
  const between = $derived(
    purpose
      ? 'changed on purpose'
      : !difference.example
        ? ''
        : showsScore(difference)
          ? 'same answer, other score'
          : 'same answer, other feedback',
  );
</script>

<div class="px-3.5 pl-[76px] max-md:pl-2"><Facet {difference} side="from" /></div>
<div
  class="border-hair grid place-items-center border-x px-1 text-center text-[12px] leading-tight font-semibold {purpose
    ? 'text-saddle'
    : 'text-ochre'}"
>
  {between}
</div>
<div class="px-3.5 pl-[76px] max-md:pl-2"><Facet {difference} side="to" /></div>

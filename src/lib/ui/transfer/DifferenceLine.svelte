<script lang="ts">
  import type { JudgedDifference } from '$lib/shared/transfers';
  import { readable } from '../format';
  import Accept from './Accept.svelte';
  import { mendWords } from './differences';

  interface Props {
    d: JudgedDifference;
    running: boolean;
    onmend: () => void;
    onaccept: (reason: string) => Promise<void>;
  }
  let { d, running, onmend, onaccept }: Props = $props();
</script>

<li
  class="border-hair grid grid-cols-[minmax(0,1fr)_minmax(0,1.5fr)_minmax(200px,max-content)] items-baseline gap-x-4 border-b px-4 py-1.5 last:border-0 max-md:grid-cols-1"
>
  <span class="truncate font-serif text-[15px]" dir="auto" title={d.what}>{d.what}</span>
  <span class="text-[13.5px]"
    ><span class="text-quiet">planned</span>
    {readable(d.planned) || 'nothing'}
    <span class="text-quiet">· found</span>
    <b class="text-brick">{readable(d.found) || 'nothing'}</b></span
  >
  <span class="flex items-baseline justify-end gap-4 whitespace-nowrap text-[13.5px] max-md:justify-start">
    {#if d.mend}<button
        type="button"
        class="act disabled:text-quiet min-h-6"
        disabled={running}
        onclick={onmend}>{mendWords[d.mend]}<span class="sr-only">: {d.what}</span></button
      >{/if}
    <Accept what={d.what} {onaccept} />
  </span>
</li>

<script lang="ts">
  import type { ItemView } from '$lib/shared/types';
  import { count } from '../format';

  /** Answers and what they score, best first. */
  let { lines }: { lines: ItemView['table'] } = $props();
</script>

{#if lines.length > 0}
  <table class="w-full max-w-[560px] text-[13.5px]">
    <caption class="sr-only">Answers and what they score</caption>
    <tbody>
      {#each lines as line, n (n)}
        <tr class="border-hair border-b"
          ><th scope="row" class="py-1 pr-4 text-left font-normal" dir="auto">{line.answer}</th><td
            class="num w-16 py-1 text-right">{count(line.score)}</td
          ></tr
        >
      {/each}
    </tbody>
  </table>
{/if}

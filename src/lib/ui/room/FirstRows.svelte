<script lang="ts">
  import type { FirstRow } from '$lib/shared/types';
  import KindIcon from '../KindIcon.svelte';

  /** What a package begins with, shown while the rest is read. */
  let { rows }: { rows: readonly FirstRow[] } = $props();
</script>

<section
  class="mx-auto mt-6 flex min-h-0 w-[760px] max-w-full grow flex-col px-6 pb-6"
  aria-labelledby="first-rows"
>
  <h2 id="first-rows" class="mb-1.5 text-[14px]">It begins with</h2>
  <ol class="border-hair bg-surface min-h-0 grow overflow-y-auto border" data-testid="first-rows">
    {#each rows as row, n (n)}
      <li class="border-hair flex h-[34px] items-center gap-2.5 border-b px-3.5 last:border-0">
        <span class="num text-quiet w-7 shrink-0 text-right text-[12.5px]">{n + 1}</span>
        <KindIcon kind={row.kind} />
        <span class="truncate font-serif text-[15px]" dir="auto">{row.name}</span>
      </li>
    {/each}
  </ol>
</section>

<script lang="ts">
  import { onMount } from 'svelte';
  import Upload from '@lucide/svelte/icons/upload';
  import { bringFiles } from '../live.svelte';
  import PasteQuestions from './PasteQuestions.svelte';

  let { title, hint }: { title: string; hint: string } = $props();
  let input = $state<HTMLInputElement | null>(null);
  let pasting = $state(false);

  const take = (): Promise<void> =>
    bringFiles(input?.files).then(() => {
      if (input) input.value = '';
    });
  // Files can be chosen before the page's scripts are there.
  onMount(take);
</script>

<div
  class="border-saddle/50 bg-surface flex items-center gap-4 rounded border border-dashed px-4 py-3 max-md:flex-wrap"
>
  <Upload size={20} class="text-saddle shrink-0" aria-hidden="true" />
  <div class="min-w-0 grow basis-[240px]">
    <div class="font-semibold">{title}</div>
    <div class="text-quiet text-[13px]">{hint}</div>
  </div>
  <button type="button" class="act shrink-0 text-[13.5px]" onclick={() => (pasting = true)}
    >Paste text…</button
  >
  <label
    class="border-hair bg-surface focus-within:outline-agave hover:bg-band inline-flex h-[30px] shrink-0 cursor-pointer items-center rounded border px-3 text-[13.5px] font-semibold focus-within:outline-2"
  >
    Choose files…
    <input bind:this={input} type="file" multiple class="sr-only" onchange={take} />
  </label>
</div>
{#if pasting}<PasteQuestions close={() => (pasting = false)} />{/if}

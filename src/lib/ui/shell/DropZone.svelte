<script lang="ts">
  import Upload from '@lucide/svelte/icons/upload';
  import { bringFiles } from '../live.svelte';

  let { title, hint }: { title: string; hint: string } = $props();
  let input = $state<HTMLInputElement | null>(null);
</script>

<div class="border-saddle/50 bg-surface flex items-center gap-4 rounded border border-dashed px-5 py-5">
  <Upload size={22} class="text-saddle shrink-0" aria-hidden="true" />
  <div>
    <div class="text-[15px] font-semibold">{title}</div>
    <div class="text-quiet">{hint}</div>
  </div>
  <label
    class="border-hair bg-surface focus-within:outline-agave ml-auto cursor-pointer rounded border px-4 py-1.5 font-semibold focus-within:outline-2 hover:bg-band"
  >
    Choose files…
    <input
      bind:this={input}
      type="file"
      multiple
      class="sr-only"
      onchange={() => bringFiles(input?.files).then(() => input && (input.value = ''))}
    />
  </label>
</div>

<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import { thrown } from '../thrown.svelte';
</script>

{#if thrown.last || thrown.trouble}
  <div class="border-hair bg-surface flex items-baseline gap-3 rounded border p-3 shadow-lg">
    <div class="min-w-0">
      {#if thrown.trouble}<div class="text-brick">{thrown.trouble}</div>{/if}
      {#if thrown.last}<div>
          Thrown away: <span class="font-semibold break-words">{thrown.last.name}</span>.
          <button type="button" class="act" onclick={() => thrown.undo()}>Undo</button>
          <a class="act ml-2" href="/trash" onclick={() => thrown.dismiss()}>Thrown away…</a>
        </div>{/if}
    </div>
    <button
      type="button"
      class="text-quiet hover:text-ink ml-auto p-1"
      aria-label="Dismiss this note"
      onclick={() => thrown.dismiss()}><X size={15} /></button
    >
  </div>
{/if}

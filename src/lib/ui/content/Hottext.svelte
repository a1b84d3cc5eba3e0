<script lang="ts">
  import { optionSets, optionText, type HottextInteraction } from '@alforja/core';
  import Content from './Content.svelte';
  import type { Showing } from './answers.svelte';

  let { interaction, show }: { interaction: HottextInteraction; show: Showing } = $props();
  const live = $derived(show.sheet?.live ?? false);
  const single = $derived(!show.several.has(interaction.responseId));
  const options = $derived(optionSets(interaction)[0] ?? []);
  const picked = (id: string): boolean => show.sheet?.of(interaction.responseId).includes(id) ?? false;
</script>

<fieldset class="mt-3">
  <legend class="mb-1"><Content nodes={interaction.prompt} {show} /></legend>
  <Content nodes={interaction.content} {show} />
  <div class="mt-2 flex flex-wrap gap-2 font-sans text-[14px]" role="group" aria-label="Words to pick">
    {#each options as option, n (n)}
      <button
        type="button"
        aria-pressed={picked(option.id)}
        disabled={!live}
        class="border-hair aria-pressed:bg-band aria-pressed:border-saddle rounded border px-2 py-0.5 {show.keyed.has(
          option.id,
        ) && !live
          ? 'text-saddle font-semibold'
          : ''}"
        onclick={() => show.sheet?.toggle(interaction.responseId, option.id, single)}
        >{optionText(option)}{show.keyed.has(option.id) && !live ? ' (key)' : ''}</button
      >
    {/each}
  </div>
</fieldset>

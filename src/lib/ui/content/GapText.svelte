<script lang="ts">
  import { optionSets, optionText, type GapMatchInteraction } from '@alforja/core';
  import Content from './Content.svelte';
  import { provideGaps } from './GapSlot.svelte';
  import type { Showing } from './answers.svelte';

  let { interaction, show }: { interaction: GapMatchInteraction; show: Showing } = $props();
  const sets = $derived(optionSets(interaction));
  provideGaps({
    get options() {
      return (sets[0] ?? []).map((o) => ({ id: o.id, text: optionText(o) }));
    },
    filled: (gap) =>
      (show.sheet?.of(interaction.responseId) ?? [])
        .map((v) => String(v).split(' '))
        .find(([, b]) => b === gap)?.[0] ?? '',
    fill: (gap, choice) => show.sheet?.pair(interaction.responseId, gap, choice, 'right'),
    number: (gap) => (sets[1] ?? []).findIndex((g) => g.id === gap) + 1,
    live: () => show.sheet?.live ?? false,
  });
</script>

<fieldset class="mt-3">
  <legend class="mb-1"><Content nodes={interaction.prompt} {show} /></legend>
  <Content nodes={interaction.content} {show} />
  <p class="text-quiet mt-1 font-sans text-[13.5px]">
    To fill in: {(sets[0] ?? []).map(optionText).join(' / ')}
  </p>
</fieldset>

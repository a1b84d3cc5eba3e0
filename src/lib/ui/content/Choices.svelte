<script lang="ts">
  import type { ChoiceInteraction } from '@alforja/core';
  import Content from './Content.svelte';
  import type { AnswerSheet } from './answers.svelte';

  interface Props {
    interaction: ChoiceInteraction;
    files: string;
    sheet: AnswerSheet | null;
    keyed: ReadonlySet<string>;
    numeric: ReadonlySet<string>;
    several: ReadonlySet<string>;
  }
  let { interaction, files, sheet, keyed, numeric, several }: Props = $props();
  const single = $derived(!several.has(interaction.responseId));
  const group = $props.id();
  const trying = $derived(sheet?.live ?? false);
  const ticked = (id: string): boolean => sheet?.values[interaction.responseId]?.includes(id) ?? false;
</script>

<fieldset class="mt-3">
  <legend class="mb-1"
    ><Content nodes={interaction.prompt} {files} /><span class="sr-only"
      >{single ? 'One answer' : 'Several answers'}</span
    ></legend
  >
  {#each interaction.choices as choice (choice.id)}
    {@const right = keyed.has(choice.id)}
    <label class="flex items-baseline gap-2.5 py-[3px] {trying ? 'cursor-pointer' : ''}">
      <span class="text-saddle w-8 shrink-0 text-right font-sans text-[12.5px] font-semibold"
        >{right && !trying ? 'key' : ''}</span
      >
      <input
        type={single ? 'radio' : 'checkbox'}
        name={group}
        checked={trying && ticked(choice.id)}
        disabled={!trying}
        onchange={() => sheet?.toggle(interaction.responseId, choice.id, single)}
        class="border-quiet text-agave relative top-[2px] size-[15px] shrink-0 disabled:opacity-100 dark:bg-transparent"
      />
      <span class={right || trying ? '' : 'text-quiet'} dir="auto"
        ><Content nodes={choice.content} {files} {numeric} /></span
      >
      {#if choice.fixed}<span class="text-quiet shrink-0 font-sans text-[12px]">pinned</span>{/if}
    </label>
  {/each}
</fieldset>

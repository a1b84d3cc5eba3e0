<script lang="ts">
  import type { ChoiceInteraction, ContentNode } from '@alforja/core';
  import Content from './Content.svelte';
  import type { Showing } from './answers.svelte';

  let { interaction, show }: { interaction: ChoiceInteraction; show: Showing } = $props();
  const single = $derived(!show.several.has(interaction.responseId));
  const group = $props.id();
  const trying = $derived(show.sheet?.live ?? false);
  /** Whether a choice has words of its own to be named by, outside of its formulas. */
  function hasWords(nodes: readonly ContentNode[]): boolean {
    return nodes.some((node) =>
      node.kind === 'text'
        ? node.text.trim() !== ''
        : node.kind === 'element' && ((node.attrs['alt'] ?? '').trim() !== '' || hasWords(node.children)),
    );
  }
  const ticked = (id: string): boolean => show.sheet?.of(interaction.responseId).includes(id) ?? false;
</script>

<fieldset class="mt-3">
  <legend class="mb-1"
    ><Content nodes={interaction.prompt} {show} /><span class="sr-only"
      >{single ? 'One answer' : 'Several answers'}</span
    ></legend
  >
  {#each interaction.choices as choice, n (n)}
    {@const right = show.keyed.has(choice.id)}
    <label class="flex items-baseline gap-2.5 py-[3px] {trying ? 'cursor-pointer' : ''}">
      <span class="text-saddle w-8 shrink-0 text-right font-sans text-[12.5px] font-semibold"
        >{right && !trying ? 'key' : ''}</span
      >
      <input
        type={single ? 'radio' : 'checkbox'}
        name={group}
        checked={ticked(choice.id)}
        disabled={!trying}
        onchange={() => show.sheet?.toggle(interaction.responseId, choice.id, single)}
        class="border-quiet text-agave relative top-[2px] size-[15px] shrink-0 disabled:opacity-100 dark:bg-transparent"
      />
      {#if !hasWords(choice.content)}<span class="sr-only">Choice {n + 1}</span>{/if}
      <span class={right || trying ? '' : 'text-quiet'} dir="auto"
        ><Content nodes={choice.content} {show} /></span
      >
      {#if choice.fixed && !trying}<span class="text-quiet shrink-0 font-sans text-[12px]">pinned</span>{/if}
    </label>
  {/each}
</fieldset>

<script lang="ts">
  import ArrowDown from '@lucide/svelte/icons/arrow-down';
  import ArrowUp from '@lucide/svelte/icons/arrow-up';
  import type { OrderInteraction } from '@alforja/core';
  import Content from './Content.svelte';
  import type { Showing } from './answers.svelte';

  let { interaction, show }: { interaction: OrderInteraction; show: Showing } = $props();
  const live = $derived(show.sheet?.live ?? false);
  const given = $derived((show.sheet?.of(interaction.responseId) ?? []).map(String));
  /** The choices in the order given; of choices that share an identifier each stands once. */
  const rows = $derived.by(() => {
    const left = [...interaction.choices];
    if (given.length === 0) return left;
    return given.flatMap((id) => {
      const at = left.findIndex((c) => c.id === id);
      return at < 0 ? [] : left.splice(at, 1);
    });
  });
  let dragged = $state<number | null>(null);

  function move(from: number, to: number): void {
    const ids = rows.map((c) => c.id);
    const [id] = ids.splice(from, 1);
    ids.splice(Math.max(0, Math.min(ids.length, to)), 0, id!);
    show.sheet?.set(interaction.responseId, ids);
  }
</script>

<fieldset class="mt-3">
  <legend class="mb-1"><Content nodes={interaction.prompt} {show} /></legend>
  <ol class="list-none! p-0!">
    {#each rows as choice, at (choice)}
      <li
        class="border-hair flex items-baseline gap-3 border-b py-1.5 {dragged === at ? 'bg-wash' : ''}"
        draggable={live}
        ondragstart={() => (dragged = at)}
        ondragover={(e) => dragged !== null && e.preventDefault()}
        ondrop={(e) => {
          e.preventDefault();
          e.stopPropagation();
          if (dragged !== null) move(dragged, at);
          dragged = null;
        }}
        ondragend={() => (dragged = null)}
      >
        <span class="num text-quiet w-6 text-right font-sans text-[13px]">{at + 1}</span>
        <span class="grow" dir="auto"><Content nodes={choice.content} {show} /></span>
        {#if live}
          <span class="flex shrink-0 gap-1">
            <button
              type="button"
              class="text-quiet hover:text-ink p-1"
              aria-label="Earlier: place {at + 1}"
              disabled={at === 0}
              onclick={() => move(at, at - 1)}><ArrowUp size={15} /></button
            >
            <button
              type="button"
              class="text-quiet hover:text-ink p-1"
              aria-label="Later: place {at + 1}"
              disabled={at === rows.length - 1}
              onclick={() => move(at, at + 1)}><ArrowDown size={15} /></button
            >
          </span>
        {/if}
      </li>
    {/each}
  </ol>
  {#if live && given.length === 0}<button
      type="button"
      class="act font-sans text-[13.5px]"
      onclick={() =>
        show.sheet?.set(
          interaction.responseId,
          interaction.choices.map((c) => c.id),
        )}>Take them in this order</button
    >{/if}
</fieldset>

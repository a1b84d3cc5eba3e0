<script lang="ts">
  import ArrowDown from '@lucide/svelte/icons/arrow-down';
  import ArrowUp from '@lucide/svelte/icons/arrow-up';
  import GripVertical from '@lucide/svelte/icons/grip-vertical';
  import X from '@lucide/svelte/icons/x';
  import { letterOf, responseIdsOf, type Choice, type Interaction } from '@alforja/core';
  import AsItCame from './AsItCame.svelte';
  import { slotNames, type ItemDraft } from './draft.svelte';
  import TextEditor from './TextEditor.svelte';
  import type { TextHelp } from './tools';

  /** The choices of a question: their texts, which are right, their order; further ones, and fewer. */
  interface Props extends TextHelp {
    draft: ItemDraft;
    interaction: Extract<Interaction, { choices: readonly Choice[] }>;
    keyed: readonly string[];
  }
  let { draft, interaction, keyed, around, language, onformula, onpicture }: Props = $props();
  const node = $derived(draft.item.id);
  const response = $derived(responseIdsOf(interaction)[0]);
  const declared = $derived(draft.item.responses.find((r) => r.id === response));
  const several = $derived(declared?.cardinality === 'multiple');
  /** Where what is right is marked by ticking. */
  const ticked = $derived(interaction.kind === 'choice' || interaction.kind === 'inlineChoice');
  const ids = $derived(interaction.choices.map((c) => c.id));
  const group = $props.id();
  let dragged = $state<string | null>(null);

  function mark(id: string, right: boolean): void {
    const now = ids.filter((i) => keyed.includes(i));
    const to = several ? ids.filter((i) => (i === id ? right : now.includes(i))) : [id];
    draft.put({ op: 'key', node, to, ...(response ? { response } : {}) });
  }
  function move(id: string, to: number): void {
    const rest = ids.filter((i) => i !== id);
    const next = [...rest.slice(0, to), id, ...rest.slice(to)];
    draft.put({ op: 'choice-order', node, to: next, ...(response ? { response } : {}) });
  }
  function add(): void {
    const taken = new Set(ids);
    let n = ids.length;
    while (taken.has(letterOf(n)) || taken.has(`choice_${letterOf(n)}`)) n += 1;
    const choice = /^[A-Z]$/u.test(ids[0] ?? '') ? letterOf(n) : `choice_${letterOf(n)}`;
    draft.put({ op: 'choice-add', node, choice, to: 'New choice', after: ids.at(-1) ?? null });
  }
</script>

<fieldset class="mt-3">
  <legend class="text-quiet text-[12.5px]">Choices</legend>
  {#each interaction.choices as choice, n (choice.id)}
    {@const text = slotNames(choice.content)}
    <div
      class="flex items-start gap-2 py-1 {dragged === choice.id ? 'opacity-50' : ''}"
      role="group"
      aria-label="Choice {letterOf(n)}"
      ondragover={(e) => {
        if (dragged !== null) e.preventDefault();
      }}
      ondrop={(e) => {
        if (dragged === null) return;
        e.preventDefault();
        move(dragged, n);
        dragged = null;
      }}
    >
      <span
        class="text-quiet cursor-grab pt-1.5"
        draggable="true"
        role="img"
        aria-label="Drag to move"
        ondragstart={() => (dragged = choice.id)}
        ondragend={() => (dragged = null)}><GripVertical size={16} /></span
      >
      {#if ticked}<label
          class="text-saddle flex w-14 shrink-0 items-center gap-1.5 pt-1.5 text-[12.5px] font-semibold"
          ><input
            type={several ? 'checkbox' : 'radio'}
            name={group}
            checked={keyed.includes(choice.id)}
            onclick={(e) => mark(choice.id, e.currentTarget.checked)}
            class="border-quiet text-agave size-[15px]"
          />{keyed.includes(choice.id) ? 'key' : ''}<span class="sr-only">{letterOf(n)} is right</span></label
        >{/if}
      <TextEditor
        html={text.html}
        kinds={text.kinds}
        around={around(text.names)}
        label="Choice {letterOf(n)}"
        {language}
        {onformula}
        {onpicture}
        came={draft.came(`choice ${choice.id}`)}
        onchange={(to) => draft.put({ op: 'content', node, at: 'choice', choice: choice.id, to })}
      />
      <span class="flex shrink-0 items-center pt-1">
        <button
          type="button"
          class="icon-button"
          aria-label="Move {letterOf(n)} up"
          disabled={n === 0}
          onclick={() => move(choice.id, n - 1)}><ArrowUp size={15} /></button
        >
        <button
          type="button"
          class="icon-button"
          aria-label="Move {letterOf(n)} down"
          disabled={n === ids.length - 1}
          onclick={() => move(choice.id, n + 1)}><ArrowDown size={15} /></button
        >
        <label
          class="text-quiet flex min-h-6 items-center gap-1 px-1.5 text-[12px]"
          title="Stays in its place when choices are shuffled"
          ><input
            type="checkbox"
            checked={choice.fixed}
            onchange={(e) =>
              draft.put({ op: 'choice-fixed', node, choice: choice.id, to: e.currentTarget.checked })}
            class="border-quiet text-agave mx-1 size-[15px] rounded-sm"
          />pinned</label
        >
        <button
          type="button"
          class="icon-button"
          aria-label="Take out {letterOf(n)}"
          onclick={() => draft.put({ op: 'choice-drop', node, choice: choice.id })}><X size={15} /></button
        >
      </span>
    </div>
  {/each}
  <span class="mt-1 flex gap-4">
    <button type="button" class="act text-[13px]" onclick={add}>Add a choice</button>
    <AsItCame {draft} part="choices" says="Which choices there are" />
  </span>
</fieldset>

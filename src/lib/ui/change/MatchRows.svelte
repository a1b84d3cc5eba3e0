<script lang="ts">
  import { optionText, own, recognise, type Interaction } from '@alforja/core';
  import { slotNames, type ItemDraft } from './draft.svelte';
  import TextEditor from './TextEditor.svelte';
  import type { TextHelp } from './tools';

  /** What is matched: the texts of both sides, and what belongs to what. */
  interface Props extends TextHelp {
    draft: ItemDraft;
    interaction: Extract<Interaction, { kind: 'match' }>;
  }
  let { draft, interaction, around, language, onformula, onpicture }: Props = $props();
  const node = $derived(draft.item.id);
  const response = $derived(interaction.rows ? null : interaction.responseId);
  const pairs = $derived(
    response === null
      ? []
      : (own(recognise(draft.item).key, response) ?? []).map((v) => String(v).split(' ')),
  );
  const partners = (id: string): string[] => pairs.filter(([a]) => a === id).map(([, b]) => b!);
  const offered = $derived(
    interaction.right.map((c) => ({ id: c.id, says: optionText({ ...c, label: '' }) })),
  );
  function pair(id: string, to: string): void {
    const others = pairs.filter(([a]) => a !== id).map((p) => p.join(' '));
    const next = to === '' ? others : [...others, `${id} ${to}`];
    draft.put({ op: 'key', node, to: next, ...(response ? { response } : {}) });
  }
  const sides = $derived([
    { name: 'Left', list: interaction.left },
    { name: 'Right', list: interaction.right },
  ]);
</script>

<div class="mt-3 grid grid-cols-2 gap-4">
  {#each sides as side (side.name)}
    <fieldset class="min-w-0">
      <legend class="text-quiet text-[12.5px]">{side.name}</legend>
      {#each side.list as choice, n (choice.id)}
        {@const text = slotNames(choice.content)}
        <div class="py-1">
          <TextEditor
            html={text.html}
            kinds={text.kinds}
            around={around(text.names)}
            label="{side.name} {n + 1}"
            {language}
            {onformula}
            {onpicture}
            came={draft.came(`choice ${choice.id}`)}
            onchange={(to) => draft.put({ op: 'content', node, at: 'choice', choice: choice.id, to })}
          />
          {#if side.name === 'Left' && response !== null && partners(choice.id).length <= 1}<label
              class="text-saddle mt-0.5 flex items-center gap-1.5 text-[12.5px] font-semibold"
              >key <select
                class="border-hair bg-surface text-ink h-7 min-w-0 grow truncate rounded border py-0 pl-2 text-[13px] font-normal"
                aria-label="What belongs to left {n + 1}"
                value={partners(choice.id)[0] ?? ''}
                onchange={(e) => pair(choice.id, e.currentTarget.value)}
                ><option value="">nothing</option>{#each offered as o (o.id)}<option value={o.id}
                    >{o.says}</option
                  >{/each}</select
              ></label
            >{/if}
        </div>
      {/each}
    </fieldset>
  {/each}
</div>

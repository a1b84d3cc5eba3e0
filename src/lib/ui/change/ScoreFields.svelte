<script lang="ts">
  import { interactionFor, optionSets, own, recognise, shapeIn, type Edit, type Scalar } from '@alforja/core';
  import { typedNumber } from '../format';
  import AsItCame from './AsItCame.svelte';
  import AcceptedRows from './AcceptedRows.svelte';
  import type { ItemDraft } from './draft.svelte';
  import NumberFields from './NumberFields.svelte';

  /** Points and, response by response, what is accepted: as the scoring comes to, and as nothing else. */
  let { draft }: { draft: ItemDraft } = $props();
  const item = $derived(draft.item);
  const node = $derived(item.id);
  const recognised = $derived(recognise(item));
  const asked = $derived(
    item.responses.flatMap((response) => {
      const interaction = interactionFor(item, response.id);
      return interaction ? [{ response, interaction, part: shapeIn(recognised.shape, response.id) }] : [];
    }),
  );
  const picks = $derived(
    asked.filter(({ interaction }) => interaction.kind === 'choice' && optionSets(interaction).length === 1),
  );
  let sure = $state(false);
  const keyOf = (id: string): Scalar[] => [...(own(recognised.key, id) ?? [])];
  /** The key in place of a program: all or nothing for what it gives most for. */
  function byKey(): void {
    if (!sure) return void (sure = true);
    sure = false;
    for (const { response } of asked)
      draft.put({ op: 'key', node, response: response.id, to: keyOf(response.id), replace: true } as Edit);
  }
  const field = 'border-hair bg-surface text-ink block h-8 rounded border px-2 text-[14px] num';
</script>

<div class="mt-4 flex flex-wrap items-end gap-x-5 gap-y-2" role="group" aria-label="Scoring">
  <label class="text-quiet text-[12.5px]"
    >Points<input
      class="{field} w-20"
      inputmode="decimal"
      value={item.points}
      oninput={(e) => {
        const to = typedNumber(e.currentTarget.value);
        if (to !== null) draft.put({ op: 'points', node, to });
      }}
    /></label
  >
  <span class="pb-1.5 empty:hidden"><AsItCame {draft} part="points" says="Points" /></span>
  {#each picks as { response, interaction } (response.id)}
    {#if interaction.kind === 'choice'}
      <label class="flex items-center gap-1.5 pb-1.5 text-[13px]"
        ><input
          type="checkbox"
          checked={interaction.shuffle}
          onchange={(e) =>
            draft.put({ op: 'shuffle', node, to: e.currentTarget.checked, response: response.id })}
          class="border-quiet text-agave size-[15px] rounded-sm"
        /> Shuffle the choices</label
      >
      <label class="text-quiet text-[12.5px]"
        >Answers<select
          class="{field} py-0 pr-7"
          value={response.cardinality === 'multiple' ? 'several' : 'one'}
          onchange={(e) =>
            draft.put({
              op: 'answers',
              node,
              to: e.currentTarget.value as 'one' | 'several',
              response: response.id,
            })}><option value="one">one</option><option value="several">several</option></select
        ></label
      >
    {/if}
  {/each}
  <span class="pb-1.5 empty:hidden"><AsItCame {draft} part="scoring" says="What is right" /></span>
</div>
{#if recognised.shape.kind === 'program'}
  <p class="text-ochre mt-2 text-[13px]">
    The scoring is a program of its own. It is kept as it is.
    <button type="button" class="act" onclick={byKey}
      >{sure ? 'Yes, score it by its key; scores can change' : 'Score it by its key instead…'}</button
    >
  </p>
{/if}
{#each asked as { response, interaction, part }, n (response.id)}
  {@const name = asked.length > 1 ? `Blank ${n + 1}` : 'Answer'}
  {#if part?.kind === 'numeric'}<NumberFields {draft} {response} {part} {name} />
  {:else if part?.kind === 'accepted-answers'}<AcceptedRows
      {draft}
      {response}
      answers={part.answers}
      {name}
    />
  {:else if interaction.kind === 'textEntry' && (part === null || part.kind === 'none')}
    {#if response.baseType === 'string'}<AcceptedRows {draft} {response} answers={[]} {name} />
    {:else}<NumberFields {draft} {response} part={null} {name} />{/if}
  {:else if part?.kind === 'pattern'}<p class="text-quiet mt-2 text-[13px]">
      {name}: what fits a pattern; it is kept.
    </p>{/if}
{/each}

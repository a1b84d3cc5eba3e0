<script lang="ts">
  import type { ResponseDeclaration, ScoringShape } from '@alforja/core';
  import type { ItemDraft } from './draft.svelte';

  type Accepted = Extract<ScoringShape, { kind: 'accepted-answers' }>;
  /** Texts that are accepted, each with its points; and whether capitals matter. */
  let {
    draft,
    response,
    answers,
    name,
  }: {
    draft: ItemDraft;
    response: ResponseDeclaration;
    /** None where nothing is accepted yet. */
    answers: Accepted['answers'];
    name: string;
  } = $props();
  const node = $derived(draft.item.id);
  const most = $derived(Math.max(...answers.map((a) => a.points)));
  const sensitive = $derived(answers.some((a) => a.caseSensitive));
  let more = $state('');
  function put(to: Accepted['answers']): void {
    draft.put({ op: 'accept', node, response: response.id, to: to.map((a) => ({ ...a })) });
  }
  const change = (at: number, over: Partial<Accepted['answers'][number]>): void =>
    put(answers.map((a, n) => (n === at ? { ...a, ...over } : a)));
  function add(event: SubmitEvent): void {
    event.preventDefault();
    const text = more.trim();
    if (text === '') return;
    // The first one is worth what the item, or its part, has been worth.
    if (answers.length === 0) draft.put({ op: 'accept', node, response: response.id, to: [{ text }] });
    else put([...answers, { text, points: most, caseSensitive: sensitive }]);
    more = '';
  }
  const field = 'border-hair bg-surface text-ink h-8 rounded border px-2 text-[14px]';
</script>

<fieldset class="mt-2">
  <legend class="text-quiet text-[12.5px]">{name}: accepted</legend>
  {#each answers as answer, n (n)}
    <div class="flex items-center gap-2 py-0.5">
      <input
        class="{field} w-[260px] font-serif"
        dir="auto"
        aria-label="Accepted {n + 1}"
        value={answer.text}
        onchange={(e) => change(n, { text: e.currentTarget.value })}
      />
      <input
        class="{field} num w-16"
        inputmode="decimal"
        aria-label="Points for accepted {n + 1}"
        value={answer.points}
        onchange={(e) => {
          const points = Number(e.currentTarget.value.replace(',', '.'));
          if (Number.isFinite(points)) change(n, { points });
        }}
      /><span class="text-quiet text-[12.5px]">points</span>
      {#if answers.length > 1}<button
          type="button"
          class="act text-[13px]"
          onclick={() => put(answers.filter((_, k) => k !== n))}>Take out</button
        >{/if}
    </div>
  {/each}
  <form class="flex items-center gap-2 py-0.5" onsubmit={add}>
    <input
      class="{field} w-[260px] font-serif"
      dir="auto"
      aria-label="Accept another"
      placeholder={answers.length > 0 ? 'Accept another…' : 'What is right…'}
      bind:value={more}
    />
    <button type="submit" class="act text-[13px]" disabled={more.trim() === ''}>Add</button>
    <label class="ml-3 flex items-center gap-1.5 text-[13px]"
      ><input
        type="checkbox"
        checked={sensitive}
        onchange={(e) => draft.put({ op: 'case', node, response: response.id, to: e.currentTarget.checked })}
        class="border-quiet text-agave size-[15px] rounded-sm"
      /> Capitals matter</label
    >
  </form>
</fieldset>

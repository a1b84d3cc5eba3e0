<script lang="ts">
  import { diffWordsWithSpace } from 'diff';
  import { sayDifference, type Difference } from '@alforja/core';
  import { count } from '../format';
  import NumberLine from './NumberLine.svelte';
  import { spansOf } from './spans';
  import { exampleAnswer, FACET_NAMES, showsScore } from './rows';

  let { difference, side }: { difference: Difference; side: 'from' | 'to' } = $props();
  const said = $derived(sayDifference(difference));
  const from = $derived(said.from || 'nothing');
  const to = $derived(said.to || 'nothing');
  // Very long texts are quoted without marks: word differences grow with the product of the lengths.
  const parts = $derived(
    from.length * to.length > 4_000_000
      ? [{ value: side === 'from' ? from : to, added: false, removed: false }]
      : diffWordsWithSpace(from, to).filter((p) => (side === 'from' ? !p.added : !p.removed)),
  );
  const clean = (value: string): string => value.replace(/‹\/?[\w-]+›/gu, '');
  const spans = $derived(spansOf(difference));
  const answer = $derived(difference.example ? exampleAnswer(difference.example) || 'no answer' : '');
  const score = $derived(
    difference.example ? (side === 'from' ? difference.example.from : difference.example.to) : 0,
  );
</script>

<div class="py-1.5">
  <div class="text-quiet text-[12.5px] font-semibold">{FACET_NAMES[difference.facet]}</div>
  <div class="font-serif text-[15.5px] whitespace-pre-line" dir="auto">
    {#each parts as part, at (at)}{#if part.added || part.removed}<mark
          class="border-ochre bg-transparent border-b-2 font-semibold text-inherit">{clean(part.value)}</mark
        >{:else}{clean(part.value)}{/if}{/each}
  </div>
  {#if spans}<NumberLine
      span={spans[side]}
      least={spans.least}
      most={spans.most}
      answer={spans.answer}
    />{/if}
  {#if difference.example}
    <div class="mt-1">
      Answer <b dir="auto">{answer}</b>{#if showsScore(difference)}:
        <b class={side === 'to' ? 'text-ochre' : ''}>{count(score)} {score === 1 ? 'point' : 'points'}</b
        >{/if}
    </div>
  {/if}
</div>

<script lang="ts">
  import { onMount } from 'svelte';
  import Button from 'flowbite-svelte/Button.svelte';
  import type { SheetWay } from '@alforja/core';
  import type { BothView } from '$lib/shared/quizzes';
  import { ask } from '../ask';
  import { about } from '../charts/spread';
  import TwoSpreads from '../charts/TwoSpreads.svelte';
  import { count, plural } from '../format';
  import BothSheet from './BothSheet.svelte';

  /** The same answers given to what was sent and to what arrived: by one candidate, and by many. */
  let { transferId, quiz }: { transferId: string; quiz: string } = $props();
  let view = $state.raw<BothView | null>(null);
  let seed = $state('1');
  let way = $state<SheetWay>('ability');
  let busy = $state(false);
  let trouble = $state('');
  async function go(): Promise<void> {
    busy = true;
    trouble = '';
    try {
      view = await ask<BothView>(`/api/transfers/${transferId}/both`, { quiz, seed, way });
    } catch (problem) {
      trouble = (problem as Error).message;
    } finally {
      busy = false;
    }
  }
  onMount(go);
  const WAYS: readonly [SheetWay, string][] = [
    ['ability', 'as well as chance has it'],
    ['right', 'everything right'],
    ['wrong', 'everything wrong'],
    ['blank', 'nothing at all'],
  ];
  const many = $derived(view?.many);
</script>

{#if trouble}<p class="text-brick mb-3" role="alert">{trouble}</p>{/if}
{#if !view && !trouble}<p class="text-quiet" role="status">Answering on both sides…</p>{/if}
{#if view}
  <section aria-labelledby="many" class="mb-7">
    <h2 id="many" class="text-[16px]">A thousand candidates</h2>
    {#if many}
      <p class="mt-1 mb-3 max-w-[760px]" data-testid="many">
        {#if many.differing === 0}<b>All {count(many.candidates)} reach the same points on both sides.</b>
        {:else}<b class="text-ochre"
            >{count(many.differing)} of {count(many.candidates)} reach other points than in the source.</b
          >{/if}
        <span class="text-quiet"
          >The first knows everything, the second hands in nothing, the others answer by ability (Rasch
          model), seed “{view.seed}”.</span
        >
      </p>
      <TwoSpreads
        title="Points they reach"
        unit="points"
        first={{ name: 'what was sent', spread: many.source }}
        second={{ name: 'what arrived', spread: many.arrived }}
      />
      {#if many.items.length > 0}
        <table class="mt-3 text-[14px]" data-testid="from">
          <caption class="text-left text-[13.5px] font-semibold">Where the difference comes from</caption>
          <thead class="text-quiet text-left text-[12.5px]">
            <tr class="border-hair border-b"
              ><th scope="col" class="py-1 pr-4 font-normal">Question</th><th
                scope="col"
                class="px-3 text-right font-normal">Candidates</th
              ><th scope="col" class="px-3 text-right font-normal">Points, on average</th></tr
            >
          </thead>
          <tbody>
            {#each many.items as item, n (n)}<tr class="border-hair border-b"
                ><th scope="row" class="py-1 pr-4 text-left font-serif font-normal" dir="auto"
                  >{item.name}{#if item.missing}<span class="text-brick ml-1.5 font-sans text-[13px]"
                      >did not arrive</span
                    >{/if}</th
                ><td class="num px-3 text-right">{count(item.candidates)}</td><td class="num px-3 text-right"
                  >{item.mean > 0 ? '+' : ''}{about(item.mean)}</td
                ></tr
              >{/each}
          </tbody>
        </table>
      {/if}
    {:else}<p class="text-quiet">
        It has too many questions to try all of them a thousand times; one candidate is tried below.
      </p>{/if}
  </section>
  <section aria-labelledby="one">
    <h2 id="one" class="text-[16px]">One candidate’s sheet</h2>
    <form
      class="my-3 flex flex-wrap items-end gap-3"
      onsubmit={(e) => {
        e.preventDefault();
        void go();
      }}
    >
      <label class="text-quiet text-[12.5px]"
        >Answers<select
          bind:value={way}
          class="border-hair bg-surface text-ink block h-9 rounded border py-0 pr-8 pl-2 text-[14px]"
          >{#each WAYS as [id, says] (id)}<option value={id}>{says}</option>{/each}</select
        ></label
      >
      <label class="text-quiet text-[12.5px]"
        >Candidate, any text<input
          bind:value={seed}
          maxlength="200"
          dir="auto"
          class="border-hair bg-surface text-ink block h-9 w-[180px] rounded border px-2 text-[14px]"
        /></label
      >
      <Button type="submit" color="alternative" disabled={busy}>Answer again</Button>
      <span class="num" role="status" data-testid="sheet-totals"
        >{count(view.sheet.source)} sent, {count(view.sheet.arrived)} arrived, of
        {plural(view.sheet.rows.length, 'question')}</span
      >
    </form>
    <BothSheet rows={view.sheet.rows} />
  </section>
{/if}

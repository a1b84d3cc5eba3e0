<script lang="ts">
  import { untrack } from 'svelte';
  import Button from 'flowbite-svelte/Button.svelte';
  import { planTotals, type PlanCell, type QuizDraft } from '@alforja/core';
  import type { BankListing } from '$lib/shared/making';
  import { ask } from '../ask';
  import { count, KIND_NAMES, plural } from '../format';
  import type { Maker } from './maker.svelte';
  import PlanChart from './PlanChart.svelte';
  import { bankKey } from './shelf.svelte';

  /** What the quiz is to come to: how many of each category and kind, out of which banks, worth how much. */
  let { maker, banks }: { maker: Maker; banks: readonly BankListing[] } = $props();
  const plan = $derived(maker.draft.plan);
  const places = $derived(maker.view.planned);
  const categories = $derived([...new Set(places.map((p) => p.category))]);
  const kinds = $derived([...new Set(places.map((p) => p.kind))]);
  const chosen = $derived(new Set(plan.from.map(bankKey)));
  const cellOf = (category: string, kind: string): PlanCell | undefined =>
    plan.cells.find((c) => c.category === category && c.kind === kind);
  const has = (category: string, kind: string): number =>
    places.find((p) => p.category === category && p.kind === kind)?.has ?? 0;
  const { items, points } = $derived(planTotals(plan));
  let trouble = $state('');
  let busy = $state(false);
  /** Banks are chosen once, mostly: later they fold away. */
  let choosing = $state(untrack(() => maker.draft.plan.from.length === 0));

  function choose(bank: BankListing, on: boolean): void {
    const rest = plan.from.filter((f) => bankKey(f) !== bankKey(bank));
    const from = on ? [...rest, { place: bank.place, bank: bank.bank }] : rest;
    maker.do({ do: 'plan', to: { ...plan, from } });
  }
  /** What was not said for a cell is as for its kind elsewhere, else one point. */
  const usual = (kind: string): number => plan.cells.find((c) => c.kind === kind)?.points ?? 1;
  function set(category: string, kind: string, to: Partial<Pick<PlanCell, 'count' | 'points'>>): void {
    const before = cellOf(category, kind) ?? { category, kind, count: 0, points: usual(kind) };
    const cell = { ...before, ...to };
    const rest = plan.cells.filter((c) => c.category !== category || c.kind !== kind);
    maker.do({ do: 'plan', to: { ...plan, cells: cell.count > 0 ? [...rest, cell] : rest } });
  }
  const number = (text: string): number => Math.max(0, Number(text) || 0);
  async function carry(as: 'draws' | 'items'): Promise<void> {
    busy = true;
    trouble = '';
    try {
      await maker.kept();
      const { draft } = await ask<{ draft: QuizDraft }>(`/api/made/${maker.id}`, {
        do: 'carry',
        draft: maker.draft,
        as,
      });
      maker.put(draft);
    } catch (problem) {
      trouble = (problem as Error).message;
    } finally {
      busy = false;
    }
  }
  const field = 'num border-hair bg-surface text-ink h-7 w-[48px] rounded border px-1 text-right text-[13px]';
</script>

<div class="border-hair mb-5 border-b pb-4">
  <details bind:open={choosing} class="mb-3">
    <summary class="cursor-pointer text-[13.5px]"
      >Out of {plan.from.length === 0 ? 'which banks?' : plural(plan.from.length, 'bank')}</summary
    >
    <ul
      class="border-hair mt-1 max-h-[160px] overflow-y-auto border px-2 py-1"
      aria-label="Banks of the plan"
    >
      {#each banks as b (bankKey(b))}<li>
          <label class="flex items-center gap-2 py-0.5 text-[13.5px]"
            ><input
              type="checkbox"
              checked={chosen.has(bankKey(b))}
              onchange={(e) => choose(b, e.currentTarget.checked)}
              class="border-quiet text-agave size-[14px] rounded-sm dark:bg-transparent"
            /><span class="font-serif" dir="auto">{b.title}</span>
            <span class="text-quiet truncate">{plural(b.items, 'question')}, {b.placeName}</span></label
          >
        </li>{/each}
    </ul>
  </details>
  {#if places.length > 0}
    <div class="relative overflow-x-auto">
      <table class="text-[13px]">
        <caption class="sr-only">How many of each category and kind, and points each</caption>
        <thead>
          <tr class="text-quiet border-hair border-b">
            <th scope="col" class="py-1 pr-3 text-left font-normal">Category</th>
            {#each kinds as kind (kind)}<th scope="col" class="px-2 py-1 text-left font-normal"
                >{KIND_NAMES[kind] ?? kind}</th
              >{/each}
            <th scope="col" class="px-2 py-1 text-right font-normal">Points</th>
          </tr>
        </thead>
        <tbody>
          {#each categories as category (category)}
            <tr class="border-hair border-b align-top">
              <th scope="row" class="max-w-[150px] py-1.5 pr-3 text-left font-serif font-normal" dir="auto"
                >{category || 'No category'}</th
              >
              {#each kinds as kind (kind)}
                {@const there = has(category, kind)}
                {@const cell = cellOf(category, kind)}
                <td class="px-2 py-1.5">
                  {#if there > 0 || cell}
                    <span class="flex items-center gap-1 whitespace-nowrap"
                      ><input
                        type="number"
                        min="0"
                        value={cell?.count ?? 0}
                        aria-label="How many: {category || 'no category'}, {KIND_NAMES[kind] ?? kind}"
                        onchange={(e) =>
                          set(category, kind, { count: Math.round(number(e.currentTarget.value)) })}
                        class={field}
                      /><span class={(cell?.count ?? 0) > there ? 'text-brick' : 'text-quiet'}
                        >of {there}</span
                      ></span
                    >
                    {#if cell}<span class="mt-1 flex items-center gap-1 whitespace-nowrap"
                        ><input
                          type="number"
                          min="0"
                          step="any"
                          value={cell.points}
                          aria-label="Points each: {category || 'no category'}, {KIND_NAMES[kind] ?? kind}"
                          onchange={(e) => set(category, kind, { points: number(e.currentTarget.value) })}
                          class={field}
                        /><span class="text-quiet">points</span></span
                      >{/if}
                  {/if}
                </td>
              {/each}
              <td class="num px-2 py-1.5 text-right"
                >{count(
                  plan.cells
                    .filter((c) => c.category === category)
                    .reduce((sum, c) => sum + c.count * c.points, 0),
                )}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    <p class="num my-2 text-[13.5px]" data-testid="plan-total">
      Planned: <b>{plural(items, 'question')}, {plural(points, 'point')}</b>
    </p>
    <div class="flex flex-wrap items-center gap-2">
      <Button size="sm" color="primary" disabled={busy || items === 0} onclick={() => carry('draws')}
        >Make draws of it</Button
      >
      <Button size="sm" color="alternative" disabled={busy || items === 0} onclick={() => carry('items')}
        >Pick the questions now</Button
      >
      {#if trouble}<span class="text-brick text-[13px]" role="alert">{trouble}</span>{/if}
    </div>
    {#if items > 0}<PlanChart {plan} view={maker.view} />{/if}
  {/if}
</div>

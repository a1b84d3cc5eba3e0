<script lang="ts">
  import { onMount } from 'svelte';
  import type { FairView, QuizHead } from '$lib/shared/quizzes';
  import { ask } from '../ask';
  import { about, percent } from '../charts/spread';
  import Spread from '../charts/Spread.svelte';
  import { count, plural } from '../format';
  import { quizApi } from './paths';

  /** What the draws of a quiz make of it: whether everybody sits the same exam. */
  let { quiz }: { quiz: QuizHead } = $props();
  let fair = $state.raw<FairView | null>(null);
  let trouble = $state('');
  onMount(async () => {
    try {
      fair = await ask<FairView>(quizApi(quiz.packageId, quiz.id), { what: 'draws', seed: '1' });
    } catch (problem) {
      trouble = (problem as Error).message;
    }
  });

  const BECAUSE = {
    same: 'ask the same in the same words',
    near: 'ask nearly the same',
    family: 'are replicas of one exercise',
  } as const;
  const MOST_ROWS = 30;
  const range = (values: readonly number[], unit: string): string =>
    values.length === 1
      ? `${about(values[0]!)} ${unit} for everybody`
      : `${about(values[0]!)} to ${about(values.at(-1)!)} ${unit}`;
  const minutes = (n: number): number => Math.max(1, Math.round(n));
  const room = $derived(`/packages/${quiz.packageId}?in=${encodeURIComponent(`quiz:${quiz.id}`)}`);
  /** A category that some are set more of than others. */
  const uneven = $derived(fair?.categories.filter((c) => c.items.values.length > 1) ?? []);
</script>

{#if trouble}<p class="text-brick" role="alert">{trouble}</p>
{:else if !fair}<p class="text-quiet" role="status">Counting the draws…</p>
{:else}
  <dl class="mb-4 grid gap-x-8 gap-y-2 sm:grid-cols-[max-content_1fr]" data-testid="fairness">
    <dt class="text-quiet">Points one can reach</dt>
    <dd class="font-semibold">{range(fair.total.values, 'points')}</dd>
    <dt class="text-quiet">Time that is expected</dt>
    <dd>
      about {range([...new Set(fair.minutes.values.map(minutes))], 'minutes')}{#if quiz.minutes !== null}<span
          class={fair.minutes.values.at(-1)! > quiz.minutes ? 'text-ochre' : 'text-quiet'}
          >, {plural(quiz.minutes, 'minute')} are given</span
        >{/if}
    </dd>
    <dt class="text-quiet">Questions two neighbours share</dt>
    <dd>{about(fair.shared.mean)} of {quiz.items} on average</dd>
    <dt class="text-quiet">Counted</dt>
    <dd>
      {fair.exact
        ? 'exactly, over all draws'
        : `from ${count(fair.candidates ?? 0)} candidates drawn with the seed “${fair.seed}”`}
    </dd>
  </dl>

  {#if fair.total.values.length > 1}
    <p class="border-ochre mb-4 border-l-2 pl-3">
      Not everybody can reach the same: draws choose from questions of different points.
      <a class="act" href={room}>Put the points right in the reading room</a>, or split the draw by points
      there.
    </p>
  {/if}
  {#if uneven.length > 0}
    <p class="border-hair mb-4 border-l-2 pl-3">
      {plural(uneven.length, 'category is', 'categories are')} not met by everybody alike. Draw from each by itself:
      <a class="act" href={room}>split the draw in the reading room</a>.
    </p>
  {/if}

  <div class="grid gap-x-10 gap-y-6 md:grid-cols-2">
    {#if fair.total.values.length > 1}<Spread
        title="Points one can reach"
        unit="points"
        spread={fair.total}
      />{/if}
    {#if fair.minutes.values.length > 1}<Spread
        title="Expected time"
        unit="minutes"
        spread={fair.minutes}
      />{/if}
    {#if fair.shared.values.length > 1}<Spread
        title="Questions two neighbours share"
        unit="questions"
        spread={fair.shared}
      />{/if}
    {#if fair.reached}<Spread
        title="Points of {count(fair.reached.candidates)} simulated candidates"
        unit="points"
        spread={fair.reached.totals}
      />{/if}
  </div>
  <p class="text-quiet mt-2 text-[12.5px]">
    {#if fair.reached}Simulated candidates answer rightly by ability (Rasch model, seed “{fair.reached
        .seed}”), else with one of the wrong or partly right answers; what a person marks gives them nothing.{/if}
    Expected time is an estimate from what there is to read and how it is answered.
  </p>

  {#if fair.twice.length > 0}
    <h2 class="mt-6 mb-1 text-[15px]">The same question twice</h2>
    <table class="w-full text-[13.5px]">
      <tbody>
        {#each fair.twice.slice(0, MOST_ROWS) as t, n (n)}<tr class="border-hair border-b align-top"
            ><td class="py-1 pr-6"
              ><span class="block font-serif" dir="auto">{t.names[0]}</span><span
                class="block font-serif"
                dir="auto">{t.names[1]}</span
              ><span class="text-quiet text-[12.5px]">{BECAUSE[t.because]}</span></td
            ><td class="num w-48 py-1 text-right"
              >{t.chance >= 1 ? 'everybody' : percent(t.chance)} meet both</td
            ></tr
          >{/each}
      </tbody>
    </table>
    {#if fair.twice.length > MOST_ROWS}<p class="text-quiet mt-1 text-[12.5px]">
        and {plural(fair.twice.length - MOST_ROWS, 'more pair')}
      </p>{/if}
  {/if}

  {#if fair.categories.length > 1}
    <h2 class="mt-6 mb-1 text-[15px]">Questions of each category</h2>
    <table class="w-full max-w-[640px] text-[13.5px]">
      <tbody>
        {#each fair.categories as c (c.category)}<tr class="border-hair border-b"
            ><th scope="row" class="py-1 pr-6 text-left font-normal" dir="auto"
              >{c.category ?? 'no category'}</th
            ><td class="num py-1 pr-6 text-right">{range(c.items.values, '')}</td><td
              class="num text-quiet py-1 text-right">on average {about(c.items.mean)}</td
            ></tr
          >{/each}
      </tbody>
    </table>
  {/if}

  {#if fair.met.length > 0}
    <h2 class="mt-6 mb-1 text-[15px]">How often a question is met</h2>
    <p class="text-quiet mb-1 text-[13px]">
      {plural(fair.everybody, 'question is', 'questions are')} set to everybody; these are drawn, the rarest first.
    </p>
    <table class="w-full text-[13.5px]">
      <tbody>
        {#each fair.met.slice(0, MOST_ROWS) as m (m.seq)}<tr class="border-hair border-b"
            ><th scope="row" class="py-1 pr-6 text-left font-serif text-[14.5px] font-normal" dir="auto"
              >{m.name}</th
            ><td class="num w-28 py-1 text-right">{percent(m.chance)}</td></tr
          >{/each}
      </tbody>
    </table>
    {#if fair.met.length > MOST_ROWS}<p class="text-quiet mt-1 text-[12.5px]">
        and {plural(fair.met.length - MOST_ROWS, 'more', 'more')}
      </p>{/if}
  {/if}
{/if}

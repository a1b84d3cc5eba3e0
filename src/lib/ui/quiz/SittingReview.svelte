<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import { count, plural } from '../format';
  import Content from '../content/Content.svelte';
  import { AnswerSheet, plainShowing } from '../content/answers.svelte';
  import QuestionBody from './QuestionBody.svelte';
  import type { Sitting } from './sitting.svelte';

  /** What a sitting came to: by section, with answer, key, feedback and points. */
  let { sitting }: { sitting: Sitting } = $props();
  const files = $derived(`/api/packages/${sitting.quiz.packageId}/file`);
  const sat = $derived(sitting.sat);
  const set = $derived(sitting.set);
  const sections = $derived(
    (set?.sections ?? []).map((s, n) => {
      const places = sitting.shown.filter((at) => set?.items[at]?.section === n);
      const sum = (of: 'score' | 'points'): number =>
        places.reduce((total, at) => total + (sat?.items[at]?.[of] ?? 0), 0);
      return { title: s.title, places, score: sum('score'), points: sum('points') };
    }),
  );
  let openAt = $state<number | null>(null);
  function answered(at: number): AnswerSheet {
    const sheet = new AnswerSheet();
    sheet.restore(sitting.attemptsOf(set?.items[at]?.item.id ?? '').at(-1) ?? {});
    return sheet;
  }
</script>

{#if sat && set}
  <div class="mb-4 flex flex-wrap items-center gap-4">
    <p class="text-[17px]" role="status" data-testid="sitting-total">
      <b class="num">{count(sat.total)}</b> of {plural(sat.points, 'point')}{#if sat.passed !== null}, <b
          class={sat.passed ? 'text-agave' : 'text-brick'}>{sat.passed ? 'passed' : 'not passed'}</b
        >{/if}
    </p>
    <span class="text-quiet">Candidate “{sitting.kept?.seed}”</span>
    <Button color="alternative" class="ml-auto" onclick={() => sitting.again()}>Begin anew</Button>
  </div>
  {#each sections as s, n (n)}
    {#if s.places.length > 0}
      <section class="mb-5" aria-label={s.title || 'Questions'}>
        {#if sections.length > 1}<h2 class="border-hair flex border-b pb-1 text-[15px]">
            <span dir="auto">{s.title || `Section ${n + 1}`}</span><span class="num ml-auto font-normal"
              >{count(s.score)} of {count(s.points)}</span
            >
          </h2>{/if}
        {#each s.places as at (at)}
          {@const one = sat.items[at]!}
          <article class="border-hair grid gap-x-6 border-b py-2.5 md:grid-cols-[1fr_88px]">
            <div>
              <h3 class="font-serif text-[15.5px] font-normal" dir="auto">
                {sitting.shown.indexOf(at) + 1}. {sitting.nameOf(at)}
              </h3>
              <dl class="mt-1 grid grid-cols-[max-content_1fr] gap-x-3 text-[14px]">
                <dt class="text-quiet">Answer</dt>
                <dd dir="auto">{one.answer.join('; ') || 'none'}</dd>
                <dt class="text-quiet">Key</dt>
                <dd dir="auto">{one.key.join('; ') || (one.byHand ? 'marked by a person' : 'none')}</dd>
              </dl>
              {#each one.feedback as f, k (k)}<div class="item-text border-saddle mt-1 border-l-2 pl-3">
                  <Content nodes={f.content} show={plainShowing(files)} />
                </div>{/each}
              <button
                type="button"
                class="act mt-1 min-h-6 text-[13px]"
                aria-expanded={openAt === at}
                onclick={() => (openAt = openAt === at ? null : at)}
                >{openAt === at ? 'Close' : 'Show the question'}<span class="sr-only">
                  {sitting.shown.indexOf(at) + 1}</span
                ></button
              >
              {#if openAt === at}<div class="border-hair mt-1 border-l-2 pl-4">
                  <QuestionBody item={set.items[at]!.item} sheet={answered(at)} {files} />
                </div>{/if}
            </div>
            <p
              class="num md:text-right {one.points > 0 && one.score >= one.points - 1e-9
                ? 'text-agave'
                : one.byHand
                  ? 'text-quiet'
                  : one.score > 0
                    ? 'text-ochre'
                    : 'text-brick'}"
            >
              {count(one.score)} of {count(one.points)}
            </p>
          </article>
        {/each}
      </section>
    {/if}
  {/each}
{/if}

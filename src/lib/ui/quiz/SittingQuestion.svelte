<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import { count, plural } from '../format';
  import Content from '../content/Content.svelte';
  import { plainShowing } from '../content/answers.svelte';
  import QuestionBody from './QuestionBody.svelte';
  import type { Sitting } from './sitting.svelte';
  import TimeLeft from './TimeLeft.svelte';

  /** One question of a sitting, the way to the others, and what is left of the time. */
  let { sitting }: { sitting: Sitting } = $props();
  const files = $derived(`/api/packages/${sitting.quiz.packageId}/file`);
  const at = $derived(sitting.kept?.at ?? 0);
  const current = $derived(sitting.current);
  const sat = $derived(sitting.currentSat);
  const number = $derived(sitting.shown.indexOf(at) + 1);
  const next = $derived(sitting.step(1));
  const before = $derived(current?.linear ? null : sitting.step(-1));
  const tried = $derived(current ? sitting.attemptsOf(current.item.id).length : 0);
  const section = $derived(sitting.set?.sections[current?.section ?? 0]);
  let asks = $state(false);
  const open = $derived(sitting.shown.filter((n) => !sitting.isAnswered(n)).length);
  const left = $derived(
    !current?.individual || current.attempts === null ? null : Math.max(0, current.attempts - tried),
  );

  $effect(() => {
    // Whatever is answered is kept at once.
    void sitting.sheet.answers;
    const wait = setTimeout(() => sitting.noteDraft(), 300);
    return () => clearTimeout(wait);
  });
</script>

<div class="grid gap-x-8 gap-y-4 md:grid-cols-[250px_1fr]">
  <nav aria-label="Questions" class="md:border-hair md:border-r md:pr-5">
    <p class="text-quiet mb-2 text-[13px]">
      Candidate “{sitting.kept?.seed}”{#if sitting.quiz.minutes !== null && sitting.kept}, <TimeLeft
          minutes={sitting.quiz.minutes}
          startedAt={sitting.kept.startedAt}
          over={() => void sitting.handIn()}
        />{/if}
    </p>
    {#if sitting.told && sitting.sat}<p class="mb-2" role="status" data-testid="so-far">
        <b class="num">{count(sitting.sat.total)}</b> of {plural(sitting.sat.points, 'point')} so far
      </p>{/if}
    <ol class="max-h-[60vh] overflow-y-auto max-md:max-h-[24vh]">
      {#each sitting.shown as n, k (n)}
        {@const answered = sitting.isAnswered(n)}
        <li>
          <button
            type="button"
            class="aria-[current]:bg-band flex min-h-7 w-full items-baseline gap-2 border-l-2 px-2 py-0.5 text-left text-[13px] disabled:opacity-100 {answered
              ? 'border-saddle'
              : 'border-quiet text-quiet border-dashed'}"
            aria-current={n === at ? 'step' : undefined}
            disabled={sitting.busy || (current?.linear && n !== at)}
            onclick={() => sitting.goTo(n)}
            ><span class="num w-5 shrink-0 text-right">{k + 1}</span><span class="truncate" dir="auto"
              >{sitting.nameOf(n)}</span
            ><span class="sr-only">{answered ? 'answered' : 'open'}</span></button
          >
        </li>{/each}
    </ol>
    <p class="text-quiet mt-2 text-[12.5px]">The thread runs through beside what is answered.</p>
  </nav>

  <div>
    {#if current}
      {#if section?.title && (sitting.set?.sections.length ?? 0) > 1}<p
          class="text-quiet text-[13px]"
          dir="auto"
        >
          {section.title}
        </p>{/if}
      <div class="mb-2 flex items-baseline gap-3">
        <h2 class="text-[15px]">Question {number} of {sitting.shown.length}</h2>
        <span class="text-quiet">{plural(current.points, 'point')}</span>
      </div>
      {#key `${current.item.id} ${tried} ${sitting.kept?.startedAt}`}
        <QuestionBody item={current.item} sheet={sitting.sheet} {files} />
      {/key}
      {#if sat && sat.feedback.length > 0}
        <div class="border-saddle mt-3 border-l-2 pl-3" role="status">
          {#each sat.feedback as f, n (n)}<div class="item-text">
              <Content nodes={f.content} show={plainShowing(files)} />
            </div>{/each}
        </div>
      {/if}
      {#if current.told && tried > 0 && sat}<p class="mt-2" role="status">
          <b class="num">{count(sat.score)}</b> of {plural(sat.points, 'point')}
        </p>{/if}
      <div class="border-hair mt-5 flex flex-wrap items-center gap-3 border-t pt-4">
        {#if before !== null}<Button
            color="alternative"
            disabled={sitting.busy}
            onclick={() => sitting.goTo(before)}>Back</Button
          >{/if}
        {#if current.individual && !sat?.done}<Button
            color="alternative"
            disabled={sitting.busy}
            onclick={() => sitting.handInOne()}>Hand in this answer</Button
          >{/if}
        {#if next !== null}<Button color="primary" disabled={sitting.busy} onclick={() => sitting.goTo(next)}
            >Next</Button
          >{/if}
        <Button
          color={next === null ? 'primary' : 'alternative'}
          disabled={sitting.busy}
          onclick={() => (open > 0 ? (asks = true) : void sitting.handIn())}>Hand everything in</Button
        >
        {#if left !== null}<span class="text-quiet text-[13px]"
            >{sat?.done ? 'No further answer counts.' : `${plural(left, 'attempt')} left`}</span
          >{/if}
      </div>
      {#if asks && open > 0}<p class="mt-3 flex flex-wrap items-center gap-3" role="alert">
          {plural(open, 'question is', 'questions are')} not answered.
          <Button color="primary" onclick={() => void sitting.handIn()}>Hand in all the same</Button>
          <Button color="alternative" onclick={() => (asks = false)}>Go on</Button>
        </p>{/if}
    {/if}
  </div>
</div>

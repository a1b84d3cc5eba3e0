<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import { onMount } from 'svelte';
  import type { QuizHead } from '$lib/shared/quizzes';
  import { plural } from '../format';
  import SittingQuestion from './SittingQuestion.svelte';
  import SittingReview from './SittingReview.svelte';
  import { Sitting } from './sitting.svelte';

  /** A whole quiz as one student sits it. */
  let { quiz }: { quiz: QuizHead } = $props();
  // svelte-ignore state_referenced_locally
  const sitting = new Sitting(quiz);
  let seed = $state('1');
  let opened = $state(false);
  onMount(async () => {
    await sitting.resume();
    opened = true;
  });
</script>

{#if sitting.trouble}<p class="text-brick mb-3" role="alert">{sitting.trouble}</p>{/if}
{#if !opened}<p class="text-quiet" role="status">Opening…</p>
{:else if !sitting.kept || !sitting.set}
  <div class="max-w-[680px]">
    {#if quiz.instructions}<div
        class="item-text border-hair mb-4 border-l-2 pl-4 whitespace-pre-line"
        dir="auto"
      >
        {quiz.instructions}
      </div>{/if}
    <p class="mb-4">
      {plural(quiz.items, 'question')}, {plural(quiz.points, 'point')}{quiz.minutes === null
        ? ', no time limit'
        : `, ${plural(quiz.minutes, 'minute')}`}{quiz.passMark === null
        ? ''
        : `, passed with ${plural(quiz.passMark, 'point')}`}.
    </p>
    <form
      class="flex flex-wrap items-end gap-3"
      onsubmit={(e) => {
        e.preventDefault();
        void sitting.begin(seed.trim());
      }}
    >
      <label class="text-quiet text-[12.5px]"
        >Candidate, any text<input
          class="border-hair bg-surface text-ink block h-8 w-44 rounded border px-2 text-[14px]"
          dir="auto"
          maxlength="200"
          bind:value={seed}
        /></label
      >
      <Button type="submit" color="primary" disabled={sitting.busy}>Begin</Button>
    </form>
    <p class="text-quiet mt-2 text-[13px]">
      Draws, orders and numbers follow from the candidate: the same one is set the same questions. Nothing of
      this goes anywhere; what you answer stays in this browser until you begin anew.
    </p>
  </div>
{:else if sitting.kept.over}<SittingReview {sitting} />
{:else}<SittingQuestion {sitting} />{/if}

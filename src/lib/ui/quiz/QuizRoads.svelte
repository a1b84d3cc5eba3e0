<script lang="ts">
  import { QUIZ_VIEWS, type QuizView } from '$lib/shared/quizzes';
  import { quizPath, VIEW_NAMES } from './paths';

  /** From a quiz to where it is tried, looked at and printed. */
  let { packageId, quizId }: { packageId: string; quizId: string } = $props();
  /** Beside questions, which can be tried as well. */
  const names: Readonly<Record<QuizView, string>> = { ...VIEW_NAMES, try: 'Try the quiz' };
</script>

<nav class="flex flex-wrap gap-x-4" aria-label="This quiz">
  {#each QUIZ_VIEWS as view (view)}<a
      class="act inline-flex min-h-6 items-center"
      href={quizPath(packageId, quizId, view)}>{names[view]}</a
    >{/each}
</nav>

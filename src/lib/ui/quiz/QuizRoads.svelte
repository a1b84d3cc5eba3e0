<script lang="ts">
  import { QUIZ_VIEWS } from '$lib/shared/quizzes';
  import { quizPath, VIEW_NAMES } from './paths';

  /** From a quiz to where it is tried, looked at and printed. */
  let { packageId, quizId }: { packageId: string; quizId: string } = $props();
</script>

<nav class="border-hair flex flex-wrap gap-x-4 border-b px-3 py-1 text-[13px]" aria-label="This quiz">
  {#each QUIZ_VIEWS as view (view)}<a class="act min-h-6" href={quizPath(packageId, quizId, view)}
      >{VIEW_NAMES[view]}</a
    >{/each}
</nav>

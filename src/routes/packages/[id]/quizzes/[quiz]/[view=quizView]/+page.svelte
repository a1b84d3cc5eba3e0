<script lang="ts">
  import { plural } from '$lib/ui/format';
  import DrawsView from '$lib/ui/quiz/DrawsView.svelte';
  import { quizPath, VIEW_NAMES } from '$lib/ui/quiz/paths';
  import TryView from '$lib/ui/quiz/TryView.svelte';
  import VersionsView from '$lib/ui/quiz/VersionsView.svelte';
  import { QUIZ_VIEWS } from '$lib/shared/quizzes';
  import Page from '$lib/ui/shell/Page.svelte';

  let { data } = $props();
  const quiz = $derived(data.quiz);
  const back = $derived(
    quiz.made === null
      ? {
          href: `/packages/${quiz.packageId}?in=${encodeURIComponent(`quiz:${quiz.id}`)}`,
          name: quiz.packageName,
        }
      : { href: `/quizzes/${quiz.made}`, name: 'Back to making it' },
  );
</script>

<Page title={quiz.title} tab="{quiz.title}, {VIEW_NAMES[data.view]}" {back}>
  {#snippet aside()}
    {plural(quiz.items, 'question')}, {plural(quiz.points, 'point')}{quiz.draws > 0
      ? `, ${plural(quiz.draws, 'draw')}`
      : ''}{quiz.minutes === null ? '' : `, ${plural(quiz.minutes, 'minute')}`}
  {/snippet}
  <nav class="border-hair mb-5 flex flex-wrap gap-x-6 border-b" aria-label="This quiz">
    {#each QUIZ_VIEWS as view (view)}<a
        href={quizPath(quiz.packageId, quiz.id, view)}
        aria-current={view === data.view ? 'page' : undefined}
        class="aria-[current]:border-saddle text-quiet aria-[current]:text-ink -mb-px border-b-2 border-transparent pb-2 aria-[current]:font-semibold"
        >{VIEW_NAMES[view]}</a
      >{/each}
  </nav>
  {#key `${quiz.packageId} ${quiz.id}`}
    {#if data.view === 'try'}<TryView {quiz} />
    {:else if data.view === 'draws'}<DrawsView {quiz} />
    {:else}<VersionsView {quiz} />{/if}
  {/key}
</Page>

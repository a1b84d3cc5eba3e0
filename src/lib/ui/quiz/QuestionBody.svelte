<script lang="ts">
  import type { SetView } from '$lib/shared/quizzes';
  import Content from '../content/Content.svelte';
  import { typesOf, type AnswerSheet, type Showing } from '../content/answers.svelte';

  /** A question as its candidate reads it, to be answered or as it was. */
  interface Props {
    item: SetView['items'][number]['item'];
    sheet: AnswerSheet;
    files: string;
  }
  let { item, sheet, files }: Props = $props();
  const show = $derived<Showing>({
    files,
    sheet,
    keyed: new Set(),
    printed: {},
    ...typesOf(item.responses),
  });
</script>

<div class="item-text" lang={item.language ?? undefined} dir="auto">
  {#each item.stimuli as passage, n (n)}<section
      aria-label={passage.title || 'Passage'}
      class="border-hair mb-3 border-b pb-3"
    >
      <Content nodes={passage.content} {show} />
    </section>{/each}
  <Content nodes={item.body} {show} />
</div>

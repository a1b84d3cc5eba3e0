<script lang="ts">
  import type { RoomRows, RoomView } from '$lib/shared/room';
  import Bars from '../charts/Bars.svelte';
  import { count, KIND_NAMES, plural } from '../format';
  import { choicesAt, itemsAt, UNCATEGORISED } from './places';

  /** A package in pictures: where its points are, of which kinds and categories its items are. */
  let { rows, view }: { rows: RoomRows; view: RoomView } = $props();
  const choices = $derived(choicesAt(itemsAt({ kind: 'all' }, view), rows, view));
  const total = $derived(rows.points.reduce((sum, p) => sum + p, 0));
  const kinds = $derived(
    choices.kind.map(({ value, count: n }) => ({ name: KIND_NAMES[value] ?? value, value: n })),
  );
  const categories = $derived(
    choices.category.map(({ value, count: n }) => ({
      name: value === UNCATEGORISED ? 'no category' : value,
      value: n,
    })),
  );
  const sections = $derived(
    view.quizzes.flatMap((quiz) =>
      quiz.sections.map((s) => ({
        name:
          quiz.sections.length === 1
            ? quiz.title
            : view.quizzes.length === 1
              ? s.title
              : `${quiz.title}: ${s.title}`,
        value: s.points,
      })),
    ),
  );
  const worth = $derived(
    choices.points.map(({ value, count: n }) => ({ name: plural(Number(value), 'point'), value: n })),
  );
</script>

<h2 class="mb-3 text-[15px]">
  {plural(view.items, 'item')}, {count(total)} points; {plural(view.quizzes.length, 'quiz', 'quizzes')}, {plural(
    view.banks.length,
    'bank',
  )}
</h2>
<div class="grid max-w-[1000px] grid-cols-2 gap-x-10 gap-y-6 max-lg:grid-cols-1">
  {#if sections.length > 0}<Bars
      title="Points a student can reach, by section"
      unit="points"
      bars={sections}
    />{/if}
  <Bars title="Kinds of questions" unit="items" bars={kinds} />
  {#if categories.length > 1}<Bars title="Categories" unit="items" bars={categories} />{/if}
  <Bars title="What a question is worth" unit="items" bars={worth} />
</div>

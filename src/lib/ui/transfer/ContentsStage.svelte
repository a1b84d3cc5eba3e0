<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import {
    tickId,
    type ContentsView,
    type CourseAssignment,
    type ThingGroup,
    type Tick,
    type Tree,
  } from '@alforja/core';
  import type { TransferOptions } from '$lib/shared/transfers';
  import type { ItemRow } from '$lib/shared/types';
  import { plural } from '../format';
  import ItemLine from './ItemLine.svelte';
  import Outcome from './Outcome.svelte';
  import ThingLine from './ThingLine.svelte';
  import { groupsShown, looseItems, pointsIn, says, thingsOf, withoutTick, type Thing } from './things';
  import { TickSheet } from './ticks.svelte';

  interface Props {
    transferId: string;
    tree: Tree;
    rows: readonly ItemRow[];
    ticks: readonly Tick[];
    groups: readonly ThingGroup[];
    /** Work of the source course that is handed in: it stays, the rubric that grades it may go. */
    assignments: readonly CourseAssignment[];
    contents: ContentsView;
    /** Which settings come along. */
    options: TransferOptions;
    toCourse: boolean;
    base: string;
  }
  let { transferId, tree, rows, ticks, groups, assignments, contents, options, toCourse, base }: Props =
    $props();
  // svelte-ignore state_referenced_locally
  const sheet = new TickSheet(transferId, ticks, contents);
  let filter = $state('');
  const KINDS = [
    { kind: 'quiz', name: 'quizzes' },
    { kind: 'bank', name: 'banks' },
    { kind: 'rubric', name: 'rubrics' },
    { kind: 'link', name: 'links' },
  ] as const;
  const byId = $derived(new Map(rows.map((r) => [r.id, r])));
  const loose = $derived(looseItems(tree, rows));
  const things = $derived(thingsOf(tree, rows, assignments));
  const shownGroups = $derived(groupsShown(groups, things, filter));
  const reasons = $derived(new Map(sheet.contents.dependencies.map((d) => [`${d.kind} ${d.id}`, d])));
  const everything = $derived<Tick[]>([
    ...[...things.values()].map((t) => t.tick),
    ...loose.map((r): Tick => ({ kind: 'item', nodeId: r.id })),
  ]);
  const goes = (t: Thing): boolean => sheet.has(t.tick) || reasons.has(tickId(t.tick));
  const nameOf = (id: string): string =>
    things.get(tickId({ kind: 'quiz', nodeId: id }))?.title ??
    things.get(tickId({ kind: 'bank', nodeId: id }))?.title ??
    byId.get(id)?.name ??
    id;

  /**
   * A bank that a quiz needs, or a rubric that an item is graded by, is left out only knowingly, and said so.
   */
  function toggle(t: Thing): void {
    const { kind } = t.tick;
    const without = withoutTick(t.tick);
    const depends = kind === 'bank' || kind === 'rubric';
    if (depends && !sheet.has(t.tick) && reasons.has(tickId(t.tick))) sheet.all([without], true);
    else if (depends && sheet.has(without)) sheet.all([without], false);
    else sheet.toggle(t.tick, t.items);
  }
  function undoByKey(event: KeyboardEvent): void {
    if (event.key !== 'z' || !(event.ctrlKey || event.metaKey) || !sheet.canUndo) return;
    event.preventDefault();
    sheet.undo();
  }
</script>

<svelte:window onkeydown={undoByKey} />

<div class="grid grid-cols-[minmax(0,1fr)_330px] gap-5 max-lg:grid-cols-1">
  <section aria-label="What is included">
    <div class="mb-2 flex flex-wrap items-center gap-3">
      <Button color="alternative" onclick={() => sheet.set(everything)}>Everything</Button>
      <Button color="alternative" onclick={() => sheet.set([])}>Nothing</Button>
      {#each KINDS as k (k.kind)}
        {#if everything.some((t) => t.kind === k.kind)}<button
            type="button"
            class="act"
            onclick={() => sheet.set(everything.filter((t) => t.kind === k.kind))}>Only {k.name}</button
          >{/if}
      {/each}
      <input
        type="search"
        aria-label="Filter this list"
        placeholder="Filter…"
        bind:value={filter}
        class="border-hair bg-surface text-ink placeholder:text-quiet ml-auto h-8 w-[190px] rounded border px-2.5 text-[13.5px]"
      />
      <button
        type="button"
        class="act disabled:text-quiet disabled:no-underline"
        disabled={!sheet.canUndo}
        onclick={() => sheet.undo()}>Undo</button
      >
    </div>
    <div class="border-hair bg-surface border border-b-0">
      {#each shownGroups as g (g.id)}
        {@const on = g.things.filter(goes).length}
        {@const inside = [...new Set(g.things.flatMap((t) => t.items))]}
        <div class="border-hair bg-band flex items-center gap-3 border-b px-4 py-1.5">
          <input
            type="checkbox"
            class="border-quiet text-agave size-[16px] shrink-0 rounded-sm dark:bg-transparent"
            aria-label="All of {g.name}"
            checked={on === g.things.length}
            indeterminate={on > 0 && on < g.things.length}
            onchange={() =>
              sheet.all(
                g.things.map((t) => t.tick),
                on < g.things.length,
              )}
          />
          <h2 class="truncate text-[13.5px]" dir="auto">{g.name}</h2>
          <span class="num text-quiet ml-auto shrink-0 text-[12.5px]"
            >{on} of {g.things.length}{inside.length > 0
              ? `, ${plural(inside.length, 'item')}, ${plural(pointsIn(inside), 'point')}`
              : ''}</span
          >
        </div>
        <ul>
          {#each g.things as t (tickId(t.tick))}<ThingLine
              thing={t}
              {sheet}
              {filter}
              {nameOf}
              goes={goes(t)}
              brought={sheet.has(t.tick) ? undefined : reasons.get(tickId(t.tick))}
              ontoggle={() => toggle(t)}
            />{/each}
        </ul>
      {/each}
      {#if loose.length > 0}
        <div class="text-quiet px-4 pt-2 text-[12.5px] font-semibold">In no quiz or bank</div>
        <ul class="border-hair border-b pb-1">
          {#each loose.filter((r) => says(r.name, filter)) as row (row.seq)}<ItemLine
              {row}
              inside={null}
              {sheet}
            />{/each}
        </ul>
      {/if}
      {#if shownGroups.length === 0 && loose.length === 0}<p
          class="text-quiet border-hair border-b px-4 py-3"
        >
          {filter.trim() === '' ? 'There is nothing in it.' : `No matches for “${filter}”. Try fewer words.`}
        </p>{/if}
      {#if toCourse && tree.rubrics.length === 0}<p
          class="text-quiet border-hair border-b px-4 py-2 text-[13px]"
        >
          No rubrics here.
        </p>{/if}
    </div>
  </section>
  <Outcome {transferId} {sheet} {options} {toCourse} {things} itemName={(id) => byId.get(id)?.name} {base} />
</div>

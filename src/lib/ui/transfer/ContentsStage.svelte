<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import { LOOSE, tickId, type Tick } from '@alforja/core';
  import type { ContentsList, ContentsShown, Thing } from '$lib/shared/contents';
  import type { TransferOptions } from '$lib/shared/transfers';
  import { plural } from '../format';
  import { ListFilter } from './listFilter.svelte';
  import LooseItems from './LooseItems.svelte';
  import Outcome from './Outcome.svelte';
  import ThingLine from './ThingLine.svelte';
  import { thingsIn, withoutTick } from './things';
  import { TickSheet } from './ticks.svelte';

  interface Props {
    transferId: string;
    list: ContentsList;
    ticks: readonly Tick[];
    contents: ContentsShown;
    /** Which settings come along. */
    options: TransferOptions;
    toCourse: boolean;
    base: string;
  }
  let { transferId, list, ticks, contents, options, toCourse, base }: Props = $props();
  // svelte-ignore state_referenced_locally
  const sheet = new TickSheet(transferId, ticks, contents);
  // svelte-ignore state_referenced_locally
  const filter = new ListFilter(transferId);
  const KINDS = [
    { kind: 'quiz', name: 'quizzes' },
    { kind: 'bank', name: 'banks' },
    { kind: 'rubric', name: 'rubrics' },
    { kind: 'link', name: 'links' },
  ] as const;
  const things = $derived(thingsIn(list));
  const shown = $derived(filter.list ?? list);
  const reasons = $derived(new Map(sheet.contents.dependencies.map((d) => [`${d.kind} ${d.id}`, d])));
  const everything = $derived<Tick[]>([
    ...[...things.values()].map((t) => t.tick),
    ...(list.loose > 0 ? [LOOSE] : []),
  ]);
  const goes = (t: Thing): boolean => sheet.has(t.tick) || reasons.has(tickId(t.tick));

  /**
   * A bank that a quiz needs, or a rubric that an item is graded by, is left out only knowingly, and said so.
   */
  function toggle(t: Thing): void {
    const { kind } = t.tick;
    const without = withoutTick(t.tick);
    const depends = kind === 'bank' || kind === 'rubric';
    if (depends && !sheet.has(t.tick) && reasons.has(tickId(t.tick))) sheet.all([without], true);
    else if (depends && sheet.has(without)) sheet.all([without], false);
    else sheet.toggle(t.tick);
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
        value={filter.text}
        oninput={(e) => filter.set(e.currentTarget.value)}
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
      {#each shown.groups as g (g.id)}
        {@const on = g.things.filter(goes).length}
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
            >{on} of {g.things.length}{g.items > 0
              ? `, ${plural(g.items, 'item')}, ${plural(g.points, 'point')}`
              : ''}</span
          >
        </div>
        <ul>
          {#each g.things as t (tickId(t.tick))}<ThingLine
              {transferId}
              thing={t}
              {sheet}
              filter={filter.applied}
              goes={goes(t)}
              brought={sheet.has(t.tick) ? undefined : reasons.get(tickId(t.tick))}
              ontoggle={() => toggle(t)}
            />{/each}
        </ul>
      {/each}
      {#if shown.loose > 0}<LooseItems
          {transferId}
          count={shown.loose}
          filter={filter.applied}
          {sheet}
        />{/if}
      {#if shown.groups.length === 0 && shown.loose === 0}<p
          class="text-quiet border-hair border-b px-4 py-3"
        >
          {filter.applied === ''
            ? 'There is nothing in it.'
            : `No matches for “${filter.applied}”. Try fewer words.`}
        </p>{/if}
      {#if toCourse && list.rubrics === 0}<p class="text-quiet border-hair border-b px-4 py-2 text-[13px]">
          No rubrics here.
        </p>{/if}
    </div>
  </section>
  <Outcome {transferId} {sheet} {options} {toCourse} {base} />
</div>

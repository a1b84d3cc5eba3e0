<script lang="ts">
  import ArrowDown from '@lucide/svelte/icons/arrow-down';
  import ArrowUp from '@lucide/svelte/icons/arrow-up';
  import Trash2 from '@lucide/svelte/icons/trash-2';
  import type { DraftSection } from '@alforja/core';
  import { count, plural } from '../format';
  import DrawFields from './DrawFields.svelte';
  import type { Maker, Shown } from './maker.svelte';
  import SectionRow from './SectionRow.svelte';
  import { dragged } from './shelf.svelte';

  interface Props {
    maker: Maker;
    section: DraftSection;
    at: number;
    /** The number of its first question. */
    first: number;
    look: (row: Shown) => void;
  }
  let { maker, section, at, first, look }: Props = $props();
  const rows = $derived(maker.rowsOf(section.id));
  const weighed = $derived(maker.view.sections.find((s) => s.id === section.id));
  const called = $derived(section.title || `Section ${at + 1}`);
  const target = $derived(section.draw === null && maker.into === section.id);
  let over = $state(false);

  /** What is dragged comes to stand before a place. */
  function drop(to: number): void {
    over = false;
    if (section.draw !== null) return;
    if (dragged.key !== null) {
      const had = section.items.findIndex((i) => i.key === dragged.key);
      maker.do({
        do: 'move',
        key: dragged.key,
        section: section.id,
        at: had >= 0 && had < to ? to - 1 : to,
      });
    } else if (dragged.rows.length > 0) maker.add(dragged.rows, section.id, to);
  }
</script>

<section
  aria-label={called}
  class="mb-5 {over && section.draw === null
    ? 'outline-agave outline-2 outline-dashed outline-offset-4'
    : ''}"
  ondragover={(e) => {
    if (section.draw !== null) return;
    e.preventDefault();
    over = true;
  }}
  ondragleave={() => (over = false)}
  ondrop={(e) => {
    e.preventDefault();
    drop(section.items.length);
  }}
>
  <div class="border-saddle flex items-center gap-2 border-b-2 pb-1">
    <input
      value={section.title}
      placeholder="Section {at + 1}"
      aria-label="Name of section {at + 1}"
      dir="auto"
      maxlength="500"
      onchange={(e) => maker.do({ do: 'section', section: section.id, to: { title: e.currentTarget.value } })}
      class="placeholder:text-quiet text-ink h-7 min-w-0 grow border-0 bg-transparent p-0 text-[15px] font-semibold"
    />
    <span class="num text-quiet shrink-0 text-[13px]"
      >{#if weighed}{plural(section.draw ? section.draw.pick : rows.length, 'question')}, {weighed.least ===
        weighed.most
          ? count(weighed.least)
          : `${count(weighed.least)} to ${count(weighed.most)}`} points{/if}</span
    >
    <span class="flex shrink-0">
      <button
        type="button"
        class="icon-button"
        aria-label="Move {called} up"
        disabled={at === 0}
        onclick={() => maker.do({ do: 'section-move', section: section.id, at: at - 1 })}
        ><ArrowUp size={14} /></button
      >
      <button
        type="button"
        class="icon-button"
        aria-label="Move {called} down"
        disabled={at === maker.draft.sections.length - 1}
        onclick={() => maker.do({ do: 'section-move', section: section.id, at: at + 1 })}
        ><ArrowDown size={14} /></button
      >
      <button
        type="button"
        class="icon-button"
        aria-label="Take {called} out"
        onclick={() => maker.do({ do: 'section-drop', section: section.id })}><Trash2 size={14} /></button
      >
    </span>
  </div>
  {#if section.draw}<DrawFields {maker} {section} draw={section.draw} />{:else}
    <ol>
      {#each rows as row, n (row.key)}<SectionRow
          {maker}
          section={section.id}
          {row}
          at={n}
          of={rows.length}
          number={first + n}
          look={() => look(row)}
          {drop}
        />{/each}
    </ol>
    {#if rows.length === 0}<p class="text-quiet border-hair border-b py-2 text-[13.5px]">
        Nothing here yet. Tick questions at the left and put them in, or drag them here.
      </p>{/if}
  {/if}
  <div class="text-quiet mt-1 flex flex-wrap items-center gap-x-4 text-[13px]">
    {#if section.draw === null}<label class="flex items-center gap-1.5"
        ><input
          type="radio"
          name="into"
          checked={target}
          onchange={() => (maker.into = section.id)}
          class="text-agave size-[14px] dark:bg-transparent"
        /> questions go in here</label
      >{/if}
    <label class="flex items-center gap-1.5"
      ><input
        type="checkbox"
        checked={section.shuffle}
        onchange={(e) =>
          maker.do({ do: 'section', section: section.id, to: { shuffle: e.currentTarget.checked } })}
        class="border-quiet text-agave size-[14px] rounded-sm dark:bg-transparent"
      /> in another order for everybody</label
    >
  </div>
</section>

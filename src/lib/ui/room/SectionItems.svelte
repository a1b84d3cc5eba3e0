<script lang="ts">
  import ArrowDown from '@lucide/svelte/icons/arrow-down';
  import ArrowUp from '@lucide/svelte/icons/arrow-up';
  import type { Edit } from '@alforja/core';
  import { fromRuns, type RoomQuiz, type RoomSection } from '$lib/shared/room';
  import { count, typedNumber } from '../format';
  import { itemIds } from './itemIds';
  import type { Room } from './room.svelte';

  /** The items of a section in their order, what each counts, and the way into another section. */
  interface Props {
    quiz: RoomQuiz;
    section: RoomSection;
    /** Which section of the quiz it is, from 0. */
    place: number;
    room: Room;
    make: (...edits: Edit[]) => void;
  }
  let { quiz, section, place, room, make }: Props = $props();
  const node = $derived(quiz.id);
  const items = $derived(fromRuns(section.items));
  const MOST_LISTED = 60;
  const weights = $derived(new Map(section.weights));
  $effect(() => void room.names.want(items.slice(0, MOST_LISTED)));

  async function move(seq: number, to: RoomSection, at: number): Promise<void> {
    const [item] = await itemIds(room.packageId, [seq]);
    make({ op: 'place', node, item: item!, section: to.name, at });
  }
  async function weigh(seq: number, text: string): Promise<void> {
    const to = typedNumber(text);
    if (to === null || to < 0) return;
    const [item] = await itemIds(room.packageId, [seq]);
    make({ op: 'weight', node, item: item!, to });
  }
  const field = 'border-hair bg-surface text-ink h-7 rounded border px-2 text-[12.5px]';
</script>

<ol class="mt-1" aria-label="Items of section {place + 1}">
  {#each items.slice(0, MOST_LISTED) as seq, at (seq)}
    <li class="flex items-center gap-2 py-0.5">
      <span class="num text-quiet w-6 shrink-0 text-right text-[12.5px]">{at + 1}</span>
      <span class="min-w-0 grow truncate font-serif text-[14.5px]" dir="auto"
        >{room.names.of(seq) ?? '…'}</span
      >
      <label class="text-quiet flex shrink-0 items-center gap-1 text-[12.5px]"
        >counts<input
          class="{field} num w-12"
          inputmode="decimal"
          aria-label="How many times item {at + 1} counts"
          value={weights.get(at) ?? 1}
          onchange={(e) => weigh(seq, e.currentTarget.value)}
        />×</label
      >
      <button
        type="button"
        class="icon-button"
        aria-label="Item {at + 1} up"
        disabled={at === 0}
        onclick={() => move(seq, section, at - 1)}><ArrowUp size={14} /></button
      >
      <button
        type="button"
        class="icon-button"
        aria-label="Item {at + 1} down"
        disabled={at === items.length - 1}
        onclick={() => move(seq, section, at + 1)}><ArrowDown size={14} /></button
      >
      {#if quiz.parts.length > 1}<select
          class="{field} max-w-[130px] truncate py-0 pr-7"
          aria-label="Section of item {at + 1}"
          value={place}
          onchange={(e) => {
            const to = quiz.parts[Number(e.currentTarget.value)]!;
            void move(seq, to, fromRuns(to.items).length);
          }}
          >{#each quiz.parts as p, k (k)}<option value={k} disabled={p.draw !== null}
              >{p.title || `Section ${k + 1}`}</option
            >{/each}</select
        >{/if}
    </li>
  {/each}
</ol>
{#if items.length > MOST_LISTED}<p class="text-quiet text-[12.5px]">
    and {count(items.length - MOST_LISTED)} more, in the list
  </p>{/if}

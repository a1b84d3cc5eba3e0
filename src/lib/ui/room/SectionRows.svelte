<script lang="ts">
  import type { Edit, EditOf } from '@alforja/core';
  import { fromRuns, type RoomQuiz, type RoomSection } from '$lib/shared/room';
  import { count, plural, typedNumber } from '../format';
  import type { Changes } from './changes.svelte';
  import { itemIds } from './itemIds';
  import type { Room } from './room.svelte';
  import SectionItems from './SectionItems.svelte';

  /** The sections of a quiz: their names, what is drawn in them, and the order of what stands in them. */
  let { quiz, room, changes }: { quiz: RoomQuiz; room: Room; changes: Changes } = $props();
  const node = $derived(quiz.id);
  const make = (...edits: Edit[]): void => void changes.make('hand', edits);
  const number = (text: string): number | null => {
    const n = typedNumber(text);
    return n !== null && n >= 0 ? n : null;
  };
  function draw(section: RoomSection, to: EditOf<'draw'>['to']): void {
    make({ op: 'draw', node, section: section.name, to });
  }
  /** Different points in a pool: each gets a draw of its own, of as many as its share of the pool. */
  const pointsIn = (section: RoomSection): number[] => [
    ...new Set(fromRuns(section.draw!.pool).map((at) => room.rows.points[at] ?? 0)),
  ];
  async function splitByPoints(section: RoomSection): Promise<void> {
    const pool = fromRuns(section.draw!.pool);
    const ids = await itemIds(room.packageId, pool);
    const groups = pointsIn(section)
      .sort((a, b) => a - b)
      .map((points) => ({ points, items: ids.filter((_, n) => room.rows.points[pool[n]!] === points) }));
    const share = (items: number): number =>
      Math.min(items, Math.max(1, Math.round((section.draw!.pick * items) / pool.length)));
    make({
      op: 'draw-split',
      node,
      section: section.name,
      to: groups.map(({ points, items }) => ({
        title: `${section.title || 'Drawn'}, ${plural(points, 'point')}`,
        pick: share(items.length),
        pool: items,
        pointsEach: points,
      })),
    });
  }
  const field = 'border-hair bg-surface text-ink h-7 rounded border px-2 text-[13.5px]';
</script>

<h3 class="mt-5 text-[14px]">Sections</h3>
{#each quiz.parts as section, n (n)}
  {@const items = fromRuns(section.items)}
  <div class="border-hair border-b py-2" role="group" aria-label="Section {n + 1}">
    <div class="flex flex-wrap items-center gap-2.5 text-[13.5px]">
      <input
        class="{field} w-[220px] font-serif"
        dir="auto"
        aria-label="Title of section {n + 1}"
        placeholder="no title"
        value={section.title}
        onchange={(e) =>
          make({ op: 'section-title', node, section: section.name, to: e.currentTarget.value })}
      />
      {#if section.draw}
        {@const worth = pointsIn(section)}
        <label
          >draws <input
            class="{field} num w-14"
            inputmode="numeric"
            aria-label="How many are drawn in section {n + 1}"
            value={section.draw.pick}
            onchange={(e) => {
              const pick = number(e.currentTarget.value);
              if (pick !== null && pick >= 1) draw(section, { pick: Math.round(pick) });
            }}
          />
          of {count(fromRuns(section.draw.pool).length)},</label
        >
        <label
          ><input
            class="{field} num w-14"
            inputmode="decimal"
            aria-label="Points for each of section {n + 1}"
            value={section.draw.pointsEach}
            onchange={(e) => {
              const pointsEach = number(e.currentTarget.value);
              if (pointsEach !== null) draw(section, { pointsEach });
            }}
          /> points each</label
        >
        {#if room.view.banks.length > 0}<label class="text-quiet"
            >from <select
              class="{field} max-w-[180px] truncate py-0 pr-7"
              aria-label="Bank of section {n + 1}"
              value={section.draw.bank ?? ''}
              onchange={(e) => draw(section, { pool: e.currentTarget.value })}
              >{#if section.draw.bank === null}<option value="">its own items</option
                >{/if}{#each room.view.banks as b (b.id)}<option value={b.id}>{b.title}</option
                >{/each}</select
            ></label
          >{/if}
        <button
          type="button"
          class="act"
          onclick={() => make({ op: 'draw-fix', node, section: section.name })}>Same for everybody</button
        >
        {#if worth.length > 1}<button type="button" class="act" onclick={() => splitByPoints(section)}
            >Split by points ({count(worth.length)})</button
          >{/if}
      {:else}<span class="text-quiet">{plural(items.length, 'item')}</span>{/if}
      {#if quiz.parts.length > 1}<button
          type="button"
          class="act ml-auto"
          onclick={() => make({ op: 'section-drop', node, section: section.name })}>Take out</button
        >{/if}
    </div>
    {#if !section.draw && items.length > 0}<SectionItems {quiz} {section} place={n} {room} {make} />{/if}
  </div>
{/each}
<button
  type="button"
  class="act mt-2 text-[13.5px]"
  onclick={() =>
    make({
      op: 'section-add',
      node,
      id: `section-${quiz.parts.length + 1}-${Date.now().toString(36)}`,
      to: `Section ${quiz.parts.length + 1}`,
      after: quiz.parts.length > 0 ? quiz.parts.length - 1 : null,
    })}>Add a section</button
>

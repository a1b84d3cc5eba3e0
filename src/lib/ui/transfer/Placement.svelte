<script lang="ts">
  import { dayOf, weekdayOf } from '../format';
  import type { CourseOutline, Landing, LandingOverride } from '@alforja/core';

  /** Section, visibility and dates of a thing where it lands. */
  interface Props {
    landing: Landing;
    outline: CourseOutline;
    onchange: (change: LandingOverride) => void;
  }
  let { landing: l, outline, onchange }: Props = $props();
  const FOUND = {
    name: 'same name',
    similar: 'similar name, please check',
    position: 'by position',
    hand: 'by hand',
    none: 'no matching section',
    outside: 'outside sections, as in the source',
  } as const;
  const found = $derived(FOUND[l.sectionBy]);
  /** Each date with where it was, and the days of the week: a quiz on Monday should not open on Sunday. */
  const dates = $derived(
    (['opens', 'closes'] as const).map((what) => {
      const [now, was, other] = [l[what], l.was?.[what], what === 'opens' ? l.closes : l.opens];
      const moved = was != null && was !== now;
      const day = now === null ? (moved ? 'no date' : '') : weekdayOf(now);
      return {
        what,
        now,
        like: now ?? other,
        says: moved ? `${day}; in the source ${dayOf(was)}` : day,
        moved,
      };
    }),
  );
  const local = (iso: string | null): string => iso?.slice(0, 16) ?? '';
  const zone = (iso: string | null): string => iso?.slice(19) || 'Z';
  const iso = (value: string, like: string | null): string | null =>
    value === '' ? null : `${value}:00${zone(like)}`;
</script>

<div class="mt-1.5 flex flex-wrap items-center gap-x-2.5 gap-y-1.5 pl-[74px] text-[13px]">
  <span class="flex items-center gap-2">
    <select
      aria-label="Section of {l.name}"
      value={l.section ?? ''}
      onchange={(e) => onchange({ section: e.currentTarget.value || null })}
      class="border-hair bg-surface text-ink h-7 max-w-[150px] rounded border py-0 text-[13px] {l.sectionBy ===
      'none'
        ? 'border-brick'
        : ''}"
    >
      <option value="">{l.sectionBy === 'none' ? 'Choose a section' : 'Outside sections'}</option>
      {#each outline.sections as s (s.id)}<option value={s.id}>{s.name}</option>{/each}
    </select>
    <span class={l.sectionBy === 'none' || l.sectionBy === 'similar' ? 'text-ochre' : 'text-quiet'}
      >{found}</span
    >
  </span>
  <label class="flex items-center gap-2"
    ><input
      type="checkbox"
      checked={l.hidden}
      onchange={(e) => onchange({ hidden: e.currentTarget.checked })}
      class="border-quiet text-agave size-[14px] rounded-sm dark:bg-transparent"
    />hidden</label
  >
</div>
{#if l.kind === 'quiz'}
  <div class="mt-1.5 flex flex-col gap-y-1.5 pl-[74px] text-[13px] max-md:pl-0">
    {#each dates as date (date.what)}
      <div class="flex flex-wrap items-center gap-x-2.5">
        <label class="flex items-center gap-2"
          ><span class="w-[44px]">{date.what}</span>
          <input
            type="datetime-local"
            value={local(date.now)}
            onchange={(e) => onchange({ [date.what]: iso(e.currentTarget.value, date.like) })}
            class="border-hair bg-surface text-ink num h-7 w-[208px] rounded border px-1.5 text-[12.5px]"
          /></label
        >
        <span class="text-quiet" data-testid={date.moved ? 'moved' : undefined}
          >{[date.like ? `UTC${zone(date.like).replace('Z', '')}` : '', date.says]
            .filter(Boolean)
            .join(' · ')}</span
        >
      </div>
    {/each}
  </div>
{/if}

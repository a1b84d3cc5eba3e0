<script lang="ts">
  import { dayOf } from '../format';
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
  /** Where the dates were, with the days of the week: a quiz on Monday should not open on Sunday. */
  const moved = $derived(
    (
      [
        ['opens', l.opens, l.was?.opens],
        ['closes', l.closes, l.was?.closes],
      ] as const
    ).flatMap(([what, now, was]) =>
      was == null || was === now
        ? []
        : [`${what} ${now === null ? 'on no date' : dayOf(now)}; in the source ${dayOf(was)}`],
    ),
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
  {#if l.kind === 'quiz'}
    <label class="flex items-center gap-2"
      >opens <input
        type="datetime-local"
        value={local(l.opens)}
        onchange={(e) => onchange({ opens: iso(e.currentTarget.value, l.opens ?? l.closes) })}
        class="border-hair bg-surface text-ink num h-7 w-[170px] rounded border px-1.5 text-[12.5px]"
      /></label
    >
    <label class="flex items-center gap-2"
      >closes <input
        type="datetime-local"
        value={local(l.closes)}
        onchange={(e) => onchange({ closes: iso(e.currentTarget.value, l.closes ?? l.opens) })}
        class="border-hair bg-surface text-ink num h-7 w-[170px] rounded border px-1.5 text-[12.5px]"
      /></label
    >
    {#if l.opens || l.closes}<span class="text-quiet">UTC{zone(l.opens ?? l.closes).replace('Z', '')}</span
      >{/if}
    {#each moved as said, n (n)}<span class="text-quiet basis-full" data-testid="moved">{said}</span>{/each}
  {/if}
</div>

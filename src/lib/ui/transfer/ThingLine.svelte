<script lang="ts">
  import { says, type ContentsShown, type Thing } from '$lib/shared/contents';
  import ItemPages from './ItemPages.svelte';
  import { holdsOf, kindWord, wordOf } from './things';
  import type { TickSheet } from './ticks.svelte';

  type Brought = ContentsShown['dependencies'][number];
  interface Props {
    transferId: string;
    thing: Thing;
    sheet: TickSheet;
    filter: string;
    /** Whether it goes, ticked or needed. */
    goes: boolean;
    /** Why it comes along, where it is not ticked itself. */
    brought: Brought | undefined;
    ontoggle: () => void;
  }
  let { transferId, thing: t, sheet, filter, goes, brought, ontoggle }: Props = $props();
  const holds = $derived(holdsOf(t));
  let unfolded = $state(false);
  const filtered = $derived(filter.trim() !== '');
  const open = $derived(unfolded || (filtered && !says(t.title, filter)));
  const single = $derived(sheet.singles(t.tick));
  const broken = $derived(
    t.tick.kind === 'bank' ? sheet.contents.broken.filter((b) => b.bank === t.tick.nodeId) : [],
  );
  const ungraded = $derived(
    t.tick.kind === 'rubric' ? sheet.contents.ungraded.filter((u) => u.rubric === t.tick.nodeId) : [],
  );
  function why({ by, reason }: Brought): string {
    if (reason === 'drawn-from') return `${by} draws from it`;
    return reason === 'grades-it' ? `“${by}” is graded by it` : `${by} needs it`;
  }
</script>

<li class="border-hair border-b">
  <div class="flex items-center gap-3 py-2 pr-4 pl-9">
    <input
      type="checkbox"
      class="border-quiet text-agave size-[16px] shrink-0 rounded-sm dark:bg-transparent"
      aria-label="{kindWord(t)} {t.title}"
      checked={goes}
      indeterminate={!goes && single > 0}
      onchange={ontoggle}
    />
    <button
      type="button"
      class="flex min-w-0 grow items-baseline gap-x-3 text-left max-md:flex-wrap"
      aria-expanded={t.items > 0 ? open : undefined}
      onclick={() => (unfolded = !unfolded)}
    >
      <span
        class="truncate font-serif text-[16px] max-md:whitespace-normal {t.tick.kind === 'rubric'
          ? 'md:shrink-0'
          : ''}"
        dir="auto">{t.title}</span
      >
      <span class="text-quiet shrink-0">{wordOf(t)}</span>
      {#if brought}<span class="text-saddle min-w-0 truncate font-semibold">comes along: {why(brought)}</span
        >{/if}
      {#each t.grades as title, at (at)}<span class="text-quiet min-w-0 truncate"
          >grades the assignment “{title}”</span
        >{/each}
      {#if holds}<span class="num text-quiet ml-auto shrink-0 max-md:ml-0 max-md:shrink">{holds}</span>{/if}
    </button>
  </div>
  {#each broken as b, at (at)}
    <p class="text-ochre pr-4 pb-2 pl-[60px] text-[13px]">
      Left behind: the draw of {b.pick} in {b.quiz} becomes {b.pick} fixed items, the same for everybody.
      <button type="button" class="act" onclick={ontoggle}>Bring the bank after all</button>
    </p>
  {/each}
  {#each ungraded as u, at (at)}
    <p class="text-ochre pr-4 pb-2 pl-[60px] text-[13px]">
      Left behind: “{u.item}” arrives without a rubric to grade it by.
      <button type="button" class="act" onclick={ontoggle}>Bring the rubric after all</button>
    </p>
  {/each}
  {#if open && t.items > 0}<ItemPages
      {transferId}
      of={t.tick}
      {filter}
      inside={goes ? t.title : null}
      {sheet}
    />{/if}
</li>

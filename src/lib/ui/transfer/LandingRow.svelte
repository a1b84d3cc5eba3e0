<script lang="ts">
  import GripVertical from '@lucide/svelte/icons/grip-vertical';
  import { landingId, type CourseOutline, type Landing, type LandingOverride } from '@alforja/core';
  import type { Gradable } from '$lib/shared/transfers';
  import Placement from './Placement.svelte';
  import RubricAttachments from './RubricAttachments.svelte';

  interface Props {
    landing: Landing;
    outline: CourseOutline;
    /** Items there that are graded by hand, and assignments. */
    gradable: readonly Gradable[];
    /** Whether something of it was set by hand. */
    byHand: boolean;
    onchange: (change: LandingOverride | null) => void;
  }
  let { landing: l, outline, gradable, byHand, onchange }: Props = $props();
  const stays = $derived(l.action === 'skip');
  const there = $derived(outline.things.find((t) => t.id === l.there));
  const already = $derived(
    {
      same: 'The same content already exists',
      version: `A different version already exists: “${there?.title ?? ''}”`,
      namesake: `Something else of this name already exists: “${there?.title ?? ''}”`,
      none: '',
    }[l.existing],
  );
  const actions = $derived(
    l.existing === 'none'
      ? []
      : ([
          ['skip', 'Keep the old one'],
          ...(l.existing === 'namesake' ? [] : [['replace', 'Replace (hide the old one)']]),
          ['keep', 'Keep both'],
        ] as const),
  );
</script>

<li
  class="border-hair border-b px-3 py-2.5"
  draggable={!stays}
  ondragstart={(e) => e.dataTransfer?.setData('text/x-thing', landingId(l))}
>
  <div class="flex items-center gap-2">
    <GripVertical
      size={16}
      class="text-quiet shrink-0 {stays ? 'invisible' : 'cursor-grab'}"
      aria-hidden="true"
    />
    <span class="text-quiet w-[42px] shrink-0">{l.kind}</span>
    {#if stays}<span class="grow truncate font-serif text-[16px]" dir="auto">{l.name}</span>
    {:else}<input
        aria-label="Name of the {l.kind} there"
        value={l.name}
        required
        maxlength="300"
        dir="auto"
        onchange={(e) => onchange({ name: e.currentTarget.value })}
        class="border-hair bg-paper text-ink h-8 min-w-0 grow rounded border px-2 font-serif text-[15.5px]"
      />{/if}
    {#if byHand}<button type="button" class="act shrink-0 text-[13px]" onclick={() => onchange(null)}
        >Reset</button
      >{/if}
  </div>
  {#if l.existing !== 'none'}
    <div class="mt-1.5 flex flex-wrap items-center gap-2 pl-[74px] text-[13px]">
      <span class={l.existing === 'same' ? 'text-quiet' : 'text-ochre'}>{already}:</span>
      <select
        aria-label="If it already exists"
        value={l.action === 'add' ? 'keep' : l.action}
        onchange={(e) => onchange({ action: e.currentTarget.value as Landing['action'] })}
        class="border-hair bg-surface text-ink h-7 rounded border py-0 text-[13px]"
      >
        {#each actions as [value, says] (value)}<option {value}>{says}</option>{/each}
      </select>
    </div>
  {/if}
  {#if l.kind === 'rubric'}<RubricAttachments landing={l} {gradable} {onchange} />{/if}
  {#if !stays && l.kind !== 'bank' && l.kind !== 'rubric'}<Placement landing={l} {outline} {onchange} />{/if}
</li>

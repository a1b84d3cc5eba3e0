<script lang="ts" module>
  import type { State } from '@alforja/core';

  /** How a row stands; what somebody accepted is told apart from what is open. */
  export type Shown = State | 'on purpose' | 'accepted';
</script>

<script lang="ts">
  import { count } from '../format';

  interface Props {
    counts: Readonly<Record<Shown, number>>;
    filter: Shown | null;
    choose: (state: Shown) => void;
  }
  let { counts, filter, choose }: Props = $props();
  const ORDER: readonly Shown[] = ['intact', 'on purpose', 'accepted', 'altered', 'missing', 'extra'];
  /** What there is nothing of takes no room. */
  const states = $derived(ORDER.filter((s) => s === 'intact' || counts[s] > 0 || filter === s));
  const colours: Record<Shown, string> = {
    intact: 'text-ink',
    'on purpose': 'text-saddle',
    accepted: 'text-saddle',
    altered: 'text-ochre',
    missing: 'text-brick',
    extra: 'text-plum',
  };
</script>

<div
  class="border-hair flex flex-col items-center justify-center border-x text-[12.5px] leading-none"
  role="group"
  aria-label="Show only"
>
  {#each states as state (state)}
    <button
      type="button"
      aria-pressed={filter === state}
      class="{colours[state]} min-h-6 rounded px-1.5 whitespace-nowrap hover:underline {filter === state
        ? 'bg-band'
        : ''}"
      onclick={() => choose(state)}
    >
      <b class="num">{count(counts[state])}</b> <span class="max-md:sr-only">{state}</span>
    </button>
  {/each}
</div>

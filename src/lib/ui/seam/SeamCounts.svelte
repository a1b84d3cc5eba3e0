<script lang="ts">
  import { SHOWN, type Shown } from '$lib/shared/seam';
  import { count } from '../format';

  interface Props {
    counts: Readonly<Record<Shown, number>>;
    filter: Shown | null;
    choose: (state: Shown) => void;
  }
  let { counts, filter, choose }: Props = $props();
  /** What there is nothing of takes no room. */
  const states = $derived(SHOWN.filter((s) => s === 'intact' || counts[s] > 0 || filter === s));
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

<script lang="ts" module>
  import { getContext, setContext } from 'svelte';

  /** What can go into the gaps of the text around them. */
  export interface Gaps {
    readonly options: readonly { id: string; text: string }[];
    readonly filled: (gap: string) => string;
    readonly fill: (gap: string, choice: string) => void;
    readonly number: (gap: string) => number;
    readonly live: () => boolean;
  }
  const KEY = Symbol('gaps');
  export const provideGaps = (gaps: Gaps): Gaps => setContext(KEY, gaps);
</script>

<script lang="ts">
  let { id }: { id: string } = $props();
  const gaps = getContext<Gaps | undefined>(KEY);
</script>

{#if gaps}
  <select
    aria-label="Gap {gaps.number(id)}"
    disabled={!gaps.live()}
    value={gaps.filled(id)}
    onchange={(e) => gaps.fill(id, e.currentTarget.value)}
    class="border-quiet bg-surface text-ink mx-1 rounded border py-0.5 text-[15px] disabled:opacity-100"
  >
    <option value="">gap {gaps.number(id)}</option>
    {#each gaps.options as option, n (n)}<option value={option.id}>{option.text}</option>{/each}
  </select>
{:else}<span>____</span>{/if}

<script lang="ts">
  import type { OwnBankView } from '$lib/shared/making';

  interface Props {
    alike: OwnBankView['alike'];
    rows: OwnBankView['rows'];
    drop: (keys: readonly string[]) => void;
    busy: boolean;
  }
  /** Questions that ask the same, or nearly: one of them is enough. */
  let { alike, rows, drop, busy }: Props = $props();
  const names = $derived(new Map(rows.map((r) => [r.key, r.name])));
  const same = $derived(alike.filter((g) => g.because === 'same'));
  const extra = $derived(same.flatMap((g) => g.keys.slice(1)));
</script>

{#if alike.length > 0}
  <details class="border-ochre mb-3 border-l-2 pl-3" open={alike.length <= 5}>
    <summary class="cursor-pointer"
      >{alike.length === 1
        ? 'Two or more questions are alike'
        : `${alike.length} groups of questions are alike`}</summary
    >
    {#if extra.length > 0 && same.length > 1}<button
        type="button"
        class="act"
        disabled={busy}
        onclick={() => drop(extra)}>Keep one of each that is the same ({extra.length} go)</button
      >{/if}
    <ul class="mt-1">
      {#each alike as group, n (n)}<li class="border-hair border-b py-1.5 text-[13.5px]">
          <span class="text-quiet">{group.because === 'same' ? 'the same' : 'nearly the same'}</span>
          {#each group.keys as key (key)}<p class="line-clamp-1 font-serif" dir="auto">
              {names.get(key) ?? key}
            </p>{/each}
          <button type="button" class="act" disabled={busy} onclick={() => drop(group.keys.slice(1))}
            >Keep the first<span class="sr-only">: {names.get(group.keys[0]!)}</span></button
          >
        </li>{/each}
    </ul>
  </details>
{/if}

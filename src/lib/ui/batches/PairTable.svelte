<script lang="ts">
  import type { CourseListing } from '$lib/shared/courses';
  import { EXCEPTIONS, exceptionOf, kindsOf, takenTwice, type PairChange, type PairLine } from './pairs';

  /** Old courses beside the new ones they go to. */
  let {
    lines,
    destinations,
    change,
  }: {
    lines: readonly PairLine[];
    destinations: readonly CourseListing[];
    change: (line: PairLine, to: PairChange) => void;
  } = $props();
  const twice = $derived(takenTwice(lines));
</script>

<div class="border-hair bg-surface overflow-x-auto border">
  <table class="w-full text-left">
    <thead class="text-quiet border-hair border-b text-[12.5px]"
      ><tr
        ><th class="px-4 py-2 font-semibold">Old course</th><th class="px-3 py-2 font-semibold">New course</th
        ><th class="px-4 py-2 font-semibold">What comes</th></tr
      ></thead
    >
    <tbody>
      {#each lines as l (l.source)}
        <tr class="border-hair border-b last:border-0">
          <td class="px-4 py-2"
            ><span class="block font-serif text-[15.5px]" dir="auto">{l.name}</span><span
              class="text-quiet text-[12.5px]">{l.holds}</span
            ></td
          >
          <td class="px-3 py-2">
            <select
              aria-label="New course for {l.name}"
              value={l.dest}
              onchange={(e) => change(l, { dest: e.currentTarget.value })}
              class="border-hair bg-surface text-ink h-8 w-full max-w-[330px] rounded border py-0 text-[13.5px] {l.dest ===
                '' || twice.has(l.dest)
                ? 'border-ochre'
                : ''}"
            >
              <option value="">none: left out</option>
              {#each destinations as d (d.id)}<option value={d.id}
                  >{d.code} {d.title}, section {d.section}, {d.system}</option
                >{/each}
            </select>
            {#if twice.has(l.dest)}<span class="text-ochre block text-[12.5px]">two courses go here</span
              >{/if}
          </td>
          <td class="px-4 py-2">
            <select
              aria-label="What comes from {l.name}"
              value={exceptionOf(l)}
              onchange={(e) => change(l, { kinds: kindsOf(e.currentTarget.value) })}
              class="border-hair bg-surface text-ink h-8 rounded border py-0 text-[13.5px]"
            >
              {#each EXCEPTIONS as x (x.value)}<option value={x.value}>{x.says}</option>{/each}
            </select>
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
</div>

<script lang="ts">
  import StatesChart from '$lib/ui/courses/StatesChart.svelte';
  import { count, plural, when } from '$lib/ui/format';

  let { data } = $props();
  const rows = $derived(data.batch.rows);
  const of = (state: string): number => rows.filter((r) => r.state === state).length;
  const sum = (key: 'intact' | 'altered' | 'missing' | 'extra'): number =>
    rows.reduce((total, r) => total + (r.counts?.[key] ?? 0), 0);
  const open = $derived(rows.reduce((total, r) => total + r.open, 0));
  const tone = (r: (typeof rows)[number]): string => {
    if (r.state === 'failed' || r.takenBack) return 'text-brick font-semibold';
    if (r.state !== 'done') return 'text-quiet';
    return r.open > 0 ? 'text-ochre font-semibold' : '';
  };
  const words = {
    waiting: 'waits',
    running: 'under way',
    done: 'arrived',
    failed: 'stopped',
    left: 'left out',
  } as const;
</script>

<svelte:head><title>{data.batch.title} · Alforja</title></svelte:head>
<div class="mx-auto max-w-[1232px] px-6 py-5">
  <p class="text-quiet text-[13px]"><a class="act" href="/courses">Courses</a></p>
  <div class="mb-3 flex flex-wrap items-baseline gap-x-4">
    <h1 class="font-serif text-[22px]">{data.batch.title}</h1>
    <span class="text-quiet">begun {when(data.batch.createdAt)}</span>
    <span role="status" class="num ml-auto" data-testid="batch-state"
      >{of('done')} of {plural(rows.length - of('left'), 'course')} arrived{of('failed') > 0
        ? `, ${of('failed')} stopped`
        : ''};
      {count(sum('intact'))} questions intact, {count(sum('altered'))} altered, {count(sum('missing'))} missing{open >
      0
        ? `; ${count(open)} to decide`
        : ''}</span
    >
  </div>
  {#if rows.some((r) => r.counts)}<StatesChart {rows} />{/if}
  <table class="border-hair bg-surface mt-4 w-full border text-left">
    <thead class="text-quiet border-hair border-b text-[12.5px]">
      <tr>
        <th class="px-4 py-2 font-semibold">From</th><th class="px-3 py-2 font-semibold">Into</th>
        <th class="px-3 py-2 font-semibold">State</th><th class="px-3 py-2 text-right font-semibold"
          >Intact</th
        >
        <th class="px-3 py-2 text-right font-semibold">Altered</th><th
          class="px-3 py-2 text-right font-semibold">Missing</th
        >
        <th class="px-3 py-2 text-right font-semibold">Extra</th><th class="px-4 py-2 font-semibold"
          >To decide</th
        >
      </tr>
    </thead>
    <tbody>
      {#each rows as r (r.at)}
        <tr class="border-hair border-b last:border-0 align-baseline">
          <td class="px-4 py-1.5 font-serif text-[15px]" dir="auto">{r.source}</td>
          <td class="px-3 py-1.5" dir="auto">{r.dest}</td>
          <td class="px-3 py-1.5 {tone(r)}"
            >{r.takenBack
              ? `taken back${r.takenBack.refused.length > 0 ? ' in part' : ''}, ${when(r.takenBack.at)}, by ${r.takenBack.by}`
              : words[r.state]}{#if r.trouble}<span class="block text-[12.5px] font-normal">{r.trouble}</span
              >{/if}</td
          >
          {#each ['intact', 'altered', 'missing', 'extra'] as const as key (key)}<td
              class="num px-3 py-1.5 text-right">{r.counts ? count(r.counts[key]) : ''}</td
            >{/each}
          <td class="px-4 py-1.5 whitespace-nowrap"
            >{#if r.transferId}<a
                class="act"
                href="/transfers/{r.transferId}{r.state === 'failed' ? '/send' : ''}"
                >{r.open + r.accepted > 0
                  ? `${count(r.open)} open${r.accepted > 0 ? `, ${count(r.accepted)} accepted` : ''}`
                  : r.state === 'failed'
                    ? 'go on'
                    : 'open it'}<span class="sr-only">: {r.source}</span></a
              >{/if}</td
          >
        </tr>
      {/each}
    </tbody>
  </table>
</div>

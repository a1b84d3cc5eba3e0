<script lang="ts">
  import Page from '$lib/ui/shell/Page.svelte';
  import StateBar from '$lib/ui/charts/StateBar.svelte';
  import ThrowAway from '$lib/ui/ThrowAway.svelte';
  import { count, plural, when } from '$lib/ui/format';

  let { data } = $props();
  const { rows, terms } = $derived(data.batch);
  const of = (state: string): number => rows.filter((r) => r.state === state).length;
  const sum = (key: 'intact' | 'altered' | 'missing' | 'extra'): number =>
    rows.reduce((total, r) => total + (r.counts?.[key] ?? 0), 0);
  const open = $derived(rows.reduce((total, r) => total + r.open, 0));
  /** The largest course: the bars are to one measure. */
  const most = $derived(
    Math.max(1, ...rows.map((r) => (r.counts ? Object.values(r.counts).reduce((a, b) => a + b, 0) : 0))),
  );
  const tone = (r: (typeof rows)[number]): string => {
    if (r.state === 'failed' || r.takenBack) return 'text-brick font-semibold';
    if (r.state !== 'done') return 'text-quiet';
    return r.open > 0 ? 'text-ochre font-semibold' : '';
  };
  const words = {
    waiting: 'waiting',
    running: 'under way',
    done: 'arrived',
    failed: 'stopped',
    left: 'left out',
  } as const;
</script>

<Page title={data.batch.title} back={{ href: '/transfers', name: 'Transfers' }}>
  {#snippet aside()}begun {when(data.batch.createdAt)}{/snippet}
  {#snippet actions()}<ThrowAway kind="batch" id={data.batch.id} name={data.batch.title} />{/snippet}
  <p role="status" class="num mb-3" data-testid="batch-state">
    {of('done')} of {plural(rows.length - of('left'), 'course')} arrived{of('failed') > 0
      ? `, ${of('failed')} stopped`
      : ''};
    {count(sum('intact'))} questions intact, {count(sum('altered'))} altered, {count(sum('missing'))} missing{open >
    0
      ? `; ${count(open)} to decide`
      : ''}
  </p>
  <table class="border-hair bg-surface w-full border text-left max-md:block max-md:overflow-x-auto">
    <thead class="text-quiet border-hair border-b text-[12.5px]">
      <tr>
        <th class="px-4 py-1.5 font-semibold">From {terms.source}</th><th class="px-3 py-1.5 font-semibold"
          >Into {terms.dest}</th
        >
        <th class="px-3 py-1.5 font-semibold">State</th>
        <td class="w-[150px] px-3 py-2" aria-hidden="true"></td><th
          class="px-3 py-1.5 text-right font-semibold">Intact</th
        >
        <th class="px-3 py-1.5 text-right font-semibold">Altered</th><th
          class="px-3 py-1.5 text-right font-semibold">Missing</th
        >
        <th class="px-3 py-1.5 text-right font-semibold">Extra</th><th
          class="px-4 py-1.5 font-semibold whitespace-nowrap">To decide</th
        >
      </tr>
    </thead>
    <tbody>
      {#each rows as r (r.at)}
        <tr class="border-hair border-b last:border-0 align-baseline">
          <td class="px-4 py-1 font-serif text-[14.5px] leading-tight" dir="auto">{r.source}</td>
          <td class="px-3 py-1 leading-tight" dir="auto">{r.dest}</td>
          <td class="px-3 py-1.5 {tone(r)}"
            >{r.takenBack
              ? `undone${r.takenBack.refused.length > 0 ? ' in part' : ''}, ${when(r.takenBack.at)}, by ${r.takenBack.by}`
              : words[r.state]}{#if r.trouble}<span class="block text-[12.5px] font-normal">{r.trouble}</span
              >{/if}</td
          >
          <td class="px-3 py-1.5" aria-hidden="true"
            >{#if r.counts}<StateBar counts={r.counts} {most} />{/if}</td
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
                    ? 'resume'
                    : 'view'}<span class="sr-only">: {r.source}</span></a
              >{/if}</td
          >
        </tr>
      {/each}
    </tbody>
  </table>
</Page>

<script lang="ts">
  import type { HandRole } from '@alforja/core';
  import type { DocumentShown } from '$lib/shared/documents';
  import { count, plural } from '../format';
  import { VirtualRows } from '../virtual.svelte';
  import Overview from '../seam/Overview.svelte';
  import Stitch from '../seam/Stitch.svelte';
  import BlockLine from './BlockLine.svelte';
  import ReadCell from './ReadCell.svelte';
  import { documentRows, STITCHES, type DocumentRow, type Standing } from './rows';

  /** Left the document as it stands, right the questions read; the seam says which block became what. */
  let {
    shown,
    files,
    busy,
    onsay,
  }: {
    shown: DocumentShown;
    files: string;
    busy: boolean;
    onsay: (block: number, to: HandRole | null) => Promise<unknown>;
  } = $props();

  let filter = $state<Standing | null>(null);
  let open = $state<number | null>(null);
  const all = $derived(documentRows(shown));
  const rows = $derived(filter === null ? all : all.filter((r) => r.standing === filter));
  const fixed = $derived(shown.choices.columns !== null);
  const counts = $derived.by(() => {
    const of: Record<Standing, number> = { read: 0, unsure: 0, 'not read': 0, 'by hand': 0 };
    for (const row of all) of[row.standing] += row.blocks.length;
    return of;
  });
  const COLOURS: Readonly<Record<Standing, string>> = {
    read: 'text-ink',
    unsure: 'text-ochre',
    'not read': 'text-brick',
    'by hand': 'text-saddle',
  };
  const standings = $derived(
    (Object.keys(counts) as Standing[]).filter((s) => s === 'read' || counts[s] > 0 || filter === s),
  );
  const points = $derived(shown.items.reduce((sum, i) => sum + i.points, 0));

  /** What the virtual list asks for every row. */
  let keyed: readonly DocumentRow[] = [];
  const virtual = new VirtualRows({
    count: 0,
    estimate: (i) => 34 * (keyed[i]?.blocks.length ?? 1),
    key: (i) => keyed[i]?.key ?? i,
  });
  $effect(() => {
    keyed = rows;
    virtual.set(rows.length);
  });
  /** Blocks that nobody understood ask of themselves what they are. */
  const asks = (row: DocumentRow, n: number): boolean => !fixed && (open === n || row.as === 'unread');
  async function say(block: number, to: HandRole | null): Promise<void> {
    await onsay(block, to);
    open = null;
  }
</script>

<div
  class="border-hair bg-surface relative flex min-h-[260px] grow border max-md:h-[80vh] max-md:grow-0"
  data-testid="document-seam"
>
  <div class="flex min-w-0 grow flex-col">
    <div class="seam-columns border-hair bg-paper/40 border-b">
      <div class="px-3.5 py-2">
        <h2 class="text-[14px]">{fixed ? 'Table' : 'Document'}</h2>
        <p class="text-[13px]">
          <span class="num">{count(shown.blocks.length)}</span>
          <span class="text-quiet">{fixed ? 'rows' : 'blocks'}</span>
          {#if shown.more > 0}<span class="text-ochre">shown; {count(shown.more)} more are read as well</span
            >{/if}
        </p>
      </div>
      <div
        class="border-hair flex flex-col items-center justify-center border-x py-1 text-[12.5px] leading-none"
        role="group"
        aria-label="Filter"
      >
        {#each standings as standing (standing)}
          <button
            type="button"
            aria-pressed={filter === standing}
            class="{COLOURS[standing]} min-h-6 rounded px-1.5 whitespace-nowrap hover:underline {filter ===
            standing
              ? 'bg-band'
              : ''}"
            onclick={() => (filter = filter === standing ? null : standing)}
            ><b class="num">{count(counts[standing])}</b>
            <span class="max-md:sr-only">{standing}</span></button
          >
        {/each}
      </div>
      <div class="px-3.5 py-2">
        <h2 class="text-[14px]">Questions</h2>
        <p class="text-[13px]">
          <span class="num">{count(shown.items.length)}</span>
          <span class="text-quiet">{shown.items.length === 1 ? 'question' : 'questions'},</span>
          {plural(points, 'point')}
        </p>
      </div>
    </div>
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div
      use:virtual.attach
      class="min-h-[120px] grow overflow-y-auto outline-offset-[-3px]"
      role="region"
      aria-label="Document and questions side by side"
      tabindex="0"
    >
      {#if rows.length === 0}<p class="text-quiet p-4">Nothing is {filter}.</p>{/if}
      <div class="relative" style="height: {virtual.total}px">
        {#each virtual.rows as place (place.key)}
          {@const row = rows[place.index]}
          {#if row}
            <div
              use:virtual.measure
              data-index={place.index}
              data-standing={row.standing}
              class="seam-columns border-hair absolute top-0 left-0 w-full border-b"
              style="transform: translateY({place.start}px)"
            >
              <div class="min-w-0 py-1">
                {#each row.blocks as block (block.n)}<BlockLine
                    {block}
                    {files}
                    {fixed}
                    {busy}
                    open={asks(row, block.n)}
                    ontoggle={() => (open = open === block.n ? null : block.n)}
                    onsay={(to) => void say(block.n, to)}
                  />{/each}
              </div>
              <div class="border-hair border-x pt-1">
                <span class="sr-only">{row.standing}</span>
                <Stitch state={STITCHES[row.standing]} knotted={row.standing === 'by hand'} />
              </div>
              <div class="min-w-0 py-1"><ReadCell {row} {files} /></div>
            </div>
          {/if}
        {/each}
      </div>
    </div>
  </div>
  <Overview
    rows={rows.length}
    stateAt={(at) => STITCHES[rows[at]!.standing]}
    go={(at) => virtual.scrollTo(at)}
  />
</div>

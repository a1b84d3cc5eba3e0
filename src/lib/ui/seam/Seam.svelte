<script lang="ts">
  import type { SeamRow } from '@alforja/core';
  import { countShown, shownBy, stateBy, type SeamView, type Shown } from '$lib/shared/seam';
  import { VirtualRows } from '../virtual.svelte';
  import FacetPair from './FacetPair.svelte';
  import Overview from './Overview.svelte';
  import PouchHead from './PouchHead.svelte';
  import { RowStore } from './rowStore.svelte';
  import SeamCell from './SeamCell.svelte';
  import SeamCounts from './SeamCounts.svelte';
  import Stitch from './Stitch.svelte';

  interface Props {
    transferId: string;
    seam: SeamView;
    leftTitle: string;
    rightTitle: string;
    leftFrom: string;
    rightFrom: string;
  }
  let { transferId, seam, leftTitle, rightTitle, leftFrom, rightFrom }: Props = $props();
  // svelte-ignore state_referenced_locally
  const store = new RowStore(transferId);
  $effect.pre(() => store.begin(seam));

  let filter = $state<Shown | null>(null);
  /** Places of the rows that are unfolded. */
  let open = $state.raw<ReadonlySet<number>>(new Set());
  let at = $state(0);
  /** Letters by which all rows are counted and filtered, before any of them has come. */
  const letters = $derived([...seam.states]);
  const opens = (row: SeamRow): boolean => row.differences.length + row.purpose.length > 0;
  /** Places of the rows that are shown; null is all. */
  const places = $derived(
    filter === null ? null : letters.flatMap((letter, place) => (shownBy(letter) === filter ? [place] : [])),
  );
  const shown = $derived(places?.length ?? letters.length);
  const placeOf = (index: number): number => (places ? (places[index] ?? -1) : index);
  /** What the virtual list asks for every row. */
  let keyed: (index: number) => number = (index) => index;
  const virtual = new VirtualRows({
    count: 0,
    estimate: () => 38,
    key: (i) => keyed(i),
    keep: () => at,
  });
  $effect(() => {
    const list = places;
    keyed = (index) => list?.[index] ?? index;
    virtual.set(shown);
  });
  $effect(() => void store.want(virtual.rows.map((r) => placeOf(r.index)).filter((p) => p >= 0)));
  /** Rows by how they stand, those that somebody accepted apart from the open ones. */
  const counts = $derived(countShown(letters));
  const letterAt = (index: number): string => letters[placeOf(index)] ?? 'i';
  function toggle(place: number): void {
    const row = store.of(place);
    if (!row || !opens(row)) return;
    const next = new Set(open);
    if (!next.delete(place)) next.add(place);
    open = next;
  }
  function move(to: number): void {
    at = Math.max(0, Math.min(shown - 1, to));
    virtual.scrollTo(at);
  }
  const WAITING: ReadonlySet<Shown> = new Set(['altered', 'missing', 'extra']);
  function nextWaiting(): void {
    const waits = (index: number): boolean => WAITING.has(shownBy(letterAt(index)));
    for (let n = 1; n <= shown; n++) {
      const index = (at + n) % shown;
      if (!waits(index)) continue;
      move(index);
      const place = placeOf(index);
      // What it differs in is unfolded once it is here.
      void store.want([place]).then(() => {
        if ((store.of(place)?.differences.length ?? 0) > 0) open = new Set([...open, place]);
      });
      return;
    }
  }
  function press(event: KeyboardEvent): void {
    const moves: Record<string, number> = {
      ArrowDown: at + 1,
      ArrowUp: at - 1,
      Home: 0,
      End: shown - 1,
      PageDown: at + 12,
      PageUp: at - 12,
    };
    if (event.key in moves) move(moves[event.key]!);
    else if (event.key === 'Enter' || event.key === ' ') toggle(placeOf(at));
    else if (event.key === 'Escape') open = new Set();
    else if (event.key.toLowerCase() === 'n') nextWaiting();
    else return;
    event.preventDefault();
  }
</script>

<div
  class="border-hair bg-surface flex min-h-[260px] grow border"
  style="--digits: {String(letters.length).length}"
  data-testid="seam"
>
  <div class="flex min-w-0 grow flex-col">
    <div class="seam-columns border-hair bg-paper/40 border-b">
      <PouchHead title={leftTitle} from={leftFrom} totals={seam.totals.left} />
      <SeamCounts {counts} {filter} choose={(state) => (filter = filter === state ? null : state)} />
      <PouchHead title={rightTitle} from={rightFrom} totals={seam.totals.right} than={seam.totals.left} />
    </div>
    <div
      use:virtual.attach
      class="min-h-[120px] grow overflow-y-auto outline-offset-[-3px]"
      role="tree"
      tabindex="0"
      aria-label="Items side by side"
      aria-activedescendant={at < shown ? `seam-${at}` : undefined}
      onkeydown={press}
    >
      {#if shown === 0}<p class="text-quiet p-4">
          {filter ? `Nothing is ${filter}.` : 'There are no items on either side.'}
        </p>{/if}
      <div class="relative" style="height: {virtual.total}px" role="presentation">
        {#each virtual.rows as line (line.key)}
          {@const place = placeOf(line.index)}
          {@const row = store.of(place)}
          {@const how = shownBy(letterAt(line.index))}
          {@const state = stateBy(letterAt(line.index))}
          {@const unfolded = open.has(place)}
          {#if line.index < shown}
            <!-- svelte-ignore a11y_click_events_have_key_events -->
            <div
              use:virtual.measure
              data-index={line.index}
              id="seam-{line.index}"
              role="treeitem"
              aria-level="1"
              tabindex="-1"
              aria-selected={line.index === at}
              aria-setsize={shown}
              aria-posinset={line.index + 1}
              aria-expanded={row && opens(row) ? unfolded : undefined}
              aria-busy={row === null}
              class="border-hair absolute top-0 left-0 w-full border-b {unfolded ? 'bg-wash' : ''} {row &&
              opens(row)
                ? 'cursor-pointer'
                : ''} {line.index === at ? 'current' : ''}"
              style="transform: translateY({line.start}px)"
              onclick={() => {
                at = line.index;
                toggle(place);
              }}
            >
              <span class="sr-only"
                >{state}{how === 'accepted'
                  ? ', accepted'
                  : how === 'on purpose'
                    ? ', changed on purpose'
                    : ''}:
              </span>
              <div class="seam-columns {state === 'intact' ? 'same' : ''}">
                <SeamCell {row} side="left" />
                <div class="border-hair flex items-center border-x">
                  <Stitch {state} knotted={how === 'accepted' || how === 'on purpose'} />
                </div>
                <SeamCell {row} side="right" />
              </div>
              {#if unfolded && row}
                {#each row.purpose as difference, n (n)}
                  <div class="seam-columns" data-testid="purpose"><FacetPair {difference} purpose /></div>
                {/each}
                {#each row.differences as difference, n (n)}
                  <div class="seam-columns"><FacetPair {difference} /></div>
                {/each}
              {/if}
            </div>
          {/if}
        {/each}
      </div>
    </div>
  </div>
  <Overview rows={shown} stateAt={(index) => stateBy(letterAt(index))} go={move} />
</div>

<style>
  /* On a phone, what is the same on both sides is told once. */
  @media (max-width: 767px) {
    .same > :global(:nth-child(3)) {
      display: none;
    }
  }
  .current {
    box-shadow: inset 3px 0 0 var(--saddle);
  }
</style>

<script lang="ts">
  import type { Arrival } from '$lib/shared/transfers';
  import { VirtualRows } from '../virtual.svelte';
  import FacetPair from './FacetPair.svelte';
  import Overview from './Overview.svelte';
  import PouchHead from './PouchHead.svelte';
  import { seamRows, type SeamRow } from './rows';
  import SeamCell from './SeamCell.svelte';
  import SeamCounts, { type Shown } from './SeamCounts.svelte';
  import Stitch from './Stitch.svelte';

  interface Props {
    arrival: Arrival;
    leftTitle: string;
    rightTitle: string;
    leftFrom: string;
    rightFrom: string;
    /** Ids of source items whose difference somebody took as it is. */
    accepted?: ReadonlySet<string>;
  }
  let { arrival, leftTitle, rightTitle, leftFrom, rightFrom, accepted = new Set() }: Props = $props();
  const knotted = (row: SeamRow): boolean =>
    row.state !== 'intact' && row.left !== null && accepted.has(row.left.id);

  let filter = $state<Shown | null>(null);
  let open = $state<Set<string>>(new Set());
  let at = $state(0);
  const all = $derived(seamRows(arrival));
  /** Nothing differs from what was planned, and what was planned is not what the source says. */
  const onPurpose = (row: SeamRow): boolean => row.state === 'intact' && row.purpose.length > 0;
  const stateOf = (row: SeamRow): Shown =>
    knotted(row) ? 'accepted' : onPurpose(row) ? 'on purpose' : row.state;
  const opens = (row: SeamRow): boolean => row.differences.length + row.purpose.length > 0;
  const rows = $derived(filter === null ? all : all.filter((r) => stateOf(r) === filter));
  /** What the virtual list asks for every row. */
  let keyed: readonly SeamRow[] = [];
  const virtual = new VirtualRows({
    count: 0,
    estimate: () => 38,
    key: (i) => keyed[i]?.key ?? i,
    keep: () => at,
  });
  $effect(() => {
    keyed = rows;
    virtual.set(rows.length);
  });
  /** Rows by how they stand, those that somebody accepted apart from the open ones. */
  const counts = $derived.by(() => {
    const of: Record<Shown, number> = {
      intact: 0,
      'on purpose': 0,
      accepted: 0,
      altered: 0,
      missing: 0,
      extra: 0,
    };
    for (const row of all) of[stateOf(row)] += 1;
    return of;
  });
  function toggle(row: SeamRow): void {
    if (!opens(row)) return;
    const next = new Set(open);
    if (!next.delete(row.key)) next.add(row.key);
    open = next;
  }
  function move(to: number): void {
    at = Math.max(0, Math.min(rows.length - 1, to));
    virtual.scrollTo(at);
  }
  function press(event: KeyboardEvent): void {
    const moves: Record<string, number> = {
      ArrowDown: at + 1,
      ArrowUp: at - 1,
      Home: 0,
      End: rows.length - 1,
      PageDown: at + 12,
      PageUp: at - 12,
    };
    if (event.key in moves) move(moves[event.key]!);
    else if (event.key === 'Enter' || event.key === ' ') {
      if (rows[at]) toggle(rows[at]!);
    } else if (event.key === 'Escape') open = new Set();
    else if (event.key.toLowerCase() === 'n') {
      const waits = (r: SeamRow): boolean => r.state !== 'intact' && !knotted(r);
      const next = rows.findIndex((r, k) => k > at && waits(r));
      const found = next >= 0 ? next : rows.findIndex(waits);
      if (found < 0) return;
      move(found);
      if (rows[found]!.differences.length > 0) open = new Set([...open, rows[found]!.key]);
    } else return;
    event.preventDefault();
  }
</script>

<div class="border-hair bg-surface flex min-h-[260px] grow border" data-testid="seam">
  <div class="flex min-w-0 grow flex-col">
    <div class="seam-columns border-hair bg-paper/40 border-b">
      <PouchHead title={leftTitle} from={leftFrom} totals={arrival.totals.left} />
      <SeamCounts {counts} {filter} choose={(state) => (filter = filter === state ? null : state)} />
      <PouchHead
        title={rightTitle}
        from={rightFrom}
        totals={arrival.totals.right}
        than={arrival.totals.left}
      />
    </div>
    <div
      use:virtual.attach
      class="min-h-[120px] grow overflow-y-auto outline-offset-[-3px]"
      role="tree"
      tabindex="0"
      aria-label="Items side by side"
      aria-activedescendant={rows[at] ? `seam-${at}` : undefined}
      onkeydown={press}
    >
      {#if rows.length === 0}<p class="text-quiet p-4">
          {filter ? `Nothing is ${filter}.` : 'There are no items on either side.'}
        </p>{/if}
      <div class="relative" style="height: {virtual.total}px" role="presentation">
        {#each virtual.rows as place (place.key)}
          {@const row = rows[place.index]}
          {#if row}
            {@const unfolded = open.has(row.key)}
            <!-- svelte-ignore a11y_click_events_have_key_events -->
            <div
              use:virtual.measure
              data-index={place.index}
              id="seam-{place.index}"
              role="treeitem"
              aria-level="1"
              tabindex="-1"
              aria-selected={place.index === at}
              aria-setsize={rows.length}
              aria-posinset={place.index + 1}
              aria-expanded={opens(row) ? unfolded : undefined}
              class="border-hair absolute top-0 left-0 w-full border-b {unfolded ? 'bg-wash' : ''} {opens(row)
                ? 'cursor-pointer'
                : ''} {place.index === at ? 'current' : ''}"
              style="transform: translateY({place.start}px)"
              onclick={() => {
                at = place.index;
                toggle(row);
              }}
            >
              <span class="sr-only"
                >{row.state}{knotted(row) ? ', accepted' : onPurpose(row) ? ', changed on purpose' : ''}:
              </span>
              <div class="seam-columns {row.state === 'intact' ? 'same' : ''}">
                <SeamCell {row} side="left" />
                <div class="border-hair flex items-center border-x">
                  <Stitch state={row.state} knotted={knotted(row) || onPurpose(row)} />
                </div>
                <SeamCell {row} side="right" />
              </div>
              {#if unfolded}
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
  <Overview states={rows.map((r) => r.state)} go={move} />
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

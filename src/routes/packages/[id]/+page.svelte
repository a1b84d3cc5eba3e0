<script lang="ts">
  import { replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import Button from 'flowbite-svelte/Button.svelte';
  import Progress from '$lib/ui/Progress.svelte';
  import { quizSummary } from '$lib/ui/room/summary';
  import FindingNote from '$lib/ui/room/FindingNote.svelte';
  import ItemList from '$lib/ui/room/ItemList.svelte';
  import ItemPane from '$lib/ui/room/ItemPane.svelte';
  import Outline from '$lib/ui/room/Outline.svelte';
  import PlaceDetails from '$lib/ui/room/PlaceDetails.svelte';
  import RubricList from '$lib/ui/room/RubricList.svelte';
  import { itemsInQuiz, looseItems, rowsAt, type Place } from '$lib/ui/room/places';
  import { bytes, count, formatName, plural, when } from '$lib/ui/format';
  import { live } from '$lib/ui/live.svelte';
  import type { ItemRow } from '$lib/shared/types';

  let { data } = $props();
  const asked = Number(page.url.searchParams.get('item') ?? Number.NaN);
  let place = $state<Place>({ kind: 'all' });
  let selected = $state<number | null>(Number.isInteger(asked) ? asked : null);
  let wanted = $state('');
  $effect(() => {
    // A page opened without an item starts in the first quiz or bank, with its first item.
    void data.held.id;
    const first = data.tree?.quizzes[0];
    if (selected === null && first) place = { kind: 'quiz', id: first.id };
  });
  const inPlace = $derived(data.tree ? rowsAt(place, data.tree, data.rows) : []);
  const rows = $derived(
    wanted.trim() === ''
      ? inPlace
      : inPlace.filter((r) => `${r.name} ${r.id}`.toLowerCase().includes(wanted.trim().toLowerCase())),
  );
  const current = $derived(rows.find((r) => r.seq === selected) ?? rows[0] ?? null);
  const number = $derived(current ? rows.indexOf(current) + 1 : 0);
  const points = $derived(rows.reduce((sum, r) => sum + r.points, 0));
  const decide = $derived(data.spoken.filter((f) => f.severity !== 'note'));
  const notes = $derived(data.spoken.filter((f) => f.severity === 'note'));
  const found = $derived(place.kind === 'findings' && place.which === 'decide' ? decide : notes);
  const quiz = $derived(
    place.kind === 'quiz' ? data.tree?.quizzes.find((q) => 'id' in place && q.id === place.id) : undefined,
  );
  const tabular = $derived(['csv', 'xlsx'].includes(data.tree?.format.container ?? ''));
  const job = $derived(live.jobOf(data.held.id));

  function select(row: ItemRow): void {
    selected = row.seq;
    replaceState(`?item=${row.seq}`, {});
  }
  function go(next: Place): void {
    place = next;
    selected = null;
    wanted = '';
  }
</script>

<svelte:head><title>{data.held.name} · Alforja</title></svelte:head>
<div class="flex h-[calc(100vh-46px)] min-h-[480px] flex-col">
  <div class="border-hair flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b px-6 py-3">
    <h1 class="font-serif text-[20px]">{data.held.name}</h1>
    <span class="text-quiet">
      {#if data.held.summary}{formatName(data.held.summary.format)} · {plural(
          data.held.summary.items,
          'item',
        )}, {plural(data.held.summary.points, 'point')} ·{/if}
      {bytes(data.held.bytes)} · came in {when(data.held.broughtAt)}
    </span>
    {#if data.tree && data.rows.length + data.tree.links.length + data.tree.rubrics.length > 0}
      <form method="POST" action="/transfers?/start" class="ml-auto flex items-center gap-3">
        {#each data.transfers.slice(0, 1) as t (t.id)}<a class="act" href="/transfers/{t.id}"
            >Open its transfer</a
          >{/each}
        <input type="hidden" name="package" value={data.held.id} />
        <Button href="/bring?package={data.held.id}" size="sm" color="alternative"
          >Bring into a course…</Button
        >
        {#if data.rows.length + data.tree.links.length > 0}<Button type="submit" size="sm" color="primary"
            >Take across…</Button
          >{/if}
      </form>
    {/if}
  </div>

  {#if data.held.state === 'reading'}
    <div class="mx-auto mt-16 w-[420px]" role="status">
      <p class="mb-2">
        {job?.step || 'Waiting to be read'}
        {job && job.total > 0 ? `${count(job.done)} of ${count(job.total)}` : ''}
      </p>
      <Progress done={job?.done ?? 0} total={job?.total ?? 0} label="Reading" />
    </div>
  {:else if data.held.failure}
    <div class="mx-auto mt-10 w-[560px]">
      <FindingNote found={data.held.failure} place />
      <p class="text-quiet mt-4">
        The file is kept as it came, {bytes(data.held.bytes)}; nothing was read from it.
      </p>
    </div>
  {:else if data.tree && (data.tree.rubrics.length > 0 || tabular)}
    <RubricList packageId={data.held.id} rubrics={data.tree.rubrics} findings={data.spoken} {tabular} />
  {:else if data.tree}
    <div
      class="grid min-h-0 grow grid-cols-[220px_minmax(300px,440px)_1fr] max-md:block max-md:overflow-auto"
    >
      <aside class="border-hair overflow-y-auto border-r" aria-label="Outline">
        <Outline
          tree={data.tree}
          {place}
          {go}
          counts={{
            all: data.rows.length,
            loose: looseItems(data.tree, data.rows).length,
            decide: decide.length,
            repaired: notes.length,
            quiz: (id) => itemsInQuiz(data.tree!.quizzes.find((q) => q.id === id)!).length,
          }}
        />
      </aside>
      {#if place.kind === 'links' || place.kind === 'files' || (place.kind === 'findings' && rows.length === 0)}
        <section class="bg-surface col-span-2 overflow-y-auto px-8 py-5" aria-label="Details">
          <PlaceDetails tree={data.tree} kind={place.kind} findings={found} />
        </section>
      {:else}
        <section class="border-hair bg-surface flex min-h-0 flex-col border-r" aria-label="List of items">
          <div class="border-hair flex items-baseline gap-4 border-b px-4 py-2 text-[13px]">
            <span><b class="num">{count(rows.length)}</b> <span class="text-quiet">items</span></span>
            <span><b class="num">{count(points)}</b> <span class="text-quiet">points</span></span>
            <input
              type="search"
              aria-label="Filter this list"
              placeholder="Filter"
              bind:value={wanted}
              class="border-hair bg-surface placeholder:text-quiet ml-auto h-7 w-[120px] rounded border px-2 text-[13px]"
            />
          </div>
          {#if quiz}
            {@const facts = quizSummary(quiz)}
            {#if facts.length > 0}<div class="border-hair text-quiet border-b px-4 py-1.5 text-[12.5px]">
                {facts.join(' · ')}
              </div>{/if}
          {/if}
          <div class="min-h-0 grow max-md:h-[40vh]">
            {#if rows.length > 0}<ItemList {rows} selected={current?.seq ?? null} {select} />
            {:else}<p class="text-quiet p-4">
                {wanted ? 'No item here has these words.' : 'No items here.'}
              </p>{/if}
          </div>
        </section>
        <section class="bg-surface min-h-0 overflow-y-auto" aria-label="The item">
          {#if place.kind === 'findings'}
            <div class="border-hair border-b px-8 pb-4">
              {#each found as f, at (at)}<FindingNote found={f} place />{/each}
            </div>
          {/if}
          {#if current}<ItemPane packageId={data.held.id} row={current} {number} />
          {:else if data.rows.length === 0}
            <div class="px-8 py-6">
              <p class="font-serif text-[17px]">There are no questions in this file.</p>
              {#each data.spoken as found, at (at)}<FindingNote {found} place />{/each}
            </div>
          {/if}
        </section>
      {/if}
    </div>
  {/if}
</div>

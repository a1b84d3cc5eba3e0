<script lang="ts">
  import { onMount } from 'svelte';
  import Button from 'flowbite-svelte/Button.svelte';
  import { ask } from '../ask';
  import { count, plural } from '../format';
  import { live } from '../live.svelte';
  import AtAGlance from './AtAGlance.svelte';
  import BankPanel from './BankPanel.svelte';
  import FamilyList from './FamilyList.svelte';
  import FindingNote from './FindingNote.svelte';
  import ItemList from './ItemList.svelte';
  import ItemPane from './ItemPane.svelte';
  import LeftOutList from './LeftOutList.svelte';
  import Outline from './Outline.svelte';
  import PlaceDetails from './PlaceDetails.svelte';
  import { placeText } from './places';
  import QuizRoads from '../quiz/QuizRoads.svelte';
  import QuizPanel from './QuizPanel.svelte';
  import RepairNote from './RepairNote.svelte';
  import RoomFilters from './RoomFilters.svelte';
  import type { Changes } from './changes.svelte';
  import type { Room } from './room.svelte';

  /** Findings that are shown at once; the rest is counted. */
  const MOST_LISTED = 200;
  let { room, changes, settled }: { room: Room; changes: Changes; settled: boolean } = $props();
  onMount(() => void room.load());
  const { view } = $derived(room);
  const place = $derived(room.place);
  const quiz = $derived(
    place.kind === 'quiz' ? view.quizzes.find((q) => 'id' in place && q.id === place.id) : undefined,
  );
  const found = $derived(
    view.findings.filter(
      (f) => (f.spoken.severity === 'note') === (place.kind === 'findings' && place.which === 'notes'),
    ),
  );
  /** What was found of the package and of no single item. */
  const general = $derived(found.filter((f) => f.item === null));
  const detailsOnly = $derived(
    place.kind === 'links' ||
      place.kind === 'files' ||
      (place.kind === 'findings' && room.loaded && room.inPlace.length === 0),
  );
  const bank = $derived(
    place.kind === 'bank' ? view.banks.find((b) => 'id' in place && b.id === place.id) : undefined,
  );
  /** The quiz or bank that is changed as a whole, by its place. */
  let changing = $state('');
  const whole = $derived(changing !== '' && changing === placeText(place));
  const stop = (): void => void (changing = '');
  let trouble = $state('');
  async function settle(): Promise<void> {
    trouble = '';
    await ask(`/api/packages/${room.packageId}/settled`, { settled: !settled }, { method: 'PUT' }).catch(
      (e: Error) => (trouble = e.message),
    );
    await live.reload();
  }
</script>

{#snippet more(all: number)}{#if all > MOST_LISTED}<p class="text-quiet mt-2">
      and {count(all - MOST_LISTED)} more
    </p>{/if}{/snippet}
{#snippet dealtWith()}
  {#if place.kind === 'findings' && place.which === 'decide'}
    <p class="mb-1 flex flex-wrap items-center gap-3">
      <Button color="alternative" onclick={settle}
        >{settled ? 'Not dealt with after all' : 'Mark as dealt with'}</Button
      >
      <span class="text-quiet text-[13px]"
        >{settled ? 'They no longer wait on the desk.' : 'Takes them off the desk; they stay here.'}</span
      >
      {#if trouble}<span class="text-brick" role="alert">{trouble}</span>{/if}
    </p>
  {/if}
{/snippet}

<div class="grid min-h-0 grow grid-cols-[220px_minmax(300px,440px)_1fr] max-md:block max-md:overflow-auto">
  <aside class="border-hair overflow-y-auto border-r" aria-label="Outline">
    <Outline packageId={room.packageId} room={view} {place} go={(p) => room.go(p)} />
  </aside>
  {#if place.kind === 'facts'}
    <section class="bg-surface col-span-2 overflow-y-auto px-8 py-5" aria-label="At a glance">
      {#if room.loaded}<AtAGlance rows={room.rows} {view} />{/if}
    </section>
  {:else if place.kind === 'families'}
    <section class="bg-surface col-span-2 overflow-y-auto px-8 py-5" aria-label="Families">
      {#if room.loaded}<FamilyList {room} />{/if}
    </section>
  {:else if place.kind === 'left-out'}
    <section class="bg-surface col-span-2 overflow-y-auto px-8 py-5" aria-label="Left out">
      <LeftOutList {view} {changes} />
    </section>
  {:else if detailsOnly}
    <section class="bg-surface col-span-2 overflow-y-auto px-8 py-5" aria-label="Details">
      {@render dealtWith()}
      {#if place.kind === 'findings'}{#each found.slice(0, MOST_LISTED) as f (f.at)}<RepairNote
            found={f}
            {room}
            {changes}
            place
          />{/each}{@render more(found.length)}
      {:else}<PlaceDetails room={view} kind={place.kind as 'links' | 'files'} {changes} />{/if}
    </section>
  {:else}
    <section class="border-hair bg-surface flex min-h-0 flex-col border-r" aria-label="List of items">
      <div class="border-hair border-b px-3 py-2 text-[13px]" role="status">
        <b class="num">{count(room.listed.length)}</b>
        <span class="text-quiet"
          >{room.filtered
            ? `of ${plural(room.inPlace.length, 'item')}`
            : room.listed.length === 1
              ? 'item'
              : 'items'}</span
        >{#if room.loaded && !quiz?.draws},
          <b class="num">{count(room.points)}</b>
          <span class="text-quiet">points</span>{/if}{#if quiz?.draws};
          <span class="text-quiet"
            >each student <b class="text-ink num">{count(quiz.set.items)}</b>,
            <b class="text-ink num">{count(quiz.set.points)}</b> points</span
          >{/if}
        {#if quiz && quiz.facts.length > 0}<div class="text-quiet text-[12.5px]">
            {quiz.facts.join(' · ')}
          </div>{/if}
      </div>
      {#if quiz || bank}<div class="border-hair flex flex-wrap gap-x-4 border-b px-3 py-1 text-[13px]">
          {#if !whole}<button type="button" class="act min-h-6" onclick={() => (changing = placeText(place))}
              >Change the {quiz ? 'quiz' : 'bank'}…</button
            >{/if}
          {#if quiz}<QuizRoads packageId={room.packageId} quizId={quiz.id} />{/if}
        </div>{/if}
      <RoomFilters {room} />
      <div class="min-h-0 grow max-md:h-[40vh]">
        {#if room.trouble}<p class="text-brick p-4" role="alert">{room.trouble}</p>
        {:else if !room.loaded}<p class="text-quiet p-4" role="status">
            Opening {plural(view.items, 'item')}…
          </p>
        {:else if room.listed.length > 0}<ItemList {room} />
        {:else}<p class="text-quiet p-4">
            {room.filtered ? 'No item matches. Clear a filter.' : 'No items here.'}
          </p>{/if}
      </div>
    </section>
    <section class="bg-surface min-h-0 overflow-y-auto" aria-label="The item">
      {#if place.kind === 'findings'}
        <div class="px-8 pt-4">
          {@render dealtWith()}
          {#if general.length > 0}<details class="border-hair border-b pb-3" open={general.length <= 2}>
              <summary class="text-quiet text-[13px]"
                >{plural(general.length, 'finding')} on the whole file</summary
              >
              {#each general.slice(0, MOST_LISTED) as f (f.at)}<RepairNote
                  found={f}
                  {room}
                  {changes}
                  place
                />{/each}
              {@render more(general.length)}
            </details>{/if}
        </div>
      {/if}
      {#if quiz && whole}<QuizPanel {quiz} {room} {changes} close={stop} />
      {:else if bank && whole}<BankPanel {bank} {room} {changes} close={stop} />
      {:else if room.current !== null && room.loaded}<ItemPane
          packageId={room.packageId}
          seq={room.current}
          reading={room.reading}
          number={room.numberOf(room.current)}
          kind={room.rows.kinds[room.rows.kind[room.current]!] ?? ''}
          edited={room.edited.has(room.current)}
          {changes}
        >
          {#each room.view.findings.filter((f) => f.item === room.current) as f (f.at)}<RepairNote
              found={f}
              {room}
              {changes}
            />{/each}
        </ItemPane>
      {:else if view.items === 0}
        <div class="px-8 py-6">
          <p class="font-serif text-[17px]">There are no questions in this file.</p>
          {#each view.findings.slice(0, MOST_LISTED) as f, at (at)}<FindingNote
              found={f.spoken}
              place
            />{/each}
          {@render more(view.findings.length)}
        </div>
      {/if}
    </section>
  {/if}
</div>

<script lang="ts">
  import { untrack } from 'svelte';
  import Redo2 from '@lucide/svelte/icons/redo-2';
  import Undo2 from '@lucide/svelte/icons/undo-2';
  import Button from 'flowbite-svelte/Button.svelte';
  import { QUIZ_ID } from '@alforja/core';
  import type { BankListing } from '$lib/shared/making';
  import { plural } from '../format';
  import { live } from '../live.svelte';
  import { quizPath } from '../quiz/paths';
  import Page from '../shell/Page.svelte';
  import Hazards from './Hazards.svelte';
  import type { Maker, Shown } from './maker.svelte';
  import Peek from './Peek.svelte';
  import PlanTable from './PlanTable.svelte';
  import SectionBox from './SectionBox.svelte';
  import SettingsFields from './SettingsFields.svelte';
  import Shelf from './Shelf.svelte';
  import { BankShelf } from './shelf.svelte';
  import { setDown } from './setDown';
  import Totals from './Totals.svelte';

  let { maker, banks }: { maker: Maker; banks: readonly BankListing[] } = $props();
  const shelf = untrack(() => new BankShelf(maker.id));
  let open = $state({ settings: false, plan: false });
  let looked = $state.raw<Shown | null>(null);
  let busy = $state('');
  let trouble = $state('');
  const { draft } = $derived(maker);
  const starts = $derived.by(() => {
    let n = 1;
    return draft.sections.map((s) => {
      const first = n;
      n += s.items.length + (s.draw?.pick ?? 0);
      return first;
    });
  });
  const left = $derived(shelf.head?.total ?? 0);
  const DRAWN = 10;

  function put(): void {
    maker.add(shelf.chosen);
    shelf.ticked.clear();
  }
  /** A draw of what the bank is narrowed to, or of what is ticked. */
  function draw(): void {
    if (!shelf.bank) return;
    const ticked = shelf.ticked.size > 0;
    const of = ticked ? shelf.ticked.size : left;
    const { place, bank, title } = shelf.bank;
    maker.do({
      do: 'section-add',
      title: bank === null ? shelf.bank.placeName : title,
      draw: {
        pick: Math.min(DRAWN, of),
        pointsEach: null,
        pool: {
          from: ticked ? [] : [{ place, bank, filter: shelf.filter }],
          named: ticked ? shelf.chosen.map((r) => r.at) : [],
          without: [],
        },
      },
    });
    shelf.ticked.clear();
    maker.said = `A draw of ${of} added.`;
  }
  async function go(what: string, path: (packageId: string) => string): Promise<void> {
    busy = what;
    trouble = '';
    try {
      await maker.kept();
      await live.go(path(await setDown(maker.id)));
    } catch (problem) {
      trouble = (problem as Error).message;
    } finally {
      busy = '';
    }
  }
  function press(event: KeyboardEvent): void {
    const typing = (event.target as HTMLElement).matches(
      'input:not([type=checkbox], [type=radio]), textarea',
    );
    if (typing || !(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return;
    event.preventDefault();
    if (event.shiftKey) maker.redo();
    else maker.undo();
  }
</script>

<svelte:window onkeydown={press} />
<Page title={draft.title || 'Quiz'} back={{ href: '/quizzes', name: 'Quizzes made here' }}>
  {#snippet heading()}<h1 class="sr-only">{draft.title || 'Quiz'}</h1>
    <input
      value={draft.title}
      aria-label="Name of the quiz"
      placeholder="Name of the quiz"
      maxlength="500"
      dir="auto"
      onchange={(e) => maker.do({ do: 'title', to: e.currentTarget.value.trim() })}
      class="page-title placeholder:text-quiet text-ink min-w-[260px] grow border-0 border-b border-transparent bg-transparent p-0 hover:border-b-(--hair)"
    />{/snippet}
  {#snippet actions()}
    <button
      type="button"
      class="icon-button"
      aria-label="Undo"
      disabled={!maker.canUndo}
      onclick={() => maker.undo()}><Undo2 size={16} /></button
    >
    <button
      type="button"
      class="icon-button"
      aria-label="Redo"
      disabled={!maker.canRedo}
      onclick={() => maker.redo()}><Redo2 size={16} /></button
    >
    <Button
      color="alternative"
      disabled={busy !== ''}
      onclick={() => go('try', (id) => quizPath(id, QUIZ_ID, 'try'))}>Try it</Button
    >
    <Button
      color="alternative"
      disabled={busy !== ''}
      onclick={() => go('draws', (id) => quizPath(id, QUIZ_ID, 'draws'))}>What students get</Button
    >
    <Button
      color="alternative"
      disabled={busy !== ''}
      onclick={() => go('versions', (id) => quizPath(id, QUIZ_ID, 'versions'))}>Versions and paper</Button
    >
    <Button color="primary" disabled={busy !== ''} onclick={() => go('send', (id) => `/bring?package=${id}`)}
      >Bring into a course…</Button
    >
  {/snippet}
  {#if trouble || maker.trouble}<p class="text-brick mb-2" role="alert">{trouble || maker.trouble}</p>{/if}
  {#if busy}<p class="text-quiet mb-2" role="status">Saving it as a package…</p>{/if}
  <p class="sr-only" role="status">{maker.said}</p>
  <div
    class="grid gap-x-7 gap-y-6 lg:grid-cols-[minmax(300px,350px)_minmax(0,1fr)] xl:grid-cols-[340px_minmax(0,1fr)_260px]"
  >
    <div class="flex h-[calc(100vh-150px)] min-h-[420px] flex-col lg:sticky lg:top-3">
      <Shelf {shelf} {banks} holds={(row) => maker.holds(row.at)} {put}>
        {#snippet actions()}
          <Button size="sm" color="primary" disabled={shelf.chosen.length === 0} onclick={put}
            >Put in{shelf.ticked.size > 1 ? ` ${shelf.ticked.size}` : ''}</Button
          >
          <Button size="sm" color="alternative" disabled={!shelf.bank || left === 0} onclick={draw}
            >Draw from {shelf.ticked.size > 0
              ? `the ${shelf.ticked.size} ticked`
              : shelf.narrowed
                ? `these ${left}`
                : `all ${left}`}</Button
          >
        {/snippet}
      </Shelf>
    </div>
    <div class="min-w-0">
      <Totals {maker} />
      <div class="mb-3 flex flex-wrap gap-2">
        <Button
          size="sm"
          color="alternative"
          aria-expanded={open.settings}
          onclick={() => (open.settings = !open.settings)}>Instructions and settings</Button
        >
        <Button
          size="sm"
          color="alternative"
          aria-expanded={open.plan}
          onclick={() => (open.plan = !open.plan)}>By plan</Button
        >
      </div>
      {#if open.settings}<SettingsFields {maker} />{/if}
      {#if open.plan}<PlanTable {maker} {banks} />{/if}
      {#each draft.sections as section, at (section.id)}<SectionBox
          {maker}
          {section}
          {at}
          first={starts[at]!}
          look={(row) => (looked = row)}
        />{/each}
      <Button
        size="sm"
        color="alternative"
        onclick={() => maker.do({ do: 'section-add', title: '', draw: null })}>Add a section</Button
      >
      {#if draft.sections.length === 0}<p class="text-quiet mt-2">
          {plural(0, 'section')}: add one, or draw from a bank at the left.
        </p>{/if}
    </div>
    <div class="min-w-0 lg:col-start-2 xl:col-start-3"><Hazards {maker} /></div>
  </div>
</Page>
{#if looked?.packageId && looked.seq !== null}<Peek
    packageId={looked.packageId}
    seq={looked.seq}
    close={() => (looked = null)}
  />{/if}

<script lang="ts">
  import { untrack } from 'svelte';
  import { invalidateAll } from '$app/navigation';
  import Button from 'flowbite-svelte/Button.svelte';
  import { BANK_ID } from '@alforja/core';
  import type { BankListing, OwnBankView } from '$lib/shared/making';
  import { ask } from '../ask';
  import { count, plural } from '../format';
  import { live } from '../live.svelte';
  import Page from '../shell/Page.svelte';
  import OwnBankAlike from './OwnBankAlike.svelte';
  import OwnBankRows from './OwnBankRows.svelte';
  import { setDown } from './setDown';
  import Shelf from './Shelf.svelte';
  import { BankShelf, dragged } from './shelf.svelte';

  interface Props {
    data: {
      readonly id: string;
      readonly title: string;
      readonly version: number;
      readonly packageId: string | null;
      readonly view: OwnBankView;
      readonly banks: readonly BankListing[];
    };
  }
  /** A bank of one's own: what stands in it, where each comes from, and what is alike. */
  let { data }: Props = $props();
  const shelf = untrack(() => new BankShelf(data.id));
  const rows = $derived(data.view.rows);
  const newer = $derived(rows.filter((r) => r.newer));
  let ticked = $state<string[]>([]);
  let apart = $state('');
  let busy = $state('');
  let trouble = $state('');
  let said = $state('');
  let over = $state(false);
  const here = $derived(new Set(rows.map((r) => JSON.stringify(r.at))));

  async function change(what: string, body: Record<string, unknown>, done: string): Promise<void> {
    busy = what;
    trouble = '';
    try {
      const answer = await ask<{ id?: string }>(`/api/made/${data.id}`, { version: data.version, ...body });
      ticked = [];
      said = done;
      await invalidateAll();
      if (answer.id) await live.go(`/banks/${answer.id}`);
    } catch (problem) {
      trouble = (problem as Error).message;
    } finally {
      busy = '';
    }
  }
  function put(): void {
    const items = shelf.chosen.map((r) => r.at);
    shelf.ticked.clear();
    void change('Putting in', { do: 'put', items }, `${items.length} put in.`);
  }
  function putAll(): void {
    const { place, bank } = shelf.bank!;
    void change('Putting in', { do: 'put', from: [{ place, bank }] }, 'All of them put in.');
  }
  const drop = (keys: readonly string[]): Promise<void> =>
    change('Taking out', { do: 'drop', keys }, `${keys.length} taken out.`);
  const take = (of: typeof newer): Promise<void> =>
    change('Taking over', { do: 'newer', items: of.map((r) => r.at) }, `${of.length} taken as they are now.`);
  function split(event: SubmitEvent): void {
    event.preventDefault();
    void change(
      'Splitting',
      { do: 'split', keys: ticked, title: apart.trim() || `${data.title}, part` },
      'Split.',
    );
  }
  async function go(path: (id: string) => string): Promise<void> {
    busy = 'Saving it as a package';
    try {
      await live.go(path(await setDown(data.id)));
    } catch (problem) {
      trouble = (problem as Error).message;
    } finally {
      busy = '';
    }
  }
</script>

<Page title={data.title} back={{ href: '/banks', name: 'Banks' }}>
  {#snippet heading()}<h1 class="sr-only">{data.title}</h1>
    <input
      value={data.title}
      aria-label="Name of the bank"
      maxlength="500"
      dir="auto"
      onchange={(e) =>
        change('Naming', { do: 'name', title: e.currentTarget.value.trim() || data.title }, 'Named.')}
      class="page-title text-ink min-w-[260px] grow border-0 border-b border-transparent bg-transparent p-0 hover:border-b-(--hair)"
    />{/snippet}
  {#snippet actions()}
    <Button
      color="alternative"
      disabled={busy !== '' || rows.length === 0}
      onclick={() => go((id) => `/packages/${id}?in=${encodeURIComponent(`bank:${BANK_ID}`)}`)}
      >Read it</Button
    >
    <Button
      color="primary"
      disabled={busy !== '' || rows.length === 0}
      onclick={() => go((id) => `/bring?package=${id}`)}>Bring into a course…</Button
    >
  {/snippet}
  {#if trouble}<p class="text-brick mb-2" role="alert">{trouble}</p>{/if}
  <p class="sr-only" role="status">{said}</p>
  <div class="grid gap-x-8 gap-y-6 lg:grid-cols-[minmax(300px,360px)_minmax(0,1fr)]">
    <div class="flex h-[calc(100vh-150px)] min-h-[420px] flex-col lg:sticky lg:top-3">
      <Shelf {shelf} banks={data.banks} holds={(row) => here.has(JSON.stringify(row.at))} {put}>
        {#snippet actions()}
          <Button size="sm" color="primary" disabled={busy !== '' || shelf.chosen.length === 0} onclick={put}
            >Put in{shelf.ticked.size > 1 ? ` ${shelf.ticked.size}` : ''}</Button
          >
          <Button size="sm" color="alternative" disabled={busy !== '' || !shelf.bank} onclick={putAll}
            >Put in the whole bank</Button
          >
        {/snippet}
      </Shelf>
    </div>
    <section
      class="min-w-0 {over ? 'outline-agave outline-2 outline-dashed outline-offset-4' : ''}"
      aria-label="This bank"
      ondragover={(e) => {
        e.preventDefault();
        over = dragged.rows.length > 0;
      }}
      ondragleave={() => (over = false)}
      ondrop={(e) => {
        e.preventDefault();
        over = false;
        if (dragged.rows.length > 0) put();
      }}
    >
      <p
        class="num border-hair mb-3 flex flex-wrap items-baseline gap-x-4 border-b pb-2"
        data-testid="bank-totals"
      >
        <b>{plural(rows.length, 'question')}</b>
        <span>{count(rows.reduce((sum, r) => sum + r.points, 0))} points</span>
        <span class="text-quiet ml-auto text-[13px]" role="status">{busy ? `${busy}…` : ''}</span>
      </p>
      {#if newer.length > 0}<p class="border-ochre mb-3 border-l-2 pl-3">
          {plural(newer.length, 'question')} changed where {newer.length === 1 ? 'it comes' : 'they come'} from.
          <button type="button" class="act" disabled={busy !== ''} onclick={() => take(newer)}
            >Take {newer.length === 1 ? 'it' : 'them'} as {newer.length === 1 ? 'it is' : 'they are'} now</button
          >
        </p>{/if}
      <OwnBankAlike alike={data.view.alike} {rows} {drop} busy={busy !== ''} />
      {#if ticked.length > 0}<form class="mb-3 flex flex-wrap items-center gap-2" onsubmit={split}>
          <Button size="sm" color="alternative" disabled={busy !== ''} onclick={() => drop(ticked)}
            >Take {ticked.length} out</Button
          >
          <input
            bind:value={apart}
            aria-label="Name of the bank they go to"
            placeholder="Name of the bank they go to"
            maxlength="500"
            dir="auto"
            class="border-hair bg-surface text-ink placeholder:text-quiet h-8 w-[230px] rounded border px-2 text-[13.5px]"
          />
          <Button size="sm" type="submit" color="alternative" disabled={busy !== ''}
            >Split {ticked.length} off into a bank</Button
          >
        </form>{/if}
      <OwnBankRows
        {rows}
        bind:ticked
        take={(row) => take([row])}
        order={(keys) => change('Ordering', { do: 'order', keys }, 'Moved.')}
        busy={busy !== ''}
      />
    </section>
  </div>
</Page>

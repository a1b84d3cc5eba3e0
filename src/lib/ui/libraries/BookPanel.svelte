<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { Book } from '$lib/shared/libraries';
  import type { LinkTest } from '$lib/shared/links';
  import { ask } from '../ask';
  import { plural } from '../format';
  import { live } from '../live.svelte';
  import ChapterTable from './ChapterTable.svelte';

  /** A book of a library: its banks are brought in together, its links put into a course, and tested. */
  let { libraryId, book }: { libraryId: string; book: Book } = $props();
  let ticked = $state<ReadonlySet<string>>(new Set());
  let tests = $state.raw<ReadonlyMap<string, LinkTest>>(new Map());
  let busy = $state('');
  let trouble = $state('');
  const all = $derived(book.chapters.flatMap((c) => c.offers));
  const chosen = $derived(all.filter((r) => ticked.has(r.id)));
  const banks = $derived(chosen.filter((r) => r.form === 'document' || r.form === 'cartridge'));
  const links = $derived(chosen.filter((r) => r.form === 'web' || r.form === 'lti'));
  const address = $derived(`/api/libraries/${libraryId}`);
  const name = $derived([book.title, book.edition].filter((t) => t !== '').join(', '));

  function tick(ids: readonly string[], on: boolean): void {
    const next = new Set(ticked);
    for (const id of ids)
      if (on) next.add(id);
      else next.delete(id);
    ticked = next;
  }
  async function work(what: () => Promise<void>): Promise<void> {
    trouble = '';
    try {
      await what();
    } catch (error) {
      trouble = (error as Error).message;
    } finally {
      busy = '';
    }
  }
  /** Brings every ticked bank in, one after the other; several become one source. */
  const bring = (where: (id: string) => string): Promise<void> =>
    work(async () => {
      const ids: string[] = [];
      for (const [at, bank] of banks.entries()) {
        busy = `Getting ${at + 1} of ${banks.length}: ${bank.name}`;
        ids.push((await ask<{ id: string }>(address, { do: 'take', resource: bank.id })).id);
      }
      const only = [...new Set(ids)];
      const { id } =
        only.length === 1
          ? { id: only[0]! }
          : await ask<{ id: string }>('/api/packages/together', { ids: only, name });
      await live.go(where(id));
    });
  const place = (): Promise<void> =>
    work(async () => {
      busy = 'Putting the links together…';
      const { id } = await ask<{ id: string }>(address, { do: 'links', resources: links.map((l) => l.id) });
      await live.go(`/bring?package=${id}`);
    });
  const test = (): Promise<void> =>
    work(async () => {
      const asked = links.length > 0 ? links : all.filter((r) => r.form === 'web' || r.form === 'lti');
      busy = `Testing ${plural(asked.length, 'link')}…`;
      const done = await ask<LinkTest[]>(address, { do: 'test', resources: asked.map((l) => l.id) });
      tests = new Map([...tests, ...done.map((t): [string, LinkTest] => [t.url, t])]);
    });
</script>

<h2 class="mb-2 flex flex-wrap items-baseline gap-x-3">
  <span class="font-serif text-[19px]" dir="auto">{book.title}</span>
  <span class="text-quiet font-normal"
    >{[book.edition, book.authors.join(', '), book.publisher].filter((t) => t !== '').join(' · ')}</span
  >
</h2>
<div
  class="border-hair bg-paper sticky top-0 z-10 mb-2 flex flex-wrap items-center gap-x-3 gap-y-2 border-b py-2"
>
  <Button
    color="primary"
    disabled={busy !== '' || banks.length === 0}
    onclick={() => bring((id) => `/bring?package=${id}&all=1`)}
    >Bring {banks.length === 0 ? 'test banks' : plural(banks.length, 'test bank')} into a course…</Button
  >
  <Button
    color="alternative"
    disabled={busy !== '' || banks.length === 0}
    onclick={() => bring((id) => `/packages/${id}`)}>Open them here</Button
  >
  <Button color="alternative" disabled={busy !== '' || links.length === 0} onclick={place}
    >Put {links.length === 0 ? 'links' : plural(links.length, 'link')} into a course…</Button
  >
  <Button color="alternative" disabled={busy !== ''} onclick={test}
    >Test {links.length === 0 ? 'all links' : plural(links.length, 'link')}</Button
  >
  <span role="status" class="text-quiet">{busy}</span>
  {#if trouble}<p class="text-brick basis-full" role="alert">{trouble}</p>{/if}
</div>
<ChapterTable {book} {ticked} {tests} {tick} />

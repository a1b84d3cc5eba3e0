<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import { diffWordsWithSpace } from 'diff';
  import type { FoundText, FoundView } from '$lib/shared/sheet';
  import { ask } from '../ask';
  import { count, plural } from '../format';
  import { live } from '../live.svelte';
  import type { ItemSheet } from './itemSheet.svelte';

  /** Looks for a text in all texts of the rows that are shown; every place is seen before anything is replaced. */
  let { sheet, close }: { sheet: ItemSheet; close: () => void } = $props();
  let find = $state('');
  let replace = $state('');
  let matchCase = $state(false);
  let wholeWords = $state(false);
  let view = $state.raw<FoundView | null>(null);
  let stays = $state.raw<ReadonlySet<number>>(new Set());
  let busy = $state(false);
  let said = $state('');
  const search = $derived({ find, replace, matchCase, wholeWords });
  const nodes = $derived(sheet.shown.length === sheet.lines.length ? null : sheet.shown.map((l) => l.id));
  const can = $derived((view?.places ?? []).filter((p) => p.why === null).length);
  const more = $derived(view ? view.total - view.places.length : 0);
  const AT: Readonly<Record<FoundText['at'], string>> = {
    title: 'title',
    text: 'text',
    choice: 'choice',
    feedback: 'feedback',
    category: 'category',
  };
  /** What was looked for; another text, and the list no longer says what would be done. */
  let shown = $state('');
  const current = $derived(shown === JSON.stringify(search));
  const address = $derived(`/api/packages/${sheet.packageId}/sheet/find`);

  async function look(event?: SubmitEvent): Promise<void> {
    event?.preventDefault();
    busy = true;
    said = '';
    await sheet.settled();
    try {
      view = await ask<FoundView>(address, { search, nodes });
      shown = JSON.stringify(search);
      stays = new Set();
    } catch (error) {
      said = (error as Error).message;
    }
    busy = false;
  }
  async function replaceAll(): Promise<void> {
    busy = true;
    try {
      const { changed } = await ask<{ changed: number }>(address, { search, nodes, without: [...stays] });
      said = `${plural(changed, 'text')} changed.`;
      view = null;
      await live.reload();
      await sheet.load();
    } catch (error) {
      said = (error as Error).message;
    }
    busy = false;
  }
  function turn(at: number): void {
    const next = new Set(stays);
    if (!next.delete(at)) next.add(at);
    stays = next;
  }
  const parts = (p: FoundText, side: 'before' | 'after') =>
    diffWordsWithSpace(p.before, p.after).filter((d) => (side === 'before' ? !d.added : !d.removed));
  const box = 'border-hair bg-surface text-ink block h-8 w-full rounded border px-2 text-[13.5px]';
  function focused(input: HTMLInputElement): void {
    input.focus();
  }
</script>

<section
  class="border-hair bg-surface flex max-h-[46vh] flex-col border px-4 py-3"
  aria-label="Find and replace"
>
  <form class="flex flex-wrap items-end gap-3" onsubmit={look}>
    <label class="text-quiet w-[240px] text-[12.5px]"
      >Find<input use:focused class={box} bind:value={find} maxlength="1000" dir="auto" /></label
    >
    <label class="text-quiet w-[240px] text-[12.5px]"
      >Replace with<input class={box} bind:value={replace} dir="auto" /></label
    >
    <label class="flex items-center gap-1.5 pb-1.5"
      ><input
        type="checkbox"
        bind:checked={matchCase}
        class="border-quiet text-agave size-[15px] rounded-sm"
      /> Capitals matter</label
    >
    <label class="flex items-center gap-1.5 pb-1.5"
      ><input
        type="checkbox"
        bind:checked={wholeWords}
        class="border-quiet text-agave size-[15px] rounded-sm"
      /> Whole words</label
    >
    <Button type="submit" color="alternative" disabled={busy || find.trim() === ''}>Look</Button>
    <button type="button" class="act ml-auto pb-1.5" onclick={close}>Close</button>
  </form>
  {#if said}<p class="mt-2" role="status">{said}</p>{/if}
  {#if view}
    <p class="mt-2" role="status">
      {view.total === 0
        ? `Nothing in ${nodes === null ? 'this package' : 'the rows shown'} says “${find}”.`
        : `${plural(view.total, 'text')}; ${plural(can - stays.size, 'text')} would change.`}
      {#if more > 0}<span class="text-quiet"
          >The first {count(view.places.length)} are listed; the others change too.</span
        >{/if}
    </p>
    {#if view.places.length > 0}
      <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
      <ul class="border-hair mt-1 min-h-0 overflow-y-auto border-t" aria-label="Places" tabindex="0">
        {#each view.places as p, n (n)}
          <li class="border-hair flex gap-3 border-b py-1.5">
            <input
              type="checkbox"
              class="border-quiet text-agave mt-1 size-[15px] rounded-sm"
              aria-label="Change “{p.name}”, {AT[p.at]}"
              checked={p.why === null && !stays.has(n)}
              disabled={p.why !== null}
              onchange={() => turn(n)}
            />
            <span class="text-quiet w-16 shrink-0 pt-0.5 text-[12.5px]">{AT[p.at]}</span>
            <span class="min-w-0 grow font-serif text-[14.5px]" dir="auto">
              <span class="text-quiet block"
                >{#each parts(p, 'before') as d, k (k)}{#if d.removed}<del>{d.value}</del
                    >{:else}{d.value}{/if}{/each}</span
              >
              <span class="block"
                >{#each parts(p, 'after') as d, k (k)}{#if d.added}<ins class="font-semibold">{d.value}</ins
                    >{:else}{d.value}{/if}{/each}</span
              >
              {#if p.why}<span class="text-ochre font-sans text-[12.5px]">{p.why}</span>{/if}
            </span>
          </li>
        {/each}
      </ul>
      <div class="mt-2 flex items-center gap-3">
        <Button color="primary" disabled={busy || !current || can - stays.size <= 0} onclick={replaceAll}
          >Replace {count(can - stays.size + more)}</Button
        >
        {#if !current}<span class="text-ochre">The search has changed; look again first.</span>{/if}
      </div>
    {/if}
  {/if}
</section>

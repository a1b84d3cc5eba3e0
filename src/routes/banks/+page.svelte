<script lang="ts">
  import { goto } from '$app/navigation';
  import Button from 'flowbite-svelte/Button.svelte';
  import { find } from '@alforja/core';
  import type { BankListing } from '$lib/shared/making';
  import { ask } from '$lib/ui/ask';
  import { count, KIND_NAMES, plural } from '$lib/ui/format';
  import { bankKey } from '$lib/ui/maker/shelf.svelte';
  import Page from '$lib/ui/shell/Page.svelte';
  import ThrowAway from '$lib/ui/ThrowAway.svelte';

  let { data } = $props();
  let filter = $state('');
  let title = $state('');
  let trouble = $state('');
  let busy = $state(false);
  let ticked = $state<string[]>([]);
  const shown = $derived(
    find(
      data.banks,
      filter,
      (b) => `${b.title} ${b.placeName} ${b.categories.join(' ')} ${b.usedIn.join(' ')}`,
    ).map((h) => h.entry),
  );
  const chosen = $derived(data.banks.filter((b) => ticked.includes(bankKey(b))));
  const some = (all: readonly string[], most: number): string =>
    all.length <= most ? all.join(', ') : `${all.slice(0, most).join(', ')} and ${all.length - most} more`;

  /** A bank of one's own: empty, or with all that the ticked banks hold. */
  async function begin(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    busy = true;
    trouble = '';
    try {
      const { id } = await ask<{ id: string }>('/api/made', {
        do: 'bank',
        title: title.trim() || chosen[0]?.title || 'New bank',
        from: chosen.map(({ place, bank }: BankListing) => ({ place, bank })),
      });
      await goto(`/banks/${id}`);
    } catch (problem) {
      trouble = (problem as Error).message;
    } finally {
      busy = false;
    }
  }
</script>

<Page title="Banks">
  {#snippet aside()}<input
      type="search"
      aria-label="Filter this list"
      placeholder="Filter…"
      bind:value={filter}
      class="border-hair bg-surface text-ink placeholder:text-quiet h-8 w-[200px] rounded border px-2.5 text-[13.5px]"
    />{/snippet}
  {#snippet actions()}
    <form class="flex flex-wrap items-center gap-2" onsubmit={begin}>
      <input
        bind:value={title}
        aria-label="Name of the new bank"
        placeholder="Name of a bank of your own"
        maxlength="500"
        dir="auto"
        class="border-hair bg-surface text-ink placeholder:text-quiet h-9 w-[220px] rounded border px-2.5 text-[14px]"
      />
      <Button type="submit" color="primary" disabled={busy}
        >{ticked.length === 0
          ? 'New bank'
          : ticked.length === 1
            ? 'New bank from the ticked one'
            : `Merge ${ticked.length} into a new bank`}</Button
      >
    </form>
  {/snippet}
  {#if trouble}<p class="text-brick mb-2" role="alert">{trouble}</p>{/if}
  {#if data.banks.length === 0}
    <p class="max-w-[640px]">
      No bank yet. Drop a package with a bank anywhere, look into a course, or name a bank of your own above.
    </p>
  {:else}
    <div class="relative overflow-x-auto">
      <table class="bg-surface border-hair w-full border text-[14px]">
        <thead>
          <tr class="text-quiet border-hair border-b text-left text-[12.5px]">
            <th class="w-8 px-3 py-1.5"><span class="sr-only">Ticked</span></th>
            <th scope="col" class="px-2 py-1.5 font-normal">Bank</th>
            <th scope="col" class="px-2 py-1.5 text-right font-normal">Questions</th>
            <th scope="col" class="px-2 py-1.5 text-right font-normal">Points</th>
            <th scope="col" class="px-2 py-1.5 font-normal">Kinds</th>
            <th scope="col" class="px-2 py-1.5 font-normal">Categories</th>
            <th scope="col" class="px-2 py-1.5 font-normal">Used in</th>
            <th class="w-8"><span class="sr-only">Throw away</span></th>
          </tr>
        </thead>
        <tbody>
          {#each shown as b (bankKey(b))}<tr class="border-hair hover:bg-wash border-b align-top">
              <td class="px-3 py-2.5"
                ><input
                  type="checkbox"
                  aria-label="{b.title}, {b.placeName}"
                  value={bankKey(b)}
                  bind:group={ticked}
                  class="border-quiet text-agave block size-[15px] rounded-sm dark:bg-transparent"
                /></td
              >
              <td class="max-w-[300px] px-2 py-1.5"
                ><a class="block truncate font-serif text-[16px] hover:underline" dir="auto" href={b.href}
                  >{b.title}</a
                ><span
                  class="block truncate text-[12.5px] {b.own ? 'text-saddle font-semibold' : 'text-quiet'}"
                  >{b.placeName}</span
                ></td
              >
              <td class="num px-2 py-2 text-right">{count(b.items)}</td>
              <td class="num px-2 py-2 text-right">{count(b.points)}</td>
              <td class="max-w-[170px] px-2 py-2 text-[13px]"
                >{some(
                  b.kinds.map((k) => KIND_NAMES[k] ?? k),
                  3,
                )}</td
              >
              <td class="max-w-[200px] px-2 py-2 text-[13px]" dir="auto">{some(b.categories, 3) || '–'}</td>
              <td class="max-w-[200px] px-2 py-2 text-[13px]" dir="auto">{some(b.usedIn, 2) || '–'}</td>
              <td class="py-1.5"
                >{#if b.own}<ThrowAway kind="made" id={b.own} name={b.title} />{/if}</td
              >
            </tr>{:else}<tr
              ><td colspan="8" class="text-quiet px-4 py-3">No matches for “{filter}”. Try fewer words.</td
              ></tr
            >{/each}
        </tbody>
      </table>
    </div>
    <p class="text-quiet mt-2 text-[13px]">
      {plural(shown.length, 'bank')}. Tick some to make one bank of your own out of them; theirs stay as they
      are.
    </p>
  {/if}
</Page>

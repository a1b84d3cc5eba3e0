<script lang="ts">
  import type { Book, LibraryResource } from '$lib/shared/libraries';
  import type { LinkTest } from '$lib/shared/links';
  import LinkResult from '../links/LinkResult.svelte';

  /** The chapters of a book with what each offers; banks and links are ticked. */
  let {
    book,
    ticked,
    tests,
    tick,
  }: {
    book: Book;
    ticked: ReadonlySet<string>;
    tests: ReadonlyMap<string, LinkTest>;
    tick: (ids: readonly string[], on: boolean) => void;
  } = $props();
  const isBank = (r: LibraryResource): boolean => r.form === 'document' || r.form === 'cartridge';
  const banks = $derived(book.chapters.flatMap((c) => c.offers.filter(isBank).map((r) => r.id)));
  const links = $derived(book.chapters.flatMap((c) => c.offers.filter((r) => !isBank(r)).map((r) => r.id)));
  const all = (ids: readonly string[]): boolean => ids.length > 0 && ids.every((id) => ticked.has(id));
  const FORMS = { document: 'document', cartridge: 'cartridge', web: 'web link', lti: 'LTI link' } as const;
</script>

{#snippet box(label: string, ids: readonly string[])}
  <input
    type="checkbox"
    aria-label={label}
    checked={all(ids)}
    indeterminate={!all(ids) && ids.some((id) => ticked.has(id))}
    onchange={(e) => tick(ids, e.currentTarget.checked)}
    class="border-quiet text-agave size-[15px] shrink-0 rounded-sm dark:bg-transparent"
  />
{/snippet}

<table class="border-hair bg-surface w-full border text-left">
  <thead class="text-quiet border-hair border-b text-[12.5px]">
    <tr>
      <th class="px-4 py-1.5 font-semibold">Chapter</th>
      <th class="px-3 py-1.5 font-semibold"
        ><span class="inline-flex items-center gap-2">{@render box('All test banks', banks)} Test bank</span
        ></th
      >
      <th class="px-3 py-1.5 font-semibold"
        ><span class="inline-flex items-center gap-2">{@render box('All links', links)} Links</span></th
      >
    </tr>
  </thead>
  <tbody>
    {#each book.chapters as chapter (chapter.position)}
      <tr class="border-hair border-b align-top last:border-0">
        <td class="px-4 py-2">
          {#if chapter.position > 0}<span class="num text-quiet mr-2">{chapter.position}</span>{/if}
          <span class="font-serif text-[15.5px]" dir="auto"
            >{chapter.position === 0 ? 'The whole book' : chapter.title}</span
          >
        </td>
        <td class="px-3 py-2">
          {#each chapter.offers.filter(isBank) as r (r.id)}
            <label class="flex min-h-6 items-center gap-2">
              {@render box(`${r.name} ${FORMS[r.form]}`, [r.id])}
              <span class="max-md:sr-only">{FORMS[r.form]}</span>
            </label>
          {/each}
        </td>
        <td class="px-3 py-2">
          {#each chapter.offers.filter((r) => !isBank(r)) as r (r.id)}
            <div class="flex min-h-6 flex-wrap items-center gap-x-2">
              {@render box(`${r.name} ${FORMS[r.form]}`, [r.id])}
              <span dir="auto">{r.name}</span>
              <span class="text-quiet text-[12.5px]">{FORMS[r.form]}</span>
              {#if tests.has(r.url)}<LinkResult test={tests.get(r.url)!} />{/if}
            </div>
          {/each}
        </td>
      </tr>
    {/each}
  </tbody>
</table>

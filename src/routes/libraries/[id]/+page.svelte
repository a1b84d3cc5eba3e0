<script lang="ts">
  import { page } from '$app/state';
  import BookPanel from '$lib/ui/libraries/BookPanel.svelte';
  import { plural } from '$lib/ui/format';
  import Page from '$lib/ui/shell/Page.svelte';

  let { data } = $props();
  const hrefOf = (book: string): string =>
    `${page.url.pathname}?${new URLSearchParams({ ...(data.query ? { q: data.query } : {}), book })}`;
  const offered = (form: 'bank' | 'link', chapters: (typeof data.books)[number]['chapters']): number =>
    chapters
      .flatMap((c) => c.offers)
      .filter((o) => (o.form === 'document' || o.form === 'cartridge') === (form === 'bank')).length;
</script>

<Page title={data.library.name} back={{ href: '/libraries', name: 'Publishers’ libraries' }}>
  {#snippet actions()}
    <form method="GET" class="flex items-center gap-2" role="search" aria-label="Search the library">
      <input
        type="search"
        name="q"
        value={data.query}
        aria-label="Find in the library"
        placeholder="Title, chapter, author…"
        class="border-hair bg-surface text-ink h-9 w-[260px] max-w-full rounded border px-2.5"
      />
      <button type="submit" class="act">Search</button>
    </form>
  {/snippet}
  {#if data.trouble}<p class="text-brick mb-3" role="alert">{data.trouble}</p>{/if}
  <ul class="border-hair bg-surface mb-5 border border-b-0">
    {#each data.books as book (book.id)}
      <li class="border-hair border-b">
        <a
          class="hover:bg-wash flex flex-wrap items-baseline gap-x-3 px-4 py-2 {book.id === data.book?.id
            ? 'bg-band'
            : ''}"
          aria-current={book.id === data.book?.id ? 'true' : undefined}
          href={hrefOf(book.id)}
          data-sveltekit-noscroll
        >
          <span class="font-serif text-[16px]" dir="auto">{book.title}</span>
          <span class="font-semibold">{book.edition}</span>
          <span class="text-quiet">{book.authors.join(', ')}</span>
          <span class="text-quiet num ml-auto text-[12.5px]"
            >{plural(offered('bank', book.chapters), 'test bank')}, {plural(
              offered('link', book.chapters),
              'link',
            )}</span
          >
        </a>
      </li>
    {:else}
      <li class="border-hair text-quiet border-b px-4 py-3">
        {data.query ? `No matches for “${data.query}”. Try fewer words.` : 'This library offers nothing yet.'}
      </li>
    {/each}
  </ul>
  {#if data.book}{#key data.book.id}<BookPanel libraryId={data.library.id} book={data.book} />{/key}
  {:else if data.books.length > 0}<p class="text-quiet">Choose a book to see its chapters.</p>{/if}
</Page>

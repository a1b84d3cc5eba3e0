<script lang="ts">
  import { page } from '$app/state';
  import Button from 'flowbite-svelte/Button.svelte';
  import Page from '$lib/ui/shell/Page.svelte';
  import TransferTable from '$lib/ui/TransferTable.svelte';
  import { count, plural } from '$lib/ui/format';
  import { sorted, STATE_NAMES, type Sort } from '$lib/ui/lines';
  import { thrown } from '$lib/ui/thrown.svelte';
  import { LINE_STATES, type LineState } from '$lib/shared/transfers';

  let { data } = $props();
  const shown = $derived(
    sorted(
      data.lines.filter((l) => data.state === null || l.state === data.state),
      data.sort,
    ),
  );
  const states = (Object.keys(STATE_NAMES) as LineState[]).filter((s) => LINE_STATES.includes(s));
  const of = (state: LineState): number => data.lines.filter((l) => l.state === state).length;
  const filtered = $derived(data.query !== '' || data.from !== '' || data.to !== '');
  const drafts = $derived(shown.filter((l) => l.state === 'draft'));

  /** The address of this list with something otherwise. */
  function address(change: Readonly<Record<string, string | null>>): string {
    const next = new URLSearchParams(page.url.searchParams);
    for (const [key, value] of Object.entries(change)) {
      if (value === null || value === '') next.delete(key);
      else next.set(key, value);
    }
    const query = next.toString();
    return query === '' ? '/transfers' : `/transfers?${query}`;
  }
  const by = (sort: Sort): string => address({ sort: sort === '-begun' ? null : sort });
</script>

<Page title="Transfers">
  {#snippet actions()}<Button href="/bring" color="primary">Bring something into a course</Button>{/snippet}
  <form class="mb-2 flex flex-wrap items-center gap-x-3 gap-y-2" action="/transfers">
    <input
      type="search"
      name="q"
      aria-label="Filter by name, course, term or file"
      placeholder="Name, course, term, file…"
      value={data.query}
      class="border-hair bg-surface text-ink placeholder:text-quiet h-8 w-[300px] rounded border px-2.5 max-md:w-full"
    />
    <label class="flex items-center gap-2"
      >from <input
        type="date"
        name="from"
        value={data.from}
        class="border-hair bg-surface text-ink h-8 rounded border px-2"
      /></label
    >
    <label class="flex items-center gap-2"
      >to <input
        type="date"
        name="to"
        value={data.to}
        class="border-hair bg-surface text-ink h-8 rounded border px-2"
      /></label
    >
    {#if data.state}<input type="hidden" name="state" value={data.state} />{/if}
    <Button type="submit" color="alternative">Filter</Button>
    {#if filtered}<a class="act" href={address({ q: null, from: null, to: null })}>Clear</a>{/if}
  </form>
  {#if data.lines.length > 0}
    <nav aria-label="Filter by state" class="mb-3 flex flex-wrap items-center gap-x-4 text-[13.5px]">
      {#each [null, ...states] as state (state)}
        {@const n = state === null ? data.lines.length : of(state)}
        {#if state === null || n > 0 || state === data.state}
          <a
            class="inline-flex min-h-6 items-center gap-1 {state === data.state
              ? 'font-semibold'
              : 'text-quiet hover:text-ink'}"
            aria-current={state === data.state ? 'true' : undefined}
            href={address({ state })}
            >{state === null ? 'All' : STATE_NAMES[state]} <span class="num">{count(n)}</span></a
          >
        {/if}
      {/each}
      {#if data.state === 'draft' && drafts.length > 1}<button
          type="button"
          class="act ml-auto min-h-6"
          onclick={() =>
            thrown.away(
              'transfer',
              drafts.map((d) => d.id),
              plural(drafts.length, 'draft'),
            )}>Throw away all {plural(drafts.length, 'draft')}</button
        >{/if}
    </nav>
  {/if}
  {#if shown.length > 0}<TransferTable lines={shown} sort={data.sort} {by} />
  {:else if filtered || data.state}<p class="text-quiet">
      No transfer matches. <a class="act" href="/transfers">Show all</a>
    </p>{:else}<p class="text-quiet">
      No transfers yet. <a class="act" href="/bring">Bring something into a course</a>, or open a
      <a class="act" href="/packages">package</a> and choose “Convert or send…”. To try it, download our
      <a class="act" href="/sample.imscc" download>sample cartridge</a> and drop it on this page.
    </p>{/if}
  <p class="mt-3"><a class="text-quiet text-[13px] hover:underline" href="/trash">Thrown away</a></p>
</Page>

<script lang="ts">
  import { count, KIND_NAMES, plural } from '../format';
  import type { ItemSheet } from './itemSheet.svelte';
  import { NO_CATEGORY, NO_SIEVE, valuesOf } from './sieve';

  /** What can be set for all rows that are marked. */
  const ASKS = {
    points: { says: 'Points…', label: 'Points for each', wide: 'w-16' },
    category: { says: 'Category…', label: 'Category of all', wide: 'w-44' },
    bank: { says: 'New bank…', label: 'Name of the new bank', wide: 'w-44' },
  } as const;
  type Asked = keyof typeof ASKS;
  interface PlaceChoice {
    readonly value: string;
    readonly title: string;
    readonly places: readonly number[];
  }
  /** What the sheet is narrowed down to, and what can be done to all rows that are marked. */
  let {
    sheet,
    places,
    place,
    done,
  }: {
    sheet: ItemSheet;
    places: readonly PlaceChoice[];
    place: string;
    done: () => void;
  } = $props();
  // svelte-ignore state_referenced_locally
  let at = $state(place);
  let asking = $state<Asked | null>(null);
  let value = $state('');
  const marked = $derived(sheet.markedLines);
  const banks = $derived(places.filter((p) => p.value.startsWith('bank:')));
  const asks = $derived<Asked[]>(banks.length > 0 ? ['points', 'category', 'bank'] : ['points', 'category']);
  const narrowed = $derived(
    sheet.sieve.q + sheet.sieve.kind + sheet.sieve.category + sheet.sieve.points + sheet.sieve.findings !==
      '',
  );
  const selects = [
    { name: 'kind', label: 'Kind', says: (v: string) => KIND_NAMES[v] ?? v },
    { name: 'category', label: 'Category', says: (v: string) => v || 'none' },
    { name: 'points', label: 'Points', says: (v: string) => plural(Number(v), 'point') },
  ] as const;
  function choosePlace(to: string): void {
    at = to;
    const found = places.find((p) => p.value === to);
    sheet.narrow({ places: to === '' || !found ? null : new Set(found.places) });
  }
  function set(event: SubmitEvent): void {
    event.preventDefault();
    const column = asking!;
    if (column === 'bank')
      sheet.newBank(
        value,
        banks.map((b) => ({ id: b.value.slice('bank:'.length), places: b.places })),
      );
    else sheet.send(marked.map((l) => ({ node: l.id, column, text: value })));
    asking = null;
    done();
  }
  function ask(what: Asked): void {
    asking = asking === what ? null : what;
    value = '';
  }
  function focused(box: HTMLInputElement): void {
    box.focus();
  }
  const field = 'border-hair bg-surface text-ink h-7 rounded border py-0 pr-7 pl-2 text-[13px] truncate';
</script>

<div class="flex flex-wrap items-center gap-x-2.5 gap-y-1.5 text-[13px]" role="group" aria-label="Show only">
  {#if places.length > 1}<label class="text-quiet"
      >In <select
        class="{field} max-w-[190px]"
        value={at}
        onchange={(e) => choosePlace(e.currentTarget.value)}
        >{#each places as p (p.value)}<option value={p.value}>{p.title} ({count(p.places.length)})</option
          >{/each}</select
      ></label
    >{/if}
  <input
    type="search"
    aria-label="Rows that hold"
    placeholder="Rows that hold…"
    value={sheet.sieve.q}
    oninput={(e) => sheet.narrow({ q: e.currentTarget.value })}
    class="border-hair bg-surface text-ink placeholder:text-quiet h-7 w-[150px] rounded border px-2 text-[13px]"
  />
  {#each selects as s (s.name)}
    <label class="text-quiet"
      >{s.label}
      <select
        class="{field} max-w-[150px]"
        value={sheet.sieve[s.name]}
        onchange={(e) => sheet.narrow({ [s.name]: e.currentTarget.value })}
      >
        <option value="">any</option>
        {#each valuesOf(sheet.lines, s.name) as v (v.value)}<option value={v.value || NO_CATEGORY}
            >{s.says(v.value)} ({count(v.count)})</option
          >{/each}
      </select></label
    >
  {/each}
  <label class="text-quiet"
    >Findings <select
      class={field}
      value={sheet.sieve.findings}
      onchange={(e) => sheet.narrow({ findings: e.currentTarget.value as '' | 'some' | 'none' })}
      ><option value="">any</option><option value="some">some</option><option value="none">none</option
      ></select
    ></label
  >
  {#if narrowed}<button
      type="button"
      class="act"
      onclick={() => sheet.narrow({ ...NO_SIEVE, places: sheet.sieve.places })}>Clear</button
    >{/if}
</div>
<div
  class="mt-1.5 flex min-h-7 flex-wrap items-center gap-x-3 gap-y-1 text-[13px]"
  role="group"
  aria-label="The marked rows"
>
  <span class="text-quiet"><b class="text-ink num">{count(marked.length)}</b> marked:</span>
  {#each asks as what (what)}<button
      type="button"
      class="act"
      aria-expanded={asking === what}
      onclick={() => ask(what)}>{ASKS[what].says}</button
    >{/each}
  <button
    type="button"
    class="act"
    disabled={marked.length === 0}
    onclick={() => {
      sheet.leaveOut();
      done();
    }}>Leave out</button
  >
  {#if banks.length > 1}<label class="text-quiet"
      >Into the bank <select
        class="{field} max-w-[150px]"
        value=""
        onchange={(e) => {
          const to = e.currentTarget.value;
          e.currentTarget.value = '';
          if (to !== '') sheet.moveInto(to.slice('bank:'.length));
          done();
        }}
        ><option value="">…</option>{#each banks as b (b.value)}<option value={b.value}>{b.title}</option
          >{/each}</select
      ></label
    >{/if}
  {#if asking}
    <form class="flex items-center gap-2" onsubmit={set}>
      <input
        use:focused
        aria-label={ASKS[asking].label}
        bind:value
        class="border-hair bg-surface text-ink h-7 rounded border px-2 text-[13px] {ASKS[asking].wide}"
        onkeydown={(e) => {
          if (e.key === 'Escape') {
            asking = null;
            done();
          }
        }}
      />
      <button type="submit" class="act"
        >{asking === 'bank' ? 'Put in it' : 'Set for'} {count(marked.length)}</button
      >
    </form>
  {/if}
  <button
    type="button"
    class="act"
    disabled={sheet.shown.length === 0}
    onclick={() => {
      sheet.markAll();
      done();
    }}>Mark all {count(sheet.shown.length)}</button
  >
  <span class="text-quiet ml-auto" role="status"
    >{sheet.said ? `${sheet.said} ` : ''}<b class="text-ink num">{count(sheet.shown.length)}</b>
    {sheet.shown.length === sheet.lines.length ? 'items' : `of ${count(sheet.lines.length)} items`},
    <b class="text-ink num">{count(sheet.points)}</b> points{sheet.busy ? ' · keeping…' : ''}</span
  >
</div>
{#if sheet.trouble || sheet.changes.trouble}<p class="text-brick mt-1 text-[13px]" role="alert">
    {sheet.trouble || sheet.changes.trouble}
  </p>{/if}

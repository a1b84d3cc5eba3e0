<script lang="ts">
  import { count, KIND_NAMES } from '../format';
  import type { BankShelf } from './shelf.svelte';

  /** What a bank is narrowed to. */
  let { shelf }: { shelf: BankShelf } = $props();
  const head = $derived(shelf.head);
  const filter = $derived(shelf.filter);
  const WORDS_AFTER_MS = 250;
  let waiting: ReturnType<typeof setTimeout> | undefined;
  function type(words: string): void {
    clearTimeout(waiting);
    waiting = setTimeout(() => shelf.narrow({ words }), WORDS_AFTER_MS);
  }
  const field =
    'border-hair bg-surface text-ink h-8 min-w-0 truncate rounded border py-0 pr-7 pl-2 text-[13px]';
  const yes = (text: string): boolean | null => (text === '' ? null : text === 'yes');
  const said = (of: boolean | null): string => (of === null ? '' : of ? 'yes' : 'no');
</script>

{#snippet yesNo(
  label: string,
  value: boolean | null,
  [either, so, not]: readonly [string, string, string],
  set: (to: boolean | null) => void,
)}
  <select
    aria-label={label}
    class={field}
    value={said(value)}
    onchange={(e) => set(yes(e.currentTarget.value))}
  >
    <option value="">{either}</option><option value="yes">{so}</option><option value="no">{not}</option>
  </select>
{/snippet}
<div class="grid grid-cols-2 gap-1.5">
  <input
    type="search"
    aria-label="Words in the question"
    placeholder="Words…"
    value={filter.words}
    oninput={(e) => type(e.currentTarget.value)}
    class="{field} col-span-2 placeholder:text-quiet"
  />
  <select
    aria-label="Kind"
    class={field}
    value={filter.kinds[0] ?? ''}
    onchange={(e) => shelf.narrow({ kinds: e.currentTarget.value ? [e.currentTarget.value] : [] })}
  >
    <option value="">Every kind</option>
    {#each head?.kinds ?? [] as [kind, items] (kind)}<option value={kind}
        >{KIND_NAMES[kind] ?? kind} ({items})</option
      >{/each}
  </select>
  <select
    aria-label="Category"
    class={field}
    value={filter.categories.length === 0 ? '*' : filter.categories[0]}
    onchange={(e) =>
      shelf.narrow({ categories: e.currentTarget.value === '*' ? [] : [e.currentTarget.value] })}
  >
    <option value="*">Every category</option>
    {#each head?.categories ?? [] as [category, items] (category)}<option value={category}
        >{category || 'No category'} ({items})</option
      >{/each}
  </select>
  <select
    aria-label="Points"
    class={field}
    value={filter.points === null ? '' : String(filter.points)}
    onchange={(e) => shelf.narrow({ points: e.currentTarget.value ? Number(e.currentTarget.value) : null })}
  >
    <option value="">Any points</option>
    {#each head?.worth ?? [] as worth (worth)}<option value={String(worth)}
        >{count(worth)} {worth === 1 ? 'point' : 'points'}</option
      >{/each}
  </select>
  {@render yesNo('Used before', filter.used, ['Used or not', 'Used before', 'Not used yet'], (used) =>
    shelf.narrow({ used }),
  )}
  {@render yesNo('Picture', filter.picture, ['Pictures or not', 'With a picture', 'No picture'], (picture) =>
    shelf.narrow({ picture }),
  )}
  <button
    type="button"
    class="act h-8 text-left text-[13px] disabled:opacity-40"
    disabled={!shelf.narrowed}
    onclick={() => shelf.open(shelf.bank)}>Show all of the bank</button
  >
</div>

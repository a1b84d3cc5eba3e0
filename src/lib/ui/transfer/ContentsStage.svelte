<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { ItemRow, Tick, Tree } from '$lib/shared/types';
  import KindIcon from '../KindIcon.svelte';
  import { count, plural } from '../format';
  import { itemsInQuiz, looseItems } from '../room/places';
  import type { ContentsView } from './types';
  import { TickSheet } from './ticks.svelte';

  interface Props {
    transferId: string;
    tree: Tree;
    rows: readonly ItemRow[];
    ticks: readonly Tick[];
    contents: ContentsView;
    base: string;
  }
  let { transferId, tree, rows, ticks, contents, base }: Props = $props();
  // svelte-ignore state_referenced_locally
  const sheet = new TickSheet(transferId, ticks, contents);
  const byId = $derived(new Map(rows.map((r) => [r.id, r])));
  const loose = $derived(looseItems(tree, rows));
  let unfolded = $state<Set<string>>(new Set());
  const itemsOf = (ids: readonly string[]): ItemRow[] => ids.flatMap((id) => byId.get(id) ?? []);
  const worth = (list: readonly ItemRow[]): number => list.reduce((sum, r) => sum + r.points, 0);
  const reasons = $derived(new Map(sheet.contents.dependencies.map((d) => [`${d.kind} ${d.id}`, d])));
  const nameOf = (id: string): string =>
    tree.quizzes.find((q) => q.id === id)?.title ||
    tree.banks.find((b) => b.id === id)?.title ||
    byId.get(id)?.name ||
    id;
  const everything = $derived<Tick[]>([
    ...tree.quizzes.map((q): Tick => ({ kind: 'quiz', nodeId: q.id })),
    ...tree.banks.map((b): Tick => ({ kind: 'bank', nodeId: b.id })),
    ...tree.links.map((l): Tick => ({ kind: 'link', nodeId: l.id })),
    ...loose.map((r): Tick => ({ kind: 'item', nodeId: r.id })),
  ]);
  const behind = $derived(sheet.contents.behind);
  const shownBehind = $derived(behind.slice(0, 60));
  function fold(key: string): void {
    const next = new Set(unfolded);
    if (!next.delete(key)) next.add(key);
    unfolded = next;
  }
</script>

<svelte:window
  onkeydown={(e) =>
    e.key === 'z' && (e.ctrlKey || e.metaKey) && sheet.canUndo
      ? (e.preventDefault(), sheet.undo())
      : undefined}
/>

{#snippet box(tick: Tick, label: string, list: readonly ItemRow[])}
  {@const ticked = sheet.has(tick)}
  {@const single = list.filter((r) => sheet.has({ kind: 'item', nodeId: r.id })).length}
  {@const brought = reasons.get(`${tick.kind} ${tick.nodeId}`)}
  <input
    type="checkbox"
    class="border-quiet text-agave size-[16px] shrink-0 rounded-sm dark:bg-transparent"
    aria-label={label}
    checked={ticked || (brought !== undefined && !ticked)}
    disabled={brought !== undefined && !ticked}
    indeterminate={!ticked && !brought && single > 0}
    onchange={() => sheet.toggle(tick, list)}
  />
{/snippet}

{#snippet group(kind: 'quiz' | 'bank', id: string, title: string, list: readonly ItemRow[], extra: string)}
  {@const tick = { kind, nodeId: id } as Tick}
  {@const key = `${kind} ${id}`}
  {@const brought = sheet.has(tick) ? undefined : reasons.get(key)}
  <li class="border-hair border-b">
    <div class="flex items-center gap-3 px-4 py-2">
      {@render box(tick, `${kind === 'quiz' ? 'Quiz' : 'Bank'} ${title}`, list)}
      <button
        type="button"
        class="flex min-w-0 grow items-baseline gap-3 text-left"
        aria-expanded={unfolded.has(key)}
        onclick={() => fold(key)}
      >
        <span class="truncate font-serif text-[16px]" dir="auto">{title}</span>
        <span class="text-quiet shrink-0">{kind}{extra}</span>
        {#if brought}<span class="text-saddle shrink-0 font-semibold"
            >comes along: {brought.reason === 'drawn-from'
              ? `${nameOf(brought.neededBy)} draws from it`
              : `${nameOf(brought.neededBy)} needs it`}</span
          >{/if}
        <span class="num text-quiet ml-auto shrink-0"
          >{plural(list.length, 'item')}, {plural(worth(list), 'point')}</span
        >
      </button>
    </div>
    {#if unfolded.has(key)}
      <ul class="border-hair border-t">
        {#each list as row (row.seq)}{@render single(
            row,
            sheet.has(tick) || brought !== undefined ? title : null,
          )}{/each}
      </ul>
    {/if}
  </li>
{/snippet}

{#snippet single(row: ItemRow, inside: string | null)}
  {@const tick = { kind: 'item', nodeId: row.id } as Tick}
  <li class="flex items-center gap-3 py-1.5 pr-4 pl-11 hover:bg-wash">
    <input
      type="checkbox"
      class="border-quiet text-agave size-[15px] shrink-0 rounded-sm dark:bg-transparent"
      aria-label={row.name}
      checked={inside !== null || sheet.has(tick)}
      disabled={inside !== null}
      onchange={() => sheet.toggle(tick, [])}
    />
    <KindIcon kind={row.kind} />
    <span class="truncate font-serif text-[15px]" dir="auto">{row.name}</span>
    {#if inside}<span class="text-quiet shrink-0 text-[12.5px]">goes with {inside}</span>{/if}
    <span class="num text-quiet ml-auto shrink-0">{count(row.points)}</span>
  </li>
{/snippet}

<div class="grid grid-cols-[minmax(0,1fr)_330px] gap-5 max-lg:grid-cols-1">
  <section aria-label="What goes">
    <div class="mb-2 flex items-center gap-3">
      <Button size="xs" color="alternative" onclick={() => sheet.set(everything)}>Everything</Button>
      <Button size="xs" color="alternative" onclick={() => sheet.set([])}>Nothing</Button>
      {#if tree.quizzes.length > 0}<button
          type="button"
          class="act"
          onclick={() => sheet.set(everything.filter((t) => t.kind === 'quiz'))}>Only quizzes</button
        >{/if}
      {#if tree.banks.length > 0}<button
          type="button"
          class="act"
          onclick={() => sheet.set(everything.filter((t) => t.kind === 'bank'))}>Only banks</button
        >{/if}
      <button
        type="button"
        class="act disabled:text-quiet ml-auto disabled:no-underline"
        disabled={!sheet.canUndo}
        onclick={() => sheet.undo()}>Undo</button
      >
    </div>
    <ul class="border-hair bg-surface border border-b-0">
      {#each tree.quizzes as quiz (quiz.id)}
        {@const draws = quiz.sections.filter((s) => s.draw !== null).length}
        {@render group(
          'quiz',
          quiz.id,
          quiz.title || quiz.id,
          itemsOf(itemsInQuiz(quiz)),
          draws > 0 ? `, ${plural(draws, 'draw')}` : '',
        )}
      {/each}
      {#each tree.banks as bank (bank.id)}{@render group(
          'bank',
          bank.id,
          bank.title || bank.id,
          itemsOf(bank.items),
          '',
        )}{/each}
      {#each tree.links as link (link.id)}
        <li class="border-hair flex items-center gap-3 border-b px-4 py-2">
          {@render box({ kind: 'link', nodeId: link.id }, `Link ${link.title}`, [])}
          <span class="truncate font-serif text-[16px]">{link.title}</span><span class="text-quiet"
            >{link.kind === 'web' ? 'web link' : 'LTI link'}</span
          >
        </li>
      {/each}
      {#if loose.length > 0}
        <li class="border-hair border-b">
          <div class="text-quiet px-4 pt-2 text-[12.5px] font-semibold">In no quiz or bank</div>
          <ul class="pb-1">
            {#each loose as row (row.seq)}{@render single(row, null)}{/each}
          </ul>
        </li>
      {/if}
    </ul>
  </section>
  <aside class="flex flex-col gap-4" aria-label="The outcome">
    <div class="border-hair bg-surface border px-4 py-3" role="status">
      <h2 class="text-[14px]">Goes</h2>
      <p class="num text-[20px] font-semibold">
        {count(sheet.contents.items)} of {plural(sheet.contents.total, 'item')}
      </p>
      <p class="num text-quiet">{plural(sheet.contents.points, 'point')}</p>
      {#if sheet.trouble}<p class="text-brick">{sheet.trouble}</p>{/if}
      <Button href="{base}/forecast" size="sm" color="primary" class="mt-3">On to Forecast</Button>
    </div>
    <div class="border-hair bg-surface border px-4 py-3">
      <h2 class="text-[14px]">Stays behind</h2>
      {#if behind.length === 0}<p class="text-quiet">Nothing: everything goes.</p>
      {:else}
        <ul class="max-h-[300px] overflow-y-auto" role="list">
          {#each shownBehind as left (left.kind + left.id)}<li class="truncate py-0.5" dir="auto">
              <span class="text-quiet">{left.kind}</span>
              {left.kind === 'item' ? (byId.get(left.id)?.name ?? left.title) : left.title}
            </li>{/each}
          {#if behind.length > shownBehind.length}<li class="text-quiet">
              and {count(behind.length - shownBehind.length)} more
            </li>{/if}
        </ul>
      {/if}
    </div>
  </aside>
</div>

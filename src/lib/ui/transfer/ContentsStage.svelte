<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { CourseAssignment, TransferOptions } from '$lib/shared/courses';
  import type { ContentsView, ItemRow, ThingGroup, Tick, Tree } from '$lib/shared/types';
  import KindIcon from '../KindIcon.svelte';
  import { count, plural } from '../format';
  import { itemsInQuiz, looseItems } from '../room/places';
  import { goesOf } from './goes';
  import SettingTicks from './SettingTicks.svelte';
  import { TickSheet } from './ticks.svelte';

  interface Props {
    transferId: string;
    tree: Tree;
    rows: readonly ItemRow[];
    ticks: readonly Tick[];
    groups: readonly ThingGroup[];
    /** Work of the source course that is handed in: it stays, the rubric that grades it may go. */
    assignments: readonly CourseAssignment[];
    contents: ContentsView;
    /** Which settings come along; null for a transfer into a file. */
    options: TransferOptions | null;
    base: string;
  }
  let { transferId, tree, rows, ticks, groups, assignments, contents, options, base }: Props = $props();
  // svelte-ignore state_referenced_locally
  const sheet = new TickSheet(transferId, ticks, contents);
  let filter = $state('');
  const byId = $derived(new Map(rows.map((r) => [r.id, r])));
  const loose = $derived(looseItems(tree, rows));
  let unfolded = $state<Set<string>>(new Set());
  const itemsOf = (ids: readonly string[]): ItemRow[] => ids.flatMap((id) => byId.get(id) ?? []);
  const worth = (list: readonly ItemRow[]): number => list.reduce((sum, r) => sum + r.points, 0);
  const reasons = $derived(new Map(sheet.contents.dependencies.map((d) => [`${d.kind} ${d.id}`, d])));
  const behind = $derived(sheet.contents.behind);
  const shownBehind = $derived(behind.slice(0, 25));

  interface Thing {
    readonly tick: Tick;
    readonly title: string;
    readonly word: string;
    readonly items: readonly ItemRow[];
    /** Titles of the assignments that a rubric grades. */
    readonly grades?: readonly string[];
  }
  const things = $derived(
    new Map<string, Thing>([
      ...tree.quizzes.map((q): [string, Thing] => {
        const draws = q.sections.filter((s) => s.draw !== null).length;
        return [
          `quiz ${q.id}`,
          {
            tick: { kind: 'quiz', nodeId: q.id },
            title: q.title || q.id,
            word: draws > 0 ? `quiz, ${plural(draws, 'draw')}` : 'quiz',
            items: itemsOf(itemsInQuiz(q)),
          },
        ];
      }),
      ...tree.banks.map((b): [string, Thing] => [
        `bank ${b.id}`,
        {
          tick: { kind: 'bank', nodeId: b.id },
          title: b.title || 'Bank without a name',
          word: 'bank',
          items: itemsOf(b.items),
        },
      ]),
      ...tree.links.map((l): [string, Thing] => [
        `link ${l.id}`,
        {
          tick: { kind: 'link', nodeId: l.id },
          title: l.title || l.url,
          word: l.kind === 'web' ? 'web link' : 'LTI link',
          items: [],
        },
      ]),
      ...tree.rubrics.map((r): [string, Thing] => [
        `rubric ${r.id}`,
        {
          tick: { kind: 'rubric', nodeId: r.id },
          title: r.title || r.id,
          word: `rubric, ${plural(r.criteria.length, 'criterion', 'criteria')}`,
          items: [],
          grades: assignments.filter((a) => r.attachedTo.includes(a.id)).map((a) => a.title || a.id),
        },
      ]),
    ]),
  );
  const KIND_WORDS = { quiz: 'Quiz', bank: 'Bank', link: 'Link', rubric: 'Rubric' } as const;
  const kindWord = (t: Thing): string => KIND_WORDS[t.tick.kind as keyof typeof KIND_WORDS];
  const nameOf = (id: string): string =>
    things.get(`quiz ${id}`)?.title ?? things.get(`bank ${id}`)?.title ?? byId.get(id)?.name ?? id;
  const says = (text: string): boolean => text.toLowerCase().includes(filter.trim().toLowerCase());
  const fits = (t: Thing): boolean =>
    filter.trim() === '' || says(t.title) || t.items.some((r) => says(r.name));
  const shownGroups = $derived(
    groups
      .map((g) => ({
        ...g,
        things: g.nodes.flatMap((n) => things.get(`${n.kind} ${n.nodeId}`) ?? []).filter(fits),
      }))
      .filter((g) => g.things.length > 0),
  );
  const everything = $derived<Tick[]>([
    ...[...things.values()].map((t) => t.tick),
    ...loose.map((r): Tick => ({ kind: 'item', nodeId: r.id })),
  ]);
  const goes = (t: Thing): boolean => sheet.has(t.tick) || reasons.has(`${t.tick.kind} ${t.tick.nodeId}`);
  /** What says that a thing stays behind although something that goes needs it. */
  const without = ({ kind, nodeId }: Tick): Tick => ({
    kind: kind === 'rubric' ? 'without-rubric' : 'without',
    nodeId,
  });

  function fold(key: string): void {
    const next = new Set(unfolded);
    if (!next.delete(key)) next.add(key);
    unfolded = next;
  }
  /** A bank that a quiz needs, or a rubric that an item is graded by, is left out only knowingly, and said so. */
  function toggle(t: Thing): void {
    const { kind, nodeId } = t.tick;
    const depends = kind === 'bank' || kind === 'rubric';
    if (depends && !sheet.has(t.tick) && reasons.has(`${kind} ${nodeId}`)) sheet.all([without(t.tick)], true);
    else if (depends && sheet.has(without(t.tick))) sheet.all([without(t.tick)], false);
    else sheet.toggle(t.tick, t.items);
  }
</script>

<svelte:window
  onkeydown={(e) =>
    e.key === 'z' && (e.ctrlKey || e.metaKey) && sheet.canUndo
      ? (e.preventDefault(), sheet.undo())
      : undefined}
/>

{#snippet thing(t: Thing)}
  {@const key = `${t.tick.kind} ${t.tick.nodeId}`}
  {@const brought = sheet.has(t.tick) ? undefined : reasons.get(key)}
  {@const single = t.items.filter((r) => sheet.has({ kind: 'item', nodeId: r.id })).length}
  {@const broken = sheet.contents.broken.filter((b) => b.bank === t.tick.nodeId && t.tick.kind === 'bank')}
  {@const open = unfolded.has(key) || (filter.trim() !== '' && !says(t.title))}
  <li class="border-hair border-b">
    <div class="flex items-center gap-3 py-2 pr-4 pl-9">
      <input
        type="checkbox"
        class="border-quiet text-agave size-[16px] shrink-0 rounded-sm dark:bg-transparent"
        aria-label="{kindWord(t)} {t.title}"
        checked={goes(t)}
        indeterminate={!goes(t) && single > 0}
        onchange={() => toggle(t)}
      />
      <button
        type="button"
        class="flex min-w-0 grow items-baseline gap-3 text-left"
        aria-expanded={t.items.length > 0 ? open : undefined}
        onclick={() => fold(key)}
      >
        <span class="truncate font-serif text-[16px] {t.tick.kind === 'rubric' ? 'shrink-0' : ''}" dir="auto"
          >{t.title}</span
        >
        <span class="text-quiet shrink-0">{t.word}</span>
        {#if brought}<span class="text-saddle min-w-0 truncate font-semibold"
            >comes along: {brought.reason === 'drawn-from'
              ? `${nameOf(brought.neededBy)} draws from it`
              : brought.reason === 'grades-it'
                ? `“${nameOf(brought.neededBy)}” is graded by it`
                : `${nameOf(brought.neededBy)} needs it`}</span
          >{/if}
        {#each t.grades ?? [] as title, at (at)}<span class="text-quiet min-w-0 truncate"
            >grades the assignment “{title}”</span
          >{/each}
        {#if t.tick.kind === 'quiz' || t.tick.kind === 'bank'}<span class="num text-quiet ml-auto shrink-0"
            >{plural(t.items.length, 'item')}, {plural(worth(t.items), 'point')}</span
          >{/if}
      </button>
    </div>
    {#each broken as b, n (n)}
      <p class="text-ochre pr-4 pb-2 pl-[60px] text-[13px]">
        Left behind: the draw of {b.pick} in {b.quiz} becomes {b.pick} fixed items, the same for everybody.
        <button type="button" class="act" onclick={() => toggle(t)}>Bring the bank after all</button>
      </p>
    {/each}
    {#each t.tick.kind === 'rubric' ? sheet.contents.ungraded.filter((u) => u.rubric === t.tick.nodeId) : [] as u, at (at)}
      <p class="text-ochre pr-4 pb-2 pl-[60px] text-[13px]">
        Left behind: “{u.item}” arrives without a rubric to grade it by.
        <button type="button" class="act" onclick={() => toggle(t)}>Bring the rubric after all</button>
      </p>
    {/each}
    {#if open && t.items.length > 0}
      <ul class="border-hair border-t">
        {#each t.items.filter((r) => filter.trim() === '' || says(t.title) || says(r.name)) as row (row.seq)}{@render item(
            row,
            goes(t) ? t.title : null,
          )}{/each}
      </ul>
    {/if}
  </li>
{/snippet}

{#snippet item(row: ItemRow, inside: string | null)}
  {@const tick = { kind: 'item', nodeId: row.id } as Tick}
  <li class="flex items-center gap-3 py-1.5 pr-4 pl-[60px] hover:bg-wash">
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
    {#if inside}<span class="text-quiet max-w-[180px] shrink-0 truncate text-[12.5px]"
        >goes with {inside}</span
      >{/if}
    <span class="num text-quiet ml-auto shrink-0">{count(row.points)}</span>
  </li>
{/snippet}

<div class="grid grid-cols-[minmax(0,1fr)_330px] gap-5 max-lg:grid-cols-1">
  <section aria-label="What goes">
    <div class="mb-2 flex flex-wrap items-center gap-3">
      <Button size="xs" color="alternative" onclick={() => sheet.set(everything)}>Everything</Button>
      <Button size="xs" color="alternative" onclick={() => sheet.set([])}>Nothing</Button>
      {#each [{ kind: 'quiz', name: 'quizzes' }, { kind: 'bank', name: 'banks' }, { kind: 'rubric', name: 'rubrics' }, { kind: 'link', name: 'links' }] as k (k.kind)}
        {#if everything.some((t) => t.kind === k.kind)}<button
            type="button"
            class="act"
            onclick={() => sheet.set(everything.filter((t) => t.kind === k.kind))}>Only {k.name}</button
          >{/if}
      {/each}
      <input
        type="search"
        aria-label="Show only what says"
        placeholder="Show only what says…"
        bind:value={filter}
        class="border-hair bg-surface text-ink placeholder:text-quiet ml-auto h-8 w-[190px] rounded border px-2.5 text-[13.5px]"
      />
      <button
        type="button"
        class="act disabled:text-quiet disabled:no-underline"
        disabled={!sheet.canUndo}
        onclick={() => sheet.undo()}>Undo</button
      >
    </div>
    <div class="border-hair bg-surface border border-b-0">
      {#each shownGroups as g (g.id)}
        {@const on = g.things.filter(goes).length}
        {@const inside = [...new Set(g.things.flatMap((t) => t.items))]}
        <div class="border-hair bg-band flex items-center gap-3 border-b px-4 py-1.5">
          <input
            type="checkbox"
            class="border-quiet text-agave size-[16px] shrink-0 rounded-sm dark:bg-transparent"
            aria-label="All of {g.name}"
            checked={on === g.things.length}
            indeterminate={on > 0 && on < g.things.length}
            onchange={() =>
              sheet.all(
                g.things.map((t) => t.tick),
                on < g.things.length,
              )}
          />
          <h2 class="truncate text-[13.5px]" dir="auto">{g.name}</h2>
          <span class="num text-quiet ml-auto shrink-0 text-[12.5px]"
            >{on} of {g.things.length}{inside.length > 0
              ? `, ${plural(inside.length, 'item')}, ${plural(worth(inside), 'point')}`
              : ''}</span
          >
        </div>
        <ul>
          {#each g.things as t (t.tick.kind + t.tick.nodeId)}{@render thing(t)}{/each}
        </ul>
      {/each}
      {#if loose.length > 0}
        <div class="text-quiet px-4 pt-2 text-[12.5px] font-semibold">In no quiz or bank</div>
        <ul class="border-hair border-b pb-1">
          {#each loose.filter((r) => filter.trim() === '' || says(r.name)) as row (row.seq)}{@render item(
              row,
              null,
            )}{/each}
        </ul>
      {/if}
      {#if shownGroups.length === 0 && loose.length === 0}<p
          class="text-quiet border-hair border-b px-4 py-3"
        >
          {filter.trim() === '' ? 'There is nothing in it.' : `Nothing says “${filter}”.`}
        </p>{/if}
      {#if options && tree.rubrics.length === 0}<p
          class="text-quiet border-hair border-b px-4 py-2 text-[13px]"
        >
          No rubrics here.
        </p>{/if}
    </div>
  </section>
  <aside class="flex flex-col gap-4" aria-label="The outcome">
    <div class="border-hair bg-surface border px-4 py-3" role="status">
      <h2 class="text-[14px]">Goes</h2>
      <p class="num text-[20px] font-semibold">
        {goesOf(sheet.contents)}
      </p>
      {#if sheet.contents.items > 0}<p class="num text-quiet">
          {plural(sheet.contents.points, 'point')}
        </p>{/if}
      {#if sheet.trouble}<p class="text-brick">{sheet.trouble}</p>{/if}
      <Button href="{base}/{options ? 'landing' : 'forecast'}" size="sm" color="primary" class="mt-3"
        >On to {options ? 'Landing' : 'Forecast'}</Button
      >
    </div>
    {#if options}<SettingTicks {transferId} {options} />{/if}
    <div class="border-hair bg-surface border px-4 py-3">
      <h2 class="text-[14px]">Stays behind</h2>
      {#if behind.length === 0}<p class="text-quiet">Nothing: everything goes.</p>
      {:else}
        <ul>
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

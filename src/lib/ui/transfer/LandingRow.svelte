<script lang="ts">
  import GripVertical from '@lucide/svelte/icons/grip-vertical';
  import { near } from '@alforja/core/edit';
  import X from '@lucide/svelte/icons/x';
  import type { CourseOutline, Gradable, Landing } from '$lib/shared/courses';
  import { count, plural } from '../format';

  interface Props {
    landing: Landing;
    outline: CourseOutline;
    /** Items there that are graded by hand, and assignments. */
    gradable: readonly Gradable[];
    /** Whether something of it was set by hand. */
    byHand: boolean;
    onchange: (change: Partial<Landing> | null) => void;
  }
  let { landing: l, outline, gradable, byHand, onchange }: Props = $props();
  const stays = $derived(l.action === 'skip');
  const named = (id: string): string => gradable.find((g) => g.id === id)?.name ?? id;
  const chosen = $derived(l.attach ?? []);
  const free = $derived(gradable.filter((g) => !chosen.includes(g.id)));
  /** What it is to grade there that is worth something else. */
  const uneven = $derived(
    l.worth == null ? [] : gradable.filter((g) => chosen.includes(g.id) && !near(g.points, l.worth!)),
  );
  const hangs = $derived((l.carries ?? []).length + chosen.length > 0);
  const there = $derived(outline.things.find((t) => t.id === l.there));
  const found = $derived(
    {
      name: 'by its name',
      similar: 'by a similar name: look',
      position: 'by position',
      hand: 'by hand',
      none: 'none of that name',
      outside: 'outside of sections, as in the source',
    }[l.sectionBy],
  );
  const already = $derived(
    {
      same: 'The same is there already',
      version: `An older or other version is there: “${there?.title ?? ''}”`,
      namesake: `Only the name is the same as “${there?.title ?? ''}”`,
      none: '',
    }[l.existing],
  );
  const actions = $derived(
    l.existing === 'none'
      ? []
      : ([
          ['skip', 'leave what is there'],
          ...(l.existing === 'namesake' ? [] : [['replace', 'take its place; it is hidden, not deleted']]),
          ['keep', 'land beside it, under this name'],
        ] as const),
  );
  const local = (iso: string | null): string => iso?.slice(0, 16) ?? '';
  const zone = (iso: string | null): string => iso?.slice(19) || 'Z';
  const iso = (value: string, like: string | null): string | null =>
    value === '' ? null : `${value}:00${zone(like)}`;
</script>

<li
  class="border-hair border-b px-3 py-2.5"
  draggable={!stays}
  ondragstart={(e) => e.dataTransfer?.setData('text/x-thing', `${l.kind} ${l.node}`)}
>
  <div class="flex items-center gap-2">
    <GripVertical
      size={16}
      class="text-quiet shrink-0 {stays ? 'invisible' : 'cursor-grab'}"
      aria-hidden="true"
    />
    <span class="text-quiet w-[42px] shrink-0">{l.kind}</span>
    {#if stays}<span class="grow truncate font-serif text-[16px]" dir="auto">{l.name}</span>
    {:else}<input
        aria-label="Name of the {l.kind} there"
        value={l.name}
        required
        maxlength="300"
        dir="auto"
        onchange={(e) => onchange({ name: e.currentTarget.value })}
        class="border-hair bg-paper text-ink h-8 min-w-0 grow rounded border px-2 font-serif text-[15.5px]"
      />{/if}
    {#if byHand}<button type="button" class="act shrink-0 text-[13px]" onclick={() => onchange(null)}
        >As proposed</button
      >{/if}
  </div>
  {#if l.existing !== 'none'}
    <div class="mt-1.5 flex flex-wrap items-center gap-2 pl-[74px] text-[13px]">
      <span class={l.existing === 'same' ? 'text-quiet' : 'text-ochre'}>{already}:</span>
      <select
        aria-label="What happens, as something is there already"
        value={l.action === 'add' ? 'keep' : l.action}
        onchange={(e) => onchange({ action: e.currentTarget.value as Landing['action'] })}
        class="border-hair bg-surface text-ink h-7 rounded border py-0 text-[13px]"
      >
        {#each actions as [value, says] (value)}<option {value}>{says}</option>{/each}
      </select>
    </div>
  {/if}
  {#if l.kind === 'rubric'}
    <div class="mt-1.5 flex flex-wrap items-center gap-x-2.5 gap-y-1.5 pl-[74px] text-[13px]">
      {#if !hangs}<span class="text-ochre">attached to nothing</span>
      {:else}<span class="text-quiet">attached to</span>{/if}
      {#each l.carries ?? [] as name, at (at)}<span dir="auto">“{name}”</span>{/each}
      {#each chosen as id, n (n)}<span class="border-hair flex items-center gap-1 rounded border pl-2"
          ><span dir="auto">{named(id)}</span><button
            type="button"
            class="act p-1"
            aria-label="Do not attach {l.name} to {named(id)}"
            onclick={() => onchange({ attach: chosen.filter((c) => c !== id) })}
            ><X size={13} aria-hidden="true" /></button
          ></span
        >{/each}
      {#if free.length > 0}<select
          aria-label="Attach {l.name} to"
          value=""
          onchange={(e) => onchange({ attach: [...chosen, e.currentTarget.value] })}
          class="border-hair bg-surface text-ink h-7 max-w-[260px] rounded border py-0 text-[13px]"
        >
          <option value="">attach it there to…</option>
          {#each [['assignment', 'Assignments'], ['item', 'Questions graded by hand']] as const as [kind, label] (kind)}
            {#if free.some((g) => g.kind === kind)}<optgroup {label}>
                {#each free.filter((g) => g.kind === kind) as g, n (n)}<option value={g.id}
                    >{g.name} ({plural(g.points, 'point')})</option
                  >{/each}
              </optgroup>{/if}
          {/each}
        </select>{/if}
      {#each uneven as g, n (n)}<p class="text-ochre basis-full">
          The rubric is worth {plural(l.worth ?? 0, 'point')}, “{g.name}” there {count(g.points)}.
        </p>{/each}
      {#each l.unmet ?? [] as title, at (at)}<p class="text-ochre basis-full">
          It grades the assignment “{title}” in the source; none there has that name.
        </p>{/each}
    </div>
  {/if}
  {#if !stays && l.kind !== 'bank' && l.kind !== 'rubric'}
    <div class="mt-1.5 flex flex-wrap items-center gap-x-2.5 gap-y-1.5 pl-[74px] text-[13px]">
      <span class="flex items-center gap-2">
        <select
          aria-label="Section of {l.name}"
          value={l.section ?? ''}
          onchange={(e) => onchange({ section: e.currentTarget.value || null })}
          class="border-hair bg-surface text-ink h-7 max-w-[150px] rounded border py-0 text-[13px] {l.sectionBy ===
          'none'
            ? 'border-brick'
            : ''}"
        >
          <option value="">{l.sectionBy === 'none' ? 'choose a section' : 'outside of sections'}</option>
          {#each outline.sections as s (s.id)}<option value={s.id}>{s.name}</option>{/each}
        </select>
        <span class={l.sectionBy === 'none' || l.sectionBy === 'similar' ? 'text-ochre' : 'text-quiet'}
          >{found}</span
        >
      </span>
      <label class="flex items-center gap-2"
        ><input
          type="checkbox"
          checked={l.hidden}
          onchange={(e) => onchange({ hidden: e.currentTarget.checked })}
          class="border-quiet text-agave size-[14px] rounded-sm dark:bg-transparent"
        />hidden</label
      >
      {#if l.kind === 'quiz'}
        <label class="flex items-center gap-2"
          >opens <input
            type="datetime-local"
            value={local(l.opens)}
            onchange={(e) => onchange({ opens: iso(e.currentTarget.value, l.opens ?? l.closes) })}
            class="border-hair bg-surface text-ink num h-7 w-[170px] rounded border px-1.5 text-[12.5px]"
          /></label
        >
        <label class="flex items-center gap-2"
          >closes <input
            type="datetime-local"
            value={local(l.closes)}
            onchange={(e) => onchange({ closes: iso(e.currentTarget.value, l.closes ?? l.opens) })}
            class="border-hair bg-surface text-ink num h-7 w-[170px] rounded border px-1.5 text-[12.5px]"
          /></label
        >
        {#if l.opens || l.closes}<span class="text-quiet"
            >UTC{zone(l.opens ?? l.closes).replace('Z', '')}</span
          >{/if}
      {/if}
    </div>
  {/if}
</li>

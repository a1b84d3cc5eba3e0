<script lang="ts">
  import { UNNAMED } from '@alforja/core';
  import { near } from '@alforja/core/edit';
  import X from '@lucide/svelte/icons/x';
  import type { Landing, LandingOverride } from '@alforja/core';
  import type { Gradable } from '$lib/shared/transfers';
  import { count, plural } from '../format';

  /** What a rubric is attached to where it lands. */
  interface Props {
    landing: Landing;
    /** Items there that are graded by hand, and assignments. */
    gradable: readonly Gradable[];
    onchange: (change: LandingOverride) => void;
  }
  let { landing: l, gradable, onchange }: Props = $props();
  const named = (id: string): string => gradable.find((g) => g.id === id)?.name ?? UNNAMED.item;
  const chosen = $derived(l.attach ?? []);
  const free = $derived(gradable.filter((g) => !chosen.includes(g.id)));
  /** What it is to grade there that is worth something else. */
  const uneven = $derived(
    l.worth == null ? [] : gradable.filter((g) => chosen.includes(g.id) && !near(g.points, l.worth!)),
  );
  const hangs = $derived((l.carries ?? []).length + chosen.length > 0);
</script>

<div class="mt-1.5 flex flex-wrap items-center gap-x-2.5 gap-y-1.5 pl-[74px] text-[13px]">
  {#if !hangs}<span class="text-ochre">not attached</span>
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
      <option value="">Attach to…</option>
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

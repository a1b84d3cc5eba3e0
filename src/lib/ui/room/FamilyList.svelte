<script lang="ts">
  import { fromRuns, type RoomFamily } from '$lib/shared/room';
  import { count, plural } from '../format';
  import type { Room } from './room.svelte';

  /** Exercises that came as several replicas, one row each. */
  let { room }: { room: Room } = $props();
  const families = $derived(room.view.families);
  const sizes = $derived([...new Set(families.map((f) => f.count))]);
  const replicas = $derived(families.reduce((sum, f) => sum + f.count, 0));
  let open = $state<string | null>(null);
  const MOST = 500;

  const VARIES: Readonly<Record<RoomFamily['varies'][number], string>> = {
    numbers: 'numbers',
    names: 'names',
    choices: 'choices',
    'choice-order': 'order of choices',
  };
  const pointsOf = (family: RoomFamily): number[] => [
    ...new Set(fromRuns(family.items).map((at) => room.rows.points[at] ?? 0)),
  ];
  /** What was found on replicas of a family; near ones are meant to be. */
  const troublesOf = (family: RoomFamily): string[] => {
    const here = new Set(fromRuns(family.items));
    return room.view.findings
      .filter((f) => f.item !== null && here.has(f.item) && f.spoken.code.startsWith('family-'))
      .map((f) => f.spoken.message);
  };
  function unfold(family: RoomFamily): void {
    open = open === family.id ? null : family.id;
    void room.names.want(fromRuns(family.items));
  }
  function show(at: number): void {
    room.go({ kind: 'all' });
    room.select(at);
  }
</script>

<h2 class="mb-1 text-[17px]">
  {plural(families.length, 'exercise')}, {sizes.length === 1
    ? `${plural(sizes[0]!, 'replica')} each`
    : plural(replicas, 'replica')}
</h2>
<p class="text-quiet mb-3 text-[13.5px]">
  Questions that are one exercise with other numbers, names or choices, as scripts write them.
</p>
<ul class="border-hair border-t">
  {#each families.slice(0, MOST) as family (family.id)}
    {@const points = pointsOf(family)}
    <li class="border-hair border-b py-1.5">
      <div class="flex flex-wrap items-baseline gap-x-5">
        <button
          type="button"
          class="flex min-h-6 min-w-0 items-baseline gap-2 text-left"
          aria-expanded={open === family.id}
          onclick={() => unfold(family)}
        >
          <span aria-hidden="true" class="text-quiet w-3 {open === family.id ? 'rotate-90' : ''}">▸</span>
          <span class="font-serif text-[16px]" dir="auto">{family.title}</span>
        </button>
        <span class="text-quiet text-[13px]"
          >{plural(family.count, 'replica')} · other {family.varies.map((v) => VARIES[v]).join(', ')}</span
        >
        <span class="num ml-auto {points.length > 1 ? 'text-ochre font-semibold' : ''}"
          >{points.map(count).join(' or ')} <span class="text-quiet">points each</span></span
        >
      </div>
      {#each troublesOf(family) as trouble, n (n)}<p class="text-ochre pl-5 text-[13px]">{trouble}</p>{/each}
      {#if open === family.id}<ol class="mt-1 pl-5">
          {#each fromRuns(family.items) as at (at)}<li>
              <button
                type="button"
                class="hover:bg-wash flex min-h-7 w-full items-baseline gap-3 px-1 text-left"
                onclick={() => show(at)}
                ><span class="num text-quiet w-8 shrink-0 text-right text-[12.5px]">{at + 1}</span><span
                  class="truncate font-serif text-[15px]"
                  dir="auto">{room.names.of(at) ?? '\u00a0'}</span
                ></button
              >
            </li>{/each}
        </ol>{/if}
    </li>
  {/each}
</ul>
{#if families.length > MOST}<p class="text-quiet mt-2">and {count(families.length - MOST)} more</p>{/if}

<script lang="ts">
  import type { LeftOut } from '$lib/shared/edits';
  import type { RoomView } from '$lib/shared/room';
  import { plural } from '../format';
  import type { Changes } from './changes.svelte';

  /** What does not go along, and stays in the source; each can be brought back. */
  let { view, changes }: { view: RoomView; changes: Changes } = $props();
  const KINDS = { item: 'item', quiz: 'quiz', bank: 'bank', rubric: 'rubric', link: 'link' } as const;
  const MOST_LISTED = 500;
  const bring = (of: readonly LeftOut[]): Promise<boolean> =>
    changes.make(
      'hand',
      of.map(({ kind, id }) => ({ op: 'bring-back', node: id, kind })),
    );
</script>

<div class="mb-2 flex items-baseline gap-4">
  <h2 class="text-[15px]">{plural(view.leftOut.length, 'thing')} left out</h2>
  <button type="button" class="act" disabled={changes.busy} onclick={() => bring(view.leftOut)}
    >Bring all back</button
  >
</div>
<p class="text-quiet mb-2 max-w-[60ch]">
  They stay in the file as it came, and do not go along when it is sent.
</p>
<ul>
  {#each view.leftOut.slice(0, MOST_LISTED) as thing (`${thing.kind} ${thing.id}`)}
    <li class="border-hair flex items-baseline gap-4 border-b py-1.5">
      <span class="text-quiet w-12 shrink-0 text-[12.5px]">{KINDS[thing.kind]}</span>
      <span class="line-clamp-1 font-serif text-[15.5px]" dir="auto">{thing.title}</span>
      <button
        type="button"
        class="act ml-auto shrink-0"
        disabled={changes.busy}
        onclick={() => bring([thing])}>Bring back</button
      >
    </li>
  {/each}
</ul>

<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { RoomFinding } from '$lib/shared/room';
  import { count } from '../format';
  import AskedRepair from './AskedRepair.svelte';
  import type { Changes } from './changes.svelte';
  import FindingNote from './FindingNote.svelte';
  import type { Room } from './room.svelte';

  /** Something found, with what puts it right where there is something, and the same for all like it. */
  let {
    found,
    room,
    changes,
    place = false,
  }: { found: RoomFinding; room: Room; changes: Changes; place?: boolean } = $props();
  const like = $derived(
    found.repair === null
      ? []
      : room.view.findings.filter((f) => f.repair !== null && f.spoken.code === found.spoken.code),
  );
  let all = $state(false);
  const MOST_LISTED = 100;
  const listed = $derived(all ? like.slice(0, MOST_LISTED) : []);
  $effect(() => {
    if (all) void room.names.want(listed.flatMap((f) => f.item ?? []));
  });
  const said = (f: RoomFinding): string => (f.repair ?? []).join('; ');
  const named = (f: RoomFinding): string =>
    (f.item === null ? null : room.names.of(f.item)) ?? f.spoken.message;
  async function repair(of: readonly RoomFinding[]): Promise<void> {
    if (
      await changes.repair(
        room.reading,
        of.map((f) => f.at),
      )
    )
      all = false;
  }
</script>

<FindingNote found={found.spoken} {place} />
<AskedRepair of={found} files={room.view.files} {changes} />
{#if found.repair}
  <div class="mt-1 ml-3.5 text-[13.5px]" data-testid="repair">
    <p dir="auto">Puts it right: {said(found)}.</p>
    <div class="mt-1 flex flex-wrap items-center gap-2">
      <Button size="xs" color="alternative" disabled={changes.busy} onclick={() => repair([found])}
        >Put right</Button
      >
      {#if like.length > 1}<button type="button" class="act" aria-expanded={all} onclick={() => (all = !all)}
          >All {count(like.length)} like this…</button
        >{/if}
    </div>
    {#if all}
      <div class="border-hair mt-2 border-y py-2">
        <ol class="max-h-[260px] overflow-y-auto pr-2" aria-label="What will be done">
          {#each listed as f (f.at)}<li class="border-hair border-b py-1 last:border-b-0">
              <span class="line-clamp-1 font-serif text-[14.5px]" dir="auto">{named(f)}</span>
              <span class="text-quiet" dir="auto">{said(f)}</span>
            </li>{/each}
        </ol>
        {#if like.length > MOST_LISTED}<p class="text-quiet">
            and {count(like.length - MOST_LISTED)} more
          </p>{/if}
        <Button class="mt-2" size="xs" color="primary" disabled={changes.busy} onclick={() => repair(like)}
          >Put all {count(like.length)} right</Button
        >
      </div>
    {/if}
  </div>
{/if}

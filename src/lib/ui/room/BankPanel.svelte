<script lang="ts">
  import type { Edit } from '@alforja/core';
  import type { RoomPlace } from '$lib/shared/room';
  import { plural } from '../format';
  import type { Changes } from './changes.svelte';
  import PanelHead from './PanelHead.svelte';
  import type { Room } from './room.svelte';

  /** A bank changed as a whole: its name, put together with another, or taken apart. */
  let { bank, room, changes, close }: { bank: RoomPlace; room: Room; changes: Changes; close: () => void } =
    $props();
  const node = $derived(bank.id);
  const others = $derived(room.view.banks.filter((b) => b.id !== bank.id));
  const make = (...edits: Edit[]): void => void changes.make('hand', edits);
</script>

<section class="px-8 py-5" aria-label="Change the bank" data-testid="bank-panel">
  <PanelHead kind="bank" {node} {changes} {close} />
  {#if changes.trouble}<p class="text-brick mb-2" role="alert">{changes.trouble}</p>{/if}
  <label class="text-quiet block text-[12.5px]"
    >Name<input
      class="border-hair bg-surface text-ink block h-8 w-full rounded border px-2 font-serif text-[16px]"
      dir="auto"
      value={bank.title}
      onchange={(e) => make({ op: 'title', node, kind: 'bank', to: e.currentTarget.value })}
    /></label
  >
  <div class="mt-4 flex flex-wrap items-center gap-x-5 gap-y-2">
    <span class="text-quiet">{plural(bank.count, 'item')}</span>
    <button type="button" class="act" onclick={() => make({ op: 'split', node, by: 'category' })}
      >One bank for each category</button
    >
    <button type="button" class="act" onclick={() => make({ op: 'split', node, by: 'kind' })}
      >One bank for each kind</button
    >
    <a class="act" href="/packages/{room.packageId}/sheet?in={encodeURIComponent(`bank:${node}`)}"
      >Choose some for a bank of their own, in the sheet</a
    >
    {#if others.length > 0}<label class="text-quiet text-[13px]"
        >Put all of it into <select
          class="border-hair bg-surface text-ink h-7 max-w-[220px] truncate rounded border py-0 pl-2 text-[13px]"
          value=""
          onchange={(e) => {
            const to = e.currentTarget.value;
            e.currentTarget.value = '';
            if (to !== '') make({ op: 'merge', node, to });
          }}
          ><option value="">…</option>{#each others as b (b.id)}<option value={b.id}>{b.title}</option
            >{/each}</select
        ></label
      >{/if}
  </div>
</section>

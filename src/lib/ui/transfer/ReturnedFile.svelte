<script lang="ts">
  import { onMount } from 'svelte';
  import Button from 'flowbite-svelte/Button.svelte';
  import type { JobView, PackageListing } from '$lib/shared/types';
  import { ask } from '../ask';
  import { dropTarget, live } from '../live.svelte';
  import FindingNote from '../room/FindingNote.svelte';
  import DropZone from '../shell/DropZone.svelte';

  /** Where the file that came back is dropped or chosen. */
  interface Props {
    transferId: string;
    others: readonly PackageListing[];
    job: JobView | null;
    running: boolean;
    /** Why the last file could not be compared. */
    failure: string | null;
    /** Gives the way back to the comparison that is there; null where there is none. */
    onleave: (() => void) | null;
    ontaken: () => void;
  }
  let { transferId, others, job, running, failure, onleave, ontaken }: Props = $props();
  let picked = $state('');
  let trouble = $state('');

  async function take(packageId: string): Promise<void> {
    const otherwise = 'It could not be compared. The file is kept; try again.';
    trouble = await ask(`/api/transfers/${transferId}/arrive`, { packageId }, { otherwise }).then(
      () => '',
      (error: Error) => error.message,
    );
    if (!trouble) ontaken();
    await live.reload();
  }
  onMount(() => {
    dropTarget.label = 'Drop to compare with what was sent';
    dropTarget.take = async (brought) => {
      if (brought[0]) await take(brought[0].id);
    };
    return () => {
      dropTarget.take = null;
      dropTarget.label = '';
    };
  });
</script>

<div class="grid max-w-[980px] gap-3">
  <DropZone
    title="Drop what the other system exported"
    hint="It is read like any package and compared, item by item, with what was sent. Nothing is changed."
  />
  {#if others.length > 0}
    <div class="flex items-center gap-3">
      <label for="other" class="text-quiet">or take a package that is here already</label>
      <select
        id="other"
        bind:value={picked}
        class="border-hair bg-surface text-ink rounded border py-1 text-[14px]"
      >
        <option value="">Choose…</option>
        {#each others as other (other.id)}<option value={other.id}>{other.name}</option>{/each}
      </select>
      <Button color="alternative" disabled={picked === ''} onclick={() => take(picked)}>Compare</Button>
      {#if onleave}<button type="button" class="act" onclick={onleave}>Leave it</button>{/if}
    </div>
  {/if}
  {#if running}<p role="status">{(job && live.jobs[job.id]?.step) || 'Comparing…'}</p>{/if}
  {#if trouble}<p class="text-brick" role="alert">{trouble}</p>{/if}
  {#if job?.state === 'failed' && job.failure}<FindingNote found={job.failure} place />
  {:else if failure}<p class="text-brick" role="alert">{failure}</p>{/if}
</div>

<script lang="ts">
  import type { ContentsShown } from '$lib/shared/contents';
  import type { LossView } from '$lib/shared/losses';
  import type { TargetName } from '$lib/shared/stages';
  import type { SentShown, TransferState } from '$lib/shared/transfers';
  import type { JobView, PackageListing } from '$lib/shared/types';
  import FindingNote from '../room/FindingNote.svelte';
  import Review from './Review.svelte';
  import SendingSteps from './SendingSteps.svelte';
  import SentFiles from './SentFiles.svelte';

  interface Props {
    transferId: string;
    source: PackageListing;
    target: TargetName;
    state: TransferState;
    job: JobView | null;
    contents: ContentsShown;
    /** How much the format will lose of what is ticked now; null while it is being worked out. */
    ahead: number | null;
    sent: SentShown | null;
    sentAt: number | null;
    /** What the format lost when it was written. */
    losses: LossView | null;
    /** Whether ticks or format were changed since it was written. */
    stale: boolean;
    base: string;
  }
  let { transferId, source, target, state, job, contents, ahead, sent, sentAt, losses, stale, base }: Props =
    $props();
</script>

<div class="grid max-w-[980px] gap-4">
  <Review {transferId} {source} {target} {state} {job} {contents} losses={ahead ?? 0} {sent} {stale} {base} />
  {#if job?.state === 'failed' && job.failure && !state.sending?.failure}<FindingNote
      found={job.failure}
    />{/if}
  {#if sent && losses && state.to.kind === 'file'}
    <SentFiles {transferId} {sent} {sentAt} {losses} packageId={source.id} {stale} {base} />
  {/if}
  {#if state.sending}<SendingSteps
      sending={state.sending}
      running={state.running}
      toCourse={state.to.kind === 'course'}
      {job}
    />{/if}
</div>

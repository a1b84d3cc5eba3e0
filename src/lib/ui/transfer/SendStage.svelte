<script lang="ts">
  import type { ContentsView, SpokenFinding } from '@alforja/core';
  import type { TargetName } from '$lib/shared/stages';
  import type { Sent, TransferState } from '$lib/shared/transfers';
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
    contents: ContentsView;
    /** What the format will lose of what is ticked now; null while it is being worked out. */
    forecast: readonly SpokenFinding[] | null;
    sent: Sent | null;
    sentAt: number | null;
    /** What the format lost when it was written. */
    losses: readonly SpokenFinding[];
    names: Readonly<Record<string, { seq: number; name: string }>>;
    /** Whether ticks or format were changed since it was written. */
    stale: boolean;
    base: string;
  }
  let {
    transferId,
    source,
    target,
    state,
    job,
    contents,
    forecast,
    sent,
    sentAt,
    losses,
    names,
    stale,
    base,
  }: Props = $props();
  const ahead = $derived((forecast ?? []).filter((l) => l.severity !== 'note').length);
</script>

<div class="grid max-w-[980px] gap-4">
  <Review {transferId} {source} {target} {state} {job} {contents} losses={ahead} {sent} {stale} {base} />
  {#if job?.state === 'failed' && job.failure && !state.sending?.failure}<FindingNote
      found={job.failure}
    />{/if}
  {#if sent && state.to.kind === 'file'}
    <SentFiles {transferId} {sent} {sentAt} {losses} {names} packageId={source.id} {stale} {base} />
  {/if}
  {#if state.sending}<SendingSteps
      sending={state.sending}
      running={state.running}
      toCourse={state.to.kind === 'course'}
      {job}
    />{/if}
</div>

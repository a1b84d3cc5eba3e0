<script lang="ts">
  import { enhance } from '$app/forms';
  import Button from 'flowbite-svelte/Button.svelte';
  import type { SpokenFinding } from '@alforja/core';
  import type { JobView, Sent } from '$lib/shared/types';
  import { TARGET_NAMES, type TargetName } from '$lib/shared/stages';
  import { bytes, plural, when } from '../format';
  import Losses from './Losses.svelte';
  import FindingNote from '../room/FindingNote.svelte';

  interface Props {
    transferId: string;
    sent: Sent | null;
    target: TargetName;
    names: Readonly<Record<string, { seq: number; name: string }>>;
    packageId: string;
    sentAt: number | null;
    losses: readonly SpokenFinding[];
    job: JobView | null;
    items: number;
    points: number;
    /** Whether ticks were changed since the package was written. */
    stale: boolean;
    base: string;
  }
  let { transferId, sent, target, names, packageId, sentAt, losses, job, items, points, stale, base }: Props =
    $props();
  const working = $derived(job?.state === 'queued' || job?.state === 'running');
  const real = $derived(losses.filter((l) => l.severity !== 'note'));
  const notes = $derived(losses.filter((l) => l.severity === 'note'));
</script>

<div class="grid max-w-[980px] gap-4">
  <section class="border-hair bg-surface border px-5 py-4">
    <h2 class="text-[15px]">Write the package</h2>
    <p class="text-quiet mt-1">
      {TARGET_NAMES[target]}, {plural(items, 'item')}, {plural(points, 'point')}, with the files they use. The
      source stays as it is.
    </p>
    <form method="POST" action="{base}/send?/send" use:enhance class="mt-3 flex items-center gap-3">
      <Button
        type="submit"
        color={sent && !stale ? 'alternative' : 'primary'}
        size="sm"
        disabled={working || items === 0}>{sent ? 'Write it again' : 'Write the package'}</Button
      >
      {#if working}<span role="status">{job?.step || 'Writing…'}</span>{/if}
      {#if items === 0}<span class="text-quiet"
          >Nothing is ticked. <a class="act" href="{base}/contents">Choose what goes</a></span
        >{/if}
    </form>
    {#if job?.state === 'failed' && job.failure}<FindingNote found={job.failure} />{/if}
  </section>
  {#if sent}
    <section class="border-hair bg-surface border px-5 py-4" aria-labelledby="written">
      <h2 id="written" class="font-serif text-[18px]">{sent.name}</h2>
      <p>
        {plural(sent.items, 'item')}, {plural(sent.points, 'point')}, {bytes(sent.bytes)}{sentAt
          ? `, written ${when(sentAt)}`
          : ''}
      </p>
      {#if stale}<p class="text-ochre font-semibold">
          Ticks or format were changed since. Write it again to send what is chosen now.
        </p>{/if}
      <p class="text-quiet mt-1 text-[12.5px]">
        SHA-256 <span class="font-mono break-all">{sent.sha256}</span>
      </p>
      {#each sent.more as part, at (at)}
        <p class="mt-2">
          <a class="act" href="/transfers/{transferId}/package?part={at + 2}" download>{part.name}</a>
          <span class="text-quiet text-[12.5px]"
            >{bytes(part.bytes)} · SHA-256 <span class="font-mono break-all">{part.sha256}</span></span
          >
        </p>
      {/each}
      <div class="mt-3 flex items-center gap-4">
        <Button
          href="/transfers/{transferId}/package"
          download
          color={stale ? 'alternative' : 'primary'}
          size="sm">Download it</Button
        >
        <span class="text-quiet"
          >Bring it into your course system, export it there again, and drop the export at <a
            class="act"
            href="{base}/arrival">Arrival</a
          >.</span
        >
      </div>
    </section>
    <section class="border-hair bg-surface border px-5 py-4" aria-labelledby="losses">
      <h2 id="losses" class="text-[15px]">
        {real.length === 0
          ? 'Nothing that matters is lost on the way'
          : plural(real.length, 'thing') + ' the format cannot carry'}
      </h2>
      <Losses losses={real} {names} {packageId} />
      {#if notes.length > 0}
        <details class="mt-3">
          <summary class="text-quiet">{plural(notes.length, 'note')}</summary><Losses
            losses={notes}
            {names}
            {packageId}
          />
        </details>
      {/if}
    </section>
  {/if}
</div>

<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { ContentsShown } from '$lib/shared/contents';
  import { TARGET_NAMES, type TargetName } from '$lib/shared/stages';
  import type { SentShown, TransferState } from '$lib/shared/transfers';
  import type { JobView, PackageListing } from '$lib/shared/types';
  import { plural, when } from '../format';
  import { command } from './command';
  import { includedShort } from './included';
  import { courseSays, destinationSays, sameThere, stayingSays } from './places';
  import TakeBack from './TakeBack.svelte';

  /** What is sent, from where, to where; and what starts it. */
  interface Props {
    transferId: string;
    source: PackageListing;
    target: TargetName;
    state: TransferState;
    job: JobView | null;
    contents: ContentsShown;
    losses: number;
    sent: SentShown | null;
    stale: boolean;
    base: string;
  }
  let { transferId, source, target, state: how, job, contents, losses, sent, stale, base }: Props = $props();
  let trouble = $state('');
  const { plan, sending, running, to } = $derived(how);
  const toFile = $derived(to.kind === 'file');
  const going = $derived((plan?.landings ?? []).filter((l) => l.action !== 'skip'));
  const staying = $derived((plan?.landings ?? []).filter((l) => l.action === 'skip'));
  const holds = $derived(contents.items + contents.rubrics > 0 || going.length > 0);
  const ready = $derived(plan !== null && plan.troubles.length === 0 && holds);
  const written = $derived(toFile ? sent !== null : sending !== null);
  const verb = $derived(
    toFile ? (written ? 'Write again' : 'Write the package') : written ? 'Send again' : 'Send',
  );
  const named = $derived(going.map((l) => l.name).join(', '));
  const ask = async (body: Record<string, unknown>): Promise<void> => {
    trouble = await command(transferId, body);
  };
  const stop = (): void => void (job && fetch(`/api/jobs/${job.id}`, { method: 'DELETE' }));
</script>

<section class="border-hair bg-surface border px-5 py-4" aria-labelledby="review">
  <h2 id="review" class="text-[15px]">
    {written ? 'What was sent' : toFile ? 'Review, then write the package' : 'Review, then send'}
  </h2>
  <dl class="mt-2 grid grid-cols-[120px_minmax(0,1fr)] gap-x-3 gap-y-1">
    <dt class="text-quiet">From</dt>
    <dd>{how.from ? courseSays(how.from) : source.name}</dd>
    <dt class="text-quiet">{toFile ? 'Becomes' : 'Into'}</dt>
    <dd class="font-semibold">{destinationSays(to)}</dd>
    <dt class="text-quiet">Included</dt>
    <dd>
      {#if plan === null}Calculating…
      {:else if !holds}nothing is ticked. <a class="act" href="{base}/contents">Choose what to include</a>
      {:else if going.length === 0 && staying.length > 0}{stayingSays(staying)}
      {:else}{named}{named ? '; ' : ''}{includedShort(contents)}{/if}
    </dd>
    {#each [{ says: 'Already there', list: staying.filter(sameThere) }, { says: 'Left out in Landing', list: staying.filter((l) => !sameThere(l)) }] as part (part.says)}{#if part.list.length > 0}<dt
          class="text-quiet"
        >
          {part.says}
        </dt>
        <dd>{part.list.map((l) => l.name).join(', ')}</dd>{/if}{/each}
    <dt class="text-quiet">Not included</dt>
    <dd>{contents.left === 0 ? 'nothing' : plural(contents.left, 'thing')}</dd>
    <dt class="text-quiet">Format</dt>
    <dd>
      {TARGET_NAMES[target]}, {losses === 0 ? 'no losses' : ''}{#if losses > 0}<a
          class="act"
          href="{base}/forecast">{plural(losses, 'loss', 'losses')}</a
        >{/if}
    </dd>
  </dl>
  {#each plan?.troubles ?? [] as said, n (n)}<p class="text-brick mt-2" role="alert">
      {said} <a class="act" href="{base}/landing">Landing</a>
    </p>{/each}
  <div class="mt-3 flex flex-wrap items-center gap-4">
    {#if running}<Button color="alternative" onclick={stop}>Stop</Button><span class="text-quiet"
        >You can leave this page; you will be notified.</span
      >
    {:else if sending?.failure}
      <Button color="primary" onclick={() => ask({ do: 'goOn' })}>Resume</Button>
      {#if sending.failure.reason === 'section-count'}<Button
          color="alternative"
          onclick={() => ask({ do: 'goOn', sectionsAs: 'destination' })}
          >Resume with the course’s own sections</Button
        >{/if}
    {:else}
      <Button
        color={written && !stale ? 'alternative' : 'primary'}
        disabled={!ready}
        onclick={() => ask({ do: 'send' })}>{verb}</Button
      >
      {#if !toFile && sending?.endedAt}<Button color="primary" href="{base}/arrival">See what arrived</Button
        >{/if}
    {/if}
    {#if sending && !running && sending.created.length > 0}<TakeBack
        {to}
        {sending}
        onconfirm={() => ask({ do: 'undo' })}
      />{/if}
  </div>
  {#if trouble}<p class="text-brick mt-2" role="alert">{trouble}</p>{/if}
  {#if sending?.undone}<p class="mt-2" role="status">
      Undone {when(sending.undone.at)} by {sending.undone.by}. Removed: {sending.undone.removed.length === 0
        ? 'nothing'
        : sending.undone.removed.join(', ')}.
      {#each sending.undone.refused as said, n (n)}<span class="text-brick block">{said}</span>{/each}
    </p>{/if}
</section>

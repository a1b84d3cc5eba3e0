<script lang="ts">
  import { enhance } from '$app/forms';
  import Button from 'flowbite-svelte/Button.svelte';
  import ArrivalStage from '$lib/ui/transfer/ArrivalStage.svelte';
  import ContentsStage from '$lib/ui/transfer/ContentsStage.svelte';
  import ForecastStage from '$lib/ui/transfer/ForecastStage.svelte';
  import ReceiptStage from '$lib/ui/transfer/ReceiptStage.svelte';
  import SendStage from '$lib/ui/transfer/SendStage.svelte';
  import SourceStage from '$lib/ui/transfer/SourceStage.svelte';
  import Strap from '$lib/ui/transfer/Strap.svelte';
  import { count, formatName, plural } from '$lib/ui/format';
  import { TARGET_NAMES } from '$lib/shared/stages';

  let { data } = $props();
  let renaming = $state(false);
  const base = $derived(`/transfers/${data.transfer.id}`);
  const todo = $derived(data.counts ? data.counts.altered + data.counts.missing + data.counts.extra : 0);
  const real = $derived(data.losses.filter((l) => l.severity !== 'note').length);
  const ahead = $derived((data.forecast ?? []).filter((l) => l.severity !== 'note').length);
  const knots = $derived([
    { stage: 'source' as const, name: 'Source', says: data.source.name, done: true },
    {
      stage: 'contents' as const,
      name: 'Contents',
      says: `${count(data.contents.items)} of ${plural(data.contents.total, 'item')}`,
      done: data.contents.items > 0,
    },
    {
      stage: 'forecast' as const,
      name: 'Forecast',
      says: data.forecast
        ? `${TARGET_NAMES[data.transfer.target]}, ${ahead === 0 ? 'no losses' : plural(ahead, 'loss', 'losses')}`
        : TARGET_NAMES[data.transfer.target],
      done: data.forecast !== null || data.sent !== null,
    },
    {
      stage: 'send' as const,
      name: 'Send',
      says: data.sent
        ? data.stale
          ? 'changed since'
          : real > 0
            ? plural(real, 'loss', 'losses')
            : 'written, no losses'
        : 'not written yet',
      done: data.sent !== null && !data.stale,
    },
    {
      stage: 'arrival' as const,
      name: 'Arrival',
      says: data.counts ? (todo > 0 ? `${todo} to look at` : 'all intact') : 'drop what came back',
      done: data.counts !== null,
    },
    {
      stage: 'receipt' as const,
      name: 'Receipt',
      says: data.counts ? 'ready' : data.sent ? 'without an arrival' : 'when something was sent',
      done: data.counts !== null,
    },
  ]);
</script>

<svelte:head><title>{data.transfer.title} · Alforja</title></svelte:head>
<div
  class="mx-auto flex min-h-[calc(100vh-46px)] max-w-[1280px] flex-col gap-3 px-6 py-3.5 {data.stage ===
    'arrival' && data.arrival
    ? 'md:h-[calc(100vh-46px)]'
    : ''}"
>
  <div class="no-print flex flex-wrap items-baseline gap-x-4">
    {#if renaming}
      <form
        method="POST"
        action="{base}/{data.stage}?/rename"
        use:enhance={() =>
          async ({ update }) => {
            renaming = false;
            await update();
          }}
        class="flex items-center gap-2"
      >
        <!-- svelte-ignore a11y_autofocus -->
        <input
          name="title"
          aria-label="Name of the transfer"
          value={data.transfer.title}
          required
          maxlength="200"
          autofocus
          class="border-hair bg-surface text-ink h-8 w-[320px] rounded border px-2 font-serif text-[17px]"
          onkeydown={(e) => e.key === 'Escape' && (renaming = false)}
        />
        <Button type="submit" size="xs" color="alternative">Keep</Button>
      </form>
    {:else}
      <h1 class="font-serif text-[21px]">{data.transfer.title}</h1>
      <button type="button" class="act text-[13px]" onclick={() => (renaming = true)}>Rename</button>
    {/if}
    <span class="text-quiet"
      >{data.source.name}{data.source.summary ? ` (${formatName(data.source.summary.format)})` : ''} → {TARGET_NAMES[
        data.transfer.target
      ]},
      {plural(data.contents.items, 'item')}, {plural(data.contents.points, 'point')}</span
    >
  </div>
  <Strap {knots} here={data.stage} {base} />
  {#if data.stage === 'source'}<SourceStage source={data.source} sha256={data.sha256} {base} />
  {:else if data.stage === 'contents' && data.picking}
    {#key data.transfer.id}<ContentsStage
        transferId={data.transfer.id}
        {...data.picking}
        contents={data.contents}
        {base}
      />{/key}
  {:else if data.stage === 'forecast'}
    <ForecastStage
      target={data.transfer.target}
      forecast={data.forecast}
      names={data.names}
      packageId={data.source.id}
      job={data.jobs.forecast}
      {base}
    />
  {:else if data.stage === 'send'}
    <SendStage
      transferId={data.transfer.id}
      sent={data.sent}
      target={data.transfer.target}
      names={data.names}
      packageId={data.source.id}
      sentAt={data.transfer.sentAt}
      losses={data.losses}
      job={data.jobs.send}
      items={data.contents.items}
      points={data.contents.points}
      stale={data.stale}
      {base}
    />
  {:else if data.stage === 'arrival'}
    <ArrivalStage
      transferId={data.transfer.id}
      arrival={data.arrival}
      comparedAt={data.transfer.comparedAt}
      source={data.source}
      arrived={data.arrived}
      others={data.others}
      job={data.jobs.compare}
      {base}
    />
  {:else if data.stage === 'receipt'}<ReceiptStage
      receipt={data.receipt}
      {base}
      json="{base}/receipt.json"
    />{/if}
</div>

<script lang="ts">
  import ArrivalStage from '$lib/ui/transfer/ArrivalStage.svelte';
  import ContentsStage from '$lib/ui/transfer/ContentsStage.svelte';
  import ForecastStage from '$lib/ui/transfer/ForecastStage.svelte';
  import { includedShort } from '$lib/ui/transfer/included';
  import LandingStage from '$lib/ui/transfer/LandingStage.svelte';
  import ReceiptStage from '$lib/ui/transfer/ReceiptStage.svelte';
  import SendStage from '$lib/ui/transfer/SendStage.svelte';
  import SourceStage from '$lib/ui/transfer/SourceStage.svelte';
  import { stageStates } from '$lib/ui/transfer/strap';
  import Strap from '$lib/ui/transfer/Strap.svelte';
  import Title from '$lib/ui/transfer/Title.svelte';
  import { placesSay } from '$lib/ui/transfer/places';

  let { data } = $props();
  const base = $derived(`/transfers/${data.transfer.id}`);
  const stages = $derived(
    stageStates({ ...data, sourceName: data.source.name, target: data.transfer.target }),
  );
  const fills = $derived(data.stage === 'arrival' && data.arrival !== null);
</script>

<svelte:head><title>{data.transfer.title} · Alforja</title></svelte:head>
<div
  class="mx-auto flex min-h-[calc(100vh-46px)] max-w-[1280px] flex-col gap-3 px-(--gutter) py-3.5 {fills
    ? 'md:h-[calc(100vh-46px)]'
    : ''}"
>
  <div class="no-print flex flex-wrap items-baseline gap-x-4">
    <Title transferId={data.transfer.id} title={data.transfer.title} />
    <span class="text-quiet"
      >{placesSay(data.state, data.source, data.transfer.target)}, {includedShort(data.contents)}</span
    >
  </div>
  <Strap {stages} here={data.stage} {base} />
  {#if data.stage === 'source'}
    <SourceStage source={data.source} sha256={data.sha256} from={data.state.from} {base} />
  {:else if data.stage === 'contents' && data.picking}
    {#key data.transfer.id}<ContentsStage
        transferId={data.transfer.id}
        {...data.picking}
        contents={data.contents}
        options={data.state.options}
        toCourse={data.state.to.kind === 'course'}
        {base}
      />{/key}
  {:else if data.stage === 'forecast'}
    <ForecastStage
      transferId={data.transfer.id}
      target={data.transfer.target}
      forecast={data.losses}
      basis={data.state.plan?.basis ?? ''}
      byFormat={data.state.plan?.losses ?? []}
      packageId={data.source.id}
      job={data.jobs.plan ?? null}
      to={data.state.to}
      chosen={data.state.targetChosen}
      {base}
    />
  {:else if data.stage === 'landing'}
    <LandingStage
      transferId={data.transfer.id}
      packageId={data.source.id}
      state={data.state}
      gradable={data.gradable}
      {base}
    />
  {:else if data.stage === 'send'}
    <SendStage
      transferId={data.transfer.id}
      source={data.source}
      target={data.transfer.target}
      state={data.state}
      job={data.jobs.send ?? null}
      contents={data.contents}
      ahead={data.ahead}
      sent={data.sent}
      sentAt={data.transfer.sentAt}
      losses={data.losses}
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
      state={data.state}
      job={data.jobs.send ?? null}
      {base}
    />
  {:else if data.stage === 'receipt'}
    <ReceiptStage receipt={data.receipt} {base} />
  {/if}
</div>

<script lang="ts">
  import { enhance } from '$app/forms';
  import Button from 'flowbite-svelte/Button.svelte';
  import ArrivalStage from '$lib/ui/transfer/ArrivalStage.svelte';
  import ContentsStage from '$lib/ui/transfer/ContentsStage.svelte';
  import CourseSendStage from '$lib/ui/transfer/CourseSendStage.svelte';
  import LandingStage from '$lib/ui/transfer/LandingStage.svelte';
  import ForecastStage from '$lib/ui/transfer/ForecastStage.svelte';
  import ReceiptStage from '$lib/ui/transfer/ReceiptStage.svelte';
  import SendStage from '$lib/ui/transfer/SendStage.svelte';
  import SourceStage from '$lib/ui/transfer/SourceStage.svelte';
  import { goesOf, goesShort } from '$lib/ui/transfer/goes';
  import Strap from '$lib/ui/transfer/Strap.svelte';
  import { formatName, plural } from '$lib/ui/format';
  import { TARGET_NAMES } from '$lib/shared/stages';

  let { data } = $props();
  let renaming = $state(false);
  const base = $derived(`/transfers/${data.transfer.id}`);
  const todo = $derived(data.counts ? data.counts.altered + data.counts.missing + data.counts.extra : 0);
  const real = $derived(data.losses.filter((l) => l.severity !== 'note').length);
  const ahead = $derived((data.forecast ?? []).filter((l) => l.severity !== 'note').length);
  const course = $derived(data.course);
  const open = $derived((course?.differences ?? []).filter((d) => d.decision === null).length);
  const place = $derived(
    course?.to
      ? course.plan === null
        ? course.to.title
        : course.plan.troubles.length > 0
          ? `${plural(course.plan.troubles.length, 'thing')} to settle`
          : `${course.to.term}, section ${course.to.section}`
      : 'out as a file',
  );
  const sendSays = $derived(
    course
      ? course.running
        ? 'under way'
        : course.run?.failure
          ? 'stopped'
          : course.run?.endedAt
            ? data.stale
              ? 'changed since'
              : 'sent'
            : 'not sent yet'
      : data.sent
        ? data.stale
          ? 'changed since'
          : real > 0
            ? plural(real, 'loss', 'losses')
            : 'written, no losses'
        : 'not written yet',
  );
  const knots = $derived([
    { stage: 'source' as const, name: 'Source', says: data.source.name, done: true },
    {
      stage: 'contents' as const,
      name: 'Contents',
      says: goesOf(data.contents),
      done: data.contents.items + data.contents.rubrics > 0,
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
      stage: 'landing' as const,
      name: 'Landing',
      says: place,
      done: course ? (course.plan?.troubles.length ?? 1) === 0 : false,
    },
    {
      stage: 'send' as const,
      name: 'Send',
      says: sendSays,
      done: data.sent !== null && !data.stale,
    },
    {
      stage: 'arrival' as const,
      name: 'Arrival',
      says: course
        ? data.counts
          ? open > 0
            ? `${open} to look at`
            : todo > 0
              ? 'settled'
              : 'all intact'
          : 'by itself, once sent'
        : data.counts
          ? todo > 0
            ? `${todo} to look at`
            : 'all intact'
          : 'drop what came back',
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
      >{course?.from
        ? `${course.from.title}, ${course.from.term}, ${course.from.system}`
        : `${data.source.name}${data.source.summary ? ` (${formatName(data.source.summary.format)})` : ''}`} → {course
        ? course.to
          ? `${course.to.title}, section ${course.to.section}, ${course.to.term}, ${course.to.system}`
          : 'a course no longer in sight'
        : TARGET_NAMES[data.transfer.target]},
      {goesShort(data.contents)}</span
    >
  </div>
  <Strap {knots} here={data.stage} {base} />
  {#if data.stage === 'source'}<SourceStage source={data.source} sha256={data.sha256} {base} />
  {:else if data.stage === 'contents' && data.picking}
    {#key data.transfer.id}<ContentsStage
        transferId={data.transfer.id}
        {...data.picking}
        contents={data.contents}
        options={course?.options ?? null}
        {base}
      />{/key}
  {:else if data.stage === 'forecast'}
    <ForecastStage
      target={data.transfer.target}
      forecast={data.forecast}
      names={data.names}
      packageId={data.source.id}
      job={course ? data.jobs.plan : data.jobs.forecast}
      takes={data.takes}
      chosen={course?.targetChosen ?? true}
      {base}
    />
  {:else if data.stage === 'landing'}
    {#if course}<LandingStage
        transferId={data.transfer.id}
        to={course.to}
        there={course.there}
        gradable={data.gradable}
        plan={course.plan}
        options={course.options}
        byHand={course.byHand}
        {base}
      />
    {:else}<p>
        This transfer goes out as a file; how it lands is settled where it is brought in. To bring it straight
        into a course and have the arrival checked,
        <a class="act" href="/bring?package={data.source.id}">choose the course</a>.
      </p>{/if}
  {:else if data.stage === 'send' && course}
    <CourseSendStage
      transferId={data.transfer.id}
      from={course.from}
      fromName={data.source.name}
      to={course.to}
      target={data.transfer.target}
      plan={course.plan}
      run={course.run}
      running={course.running}
      job={data.jobs.carry}
      contents={data.contents}
      losses={ahead}
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
      rubrics={data.rubrics}
      comparedAt={data.transfer.comparedAt}
      source={data.source}
      arrived={data.arrived}
      others={data.others}
      job={data.jobs.compare}
      course={course && {
        differences: course.differences,
        notes: course.notes,
        running: course.running,
        name: course.to ? `${course.to.title}, ${course.to.system}` : '',
      }}
      {base}
    />
  {:else if data.stage === 'receipt'}<ReceiptStage
      receipt={data.receipt}
      {base}
      json="{base}/receipt.json"
    />{/if}
</div>

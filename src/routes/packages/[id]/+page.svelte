<script lang="ts">
  import { enhance } from '$app/forms';
  import { page } from '$app/state';
  import { untrack } from 'svelte';
  import Button from 'flowbite-svelte/Button.svelte';
  import Progress from '$lib/ui/Progress.svelte';
  import FirstRows from '$lib/ui/room/FirstRows.svelte';
  import FindingNote from '$lib/ui/room/FindingNote.svelte';
  import { Changes } from '$lib/ui/room/changes.svelte';
  import LayerBar from '$lib/ui/room/LayerBar.svelte';
  import { placeText } from '$lib/ui/room/places';
  import { Room } from '$lib/ui/room/room.svelte';
  import RoomGrid from '$lib/ui/room/RoomGrid.svelte';
  import RubricList from '$lib/ui/room/RubricList.svelte';
  import { bytes, count, formatName, plural, when } from '$lib/ui/format';
  import { ask } from '$lib/ui/ask';
  import { live } from '$lib/ui/live.svelte';

  let { data } = $props();
  const job = $derived(live.jobOf(data.held.id));
  /** One room a package, from its first reading on: news of it, and other readings, leave the list where it is. */
  const shown = $derived(data.room !== null && data.reading !== null ? data.held.id : null);
  const room = $derived.by(() => {
    if (shown === null) return null;
    return untrack(() => new Room(shown, { view: data.room!, reading: data.reading! }, page.url));
  });
  $effect(() => {
    const { room: view, reading } = data;
    if (view && reading && room?.packageId === data.held.id && untrack(() => room.reading) !== reading)
      void room.renew({ view, reading });
  });
  const changes = $derived(shown === null ? null : new Changes(shown));
  const s = $derived(data.held.summary);
  const ofDocuments = $derived(
    s !== null && s.items > 0 && (s.format.standard === 'document' || s.format.standard === 'table'),
  );
  async function readAgain(): Promise<void> {
    await ask(`/api/packages/${data.held.id}/reading`, {});
    await live.reload();
  }
  const goes = $derived(data.room !== null && data.room.items + data.room.links.length > 0);
</script>

<svelte:head>
  <title>{data.held.name} · Alforja</title>
  <!-- The rows of the list are long: they are on their way before the scripts ask for them. -->
  {#if room}<link rel="preload" as="fetch" crossorigin="anonymous" href={room.rowsAddress} />{/if}
</svelte:head>
<div class="flex h-[calc(100vh-46px)] min-h-[480px] flex-col">
  <div class="border-hair flex flex-wrap items-center gap-x-4 gap-y-1 border-b px-(--gutter) py-2.5">
    <h1 class="page-title break-all" dir="auto">{data.held.name}</h1>
    <span class="text-quiet">
      {#if s}{formatName(s.format)} · {s.rubrics > 0 && s.items === 0
          ? plural(s.rubrics, 'rubric')
          : `${plural(s.items, 'item')}, ${plural(s.points, 'point')}`} ·{/if}
      {bytes(data.held.bytes)} · came in {when(data.held.broughtAt)}
    </span>
    {#if goes || data.rubrics?.rubrics.length}
      <form
        method="POST"
        action="/transfers?/start"
        use:enhance
        class="ml-auto flex flex-wrap items-center gap-2"
      >
        {#each data.transfers.slice(0, 1) as t (t.id)}<a class="act mr-1" href="/transfers/{t.id}"
            >Open its transfer</a
          >{/each}
        <input type="hidden" name="package" value={data.held.id} />
        <Button href="/bring?package={data.held.id}" color="alternative">Bring into a course…</Button>
        {#if goes}<Button type="submit" color="primary">Convert or send…</Button>{/if}
      </form>
    {/if}
  </div>

  {#if data.idle}
    <div class="mx-auto mt-16 w-[420px] max-w-full px-6">
      <p class="mb-4">The reading was broken off. The file is kept as it came.</p>
      <Button color="primary" onclick={readAgain}>Read it again</Button>
    </div>
  {:else if data.held.state === 'reading'}
    <div class="mx-auto {data.first.length > 0 ? 'mt-6' : 'mt-16'} w-[420px] max-w-full px-6" role="status">
      <p class="mb-2">
        {job?.step || 'Waiting to be read'}
        {job && job.total > 0 ? `${count(job.done)} of ${count(job.total)}` : ''}
      </p>
      <Progress done={job?.done ?? 0} total={job?.total ?? 0} label="Reading" />
    </div>
    {#if data.first.length > 0}<FirstRows rows={data.first} />{/if}
  {:else if data.held.failure}
    <div class="mx-auto mt-10 w-[560px] max-w-full px-6">
      <FindingNote found={data.held.failure} place />
      <p class="text-quiet mt-4">
        The file is kept as it came, {bytes(data.held.bytes)}; nothing was read from it.
      </p>
      <Button class="mt-4" color="alternative" onclick={readAgain}>Read it again</Button>
    </div>
  {:else if data.rubrics}
    <RubricList packageId={data.held.id} {...data.rubrics} />
  {:else if room && changes}
    <LayerBar
      packageId={data.held.id}
      layer={data.room?.layer ?? room.view.layer}
      {changes}
      sheet={'id' in room.place ? placeText(room.place) : ''}
      documents={ofDocuments}
    />
    {#key room}<RoomGrid {room} {changes} settled={data.held.settledAt !== null} />{/key}
  {/if}
</div>

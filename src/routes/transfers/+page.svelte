<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import TransferTable from '$lib/ui/TransferTable.svelte';

  let { data } = $props();
</script>

<svelte:head><title>Transfers · Alforja</title></svelte:head>
<div class="mx-auto max-w-[1232px] px-6 py-5">
  <h1 class="mb-3 font-serif text-[22px]">Transfers</h1>
  <form class="mb-3 flex flex-wrap items-center gap-3" action="/transfers">
    <input
      type="search"
      name="q"
      aria-label="Find a transfer"
      placeholder="Name, course, term, file…"
      value={data.query}
      class="border-hair bg-surface text-ink placeholder:text-quiet h-8 w-[320px] rounded border px-2.5"
    />
    <label class="flex items-center gap-2"
      >from <input
        type="date"
        name="from"
        value={data.from}
        class="border-hair bg-surface text-ink h-8 rounded border px-2"
      /></label
    >
    <label class="flex items-center gap-2"
      >to <input
        type="date"
        name="to"
        value={data.to}
        class="border-hair bg-surface text-ink h-8 rounded border px-2"
      /></label
    >
    <Button type="submit" size="xs" color="alternative">Find</Button>
    {#if data.query || data.from || data.to}<a class="act" href="/transfers">All</a>{/if}
  </form>
  {#if data.transfers.length > 0}<TransferTable transfers={data.transfers} />
  {:else if data.query || data.from || data.to}<p class="text-quiet">
      No transfer fits. Take a word or a date away.
    </p>
  {:else}<p class="text-quiet">
      None yet. <a class="act" href="/bring">Bring something into a course</a>, or open a
      <a class="act" href="/packages">package</a> and choose “Take across…”.
    </p>{/if}
</div>

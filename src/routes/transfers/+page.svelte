<script lang="ts">
  import TransferTable from '$lib/ui/TransferTable.svelte';

  let { data } = $props();
</script>

<svelte:head><title>Transfers · Alforja</title></svelte:head>
<div class="mx-auto max-w-[1232px] px-6 py-5">
  <h1 class="mb-3 font-serif text-[22px]">Transfers</h1>
  {#if data.transfers.length > 0}<TransferTable transfers={data.transfers} />
  {:else}<p class="text-quiet">
      None yet. Open a <a class="act" href="/packages">package</a> and choose “Take across…”.
    </p>{/if}
</div>

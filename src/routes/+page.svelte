<script lang="ts">
  import DropZone from '$lib/ui/shell/DropZone.svelte';
  import PackageTable from '$lib/ui/PackageTable.svelte';
  import TransferTable from '$lib/ui/TransferTable.svelte';

  let { data } = $props();
</script>

<svelte:head><title>Desk · Alforja</title></svelte:head>
<div class="mx-auto max-w-[1232px] px-6 py-5">
  <h1 class="mb-3 font-serif text-[22px]">Desk</h1>
  <DropZone
    title="Drop packages here, or anywhere on the page"
    hint="QTI packages, Common Cartridges, single XML files, rubrics as CASE, CSV or workbook. You see what is inside before anything is written."
  />
  <section class="mt-6" aria-labelledby="brought">
    <div class="mb-2 flex items-baseline gap-3">
      <h2 id="brought" class="text-[15px]">Just brought in</h2>
      {#if data.packages.length > 0}<a class="act text-[13px]" href="/packages">All packages</a>{/if}
    </div>
    {#if data.packages.length > 0}<PackageTable packages={data.packages} />
    {:else}
      <p class="text-quiet">
        Nothing yet. Drop a file, or <a class="act" href="/sample.imscc" download>take our sample cartridge</a
        > and drop that: it holds a quiz, a bank and a picture.
      </p>
    {/if}
  </section>
  <section class="mt-6" aria-labelledby="moving">
    <div class="mb-2 flex items-baseline gap-3">
      <h2 id="moving" class="text-[15px]">Transfers</h2>
      {#if data.transfers.length > 0}<a class="act text-[13px]" href="/transfers">All transfers</a>{/if}
      <a class="act text-[13px]" href="/bring">Bring something into a course</a>
    </div>
    {#if data.transfers.length > 0}<TransferTable transfers={data.transfers} />
    {:else}<p class="text-quiet">
        None yet. <a class="act" href="/bring">Bring something into a course</a>, or open a package and choose
        “Take across…”.
      </p>{/if}
  </section>
</div>

<script lang="ts">
  import DropZone from '$lib/ui/shell/DropZone.svelte';
  import PackageTable from '$lib/ui/PackageTable.svelte';

  let { data } = $props();
</script>

<svelte:head><title>Packages · Alforja</title></svelte:head>
<div class="mx-auto max-w-[1232px] px-6 py-5">
  <h1 class="mb-3 font-serif text-[22px]">Packages</h1>
  {#if data.packages.length > 0}<PackageTable packages={data.packages} />
  {:else}<DropZone
      title="No packages yet: drop one here"
      hint="QTI packages, Common Cartridges, single XML files."
    />{/if}
</div>

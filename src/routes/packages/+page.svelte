<script lang="ts">
  import DropZone from '$lib/ui/shell/DropZone.svelte';
  import PackageTable from '$lib/ui/PackageTable.svelte';

  let { data } = $props();
</script>

<svelte:head><title>Packages · Alforja</title></svelte:head>
<div class="mx-auto max-w-[1232px] px-6 py-5">
  <div class="mb-3 flex items-baseline gap-4">
    <h1 class="font-serif text-[22px]">Packages</h1>
    <a class="act" href="/rules">Reading rules</a>
  </div>
  {#if data.packages.length > 0}<PackageTable packages={data.packages} />
  {:else}<DropZone
      title="No packages yet: drop one here"
      hint="QTI packages, Common Cartridges, single XML files."
    />{/if}
</div>

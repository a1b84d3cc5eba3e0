<script lang="ts">
  import DropZone from '$lib/ui/shell/DropZone.svelte';
  import PackageTable from '$lib/ui/PackageTable.svelte';
  import Page from '$lib/ui/shell/Page.svelte';
  import { count } from '$lib/ui/format';
  import { hasFindings } from '$lib/ui/packages';

  let { data } = $props();
  const kinds = [
    { key: 'all', name: 'All', of: () => true },
    { key: 'findings', name: 'With findings', of: hasFindings },
    {
      key: 'unreadable',
      name: 'Not readable',
      of: (p: (typeof data.packages)[number]) => p.state === 'failed',
    },
  ] as const;
  const here = $derived(kinds.find((k) => k.key === data.show) ?? kinds[0]);
  const shown = $derived(data.packages.filter(here.of));
</script>

<Page title="Packages">
  {#snippet actions()}<a class="act" href="/libraries">Publishers’ libraries</a>
    <a class="act ml-3" href="/rules">Reading rules</a>{/snippet}
  <DropZone
    title={data.packages.length > 0 ? 'Drop files anywhere on the page' : 'No packages yet: drop one here'}
    hint="QTI packages, Common Cartridges; test banks as word-processor files, PDF, text or tables; rubrics as CASE, CSV or workbook."
  />
  {#if data.packages.length > 0}
    <nav aria-label="Filter packages" class="mt-3 mb-2 flex flex-wrap gap-4 text-[13.5px]">
      {#each kinds as kind (kind.key)}
        {@const n = data.packages.filter(kind.of).length}
        {#if kind.key === 'all' || n > 0 || kind.key === data.show}<a
            class="inline-flex min-h-6 items-center gap-1 {kind.key === data.show
              ? 'font-semibold'
              : 'text-quiet hover:text-ink'}"
            aria-current={kind.key === data.show ? 'true' : undefined}
            href={kind.key === 'all' ? '/packages' : `/packages?show=${kind.key}`}
            >{kind.name} <span class="num">{count(n)}</span></a
          >{/if}
      {/each}
    </nav>
    {#if shown.length > 0}<PackageTable packages={shown} throwing />
    {:else}<p class="text-quiet">None of these. <a class="act" href="/packages">Show all</a></p>{/if}
  {:else}
    <p class="text-quiet mt-3">
      To try it, <a class="act" href="/sample.imscc" download>download our sample cartridge</a> and drop it here:
      it holds a quiz, a bank and a picture.
    </p>
  {/if}
  <p class="mt-3"><a class="text-quiet text-[13px] hover:underline" href="/trash">Thrown away</a></p>
</Page>

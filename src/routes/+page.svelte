<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import PackageTable from '$lib/ui/PackageTable.svelte';
  import WaitingList from '$lib/ui/desk/WaitingList.svelte';
  import DropZone from '$lib/ui/shell/DropZone.svelte';
  import Page from '$lib/ui/shell/Page.svelte';
  import { count, when } from '$lib/ui/format';

  let { data } = $props();
  const tones = { good: 'text-agave', look: 'text-ochre', bad: 'text-brick' } as const;
</script>

<Page title="Desk">
  {#snippet actions()}<Button href="/bring" color="primary">Bring something into a course</Button>{/snippet}
  <DropZone
    title="Drop files here, or anywhere on the page"
    hint="QTI packages, Common Cartridges; test banks as word-processor files, PDF, text or tables; rubrics as CASE, CSV or workbook. You see what is inside before anything is written."
  />
  <div class="mt-5 grid grid-cols-[minmax(0,1fr)_330px] gap-6 max-lg:grid-cols-1">
    <section aria-labelledby="waits">
      <h2 id="waits" class="mb-2 text-[15px]">
        Waiting for you{#if data.waiting.length > 0}<span class="num text-quiet ml-2 font-normal"
            >{count(data.waiting.length)}</span
          >{/if}
      </h2>
      {#if data.waiting.length > 0}<WaitingList waiting={data.waiting} />
      {:else}
        <p class="border-hair bg-surface border px-4 py-3">
          Nothing waits. {#if data.packages.length === 0}Drop a file above, or
            <a class="act" href="/sample.imscc" download>download our sample cartridge</a> and drop that: it holds
            a quiz, a bank and a picture.{:else if data.systems === 0}<a class="act" href="/systems"
              >Connect a course system</a
            >, or open a package and convert it.{:else}<a class="act" href="/bring"
              >Bring something into a course</a
            >, or open a package.{/if}
        </p>
      {/if}
    </section>
    <section aria-labelledby="done">
      <h2 id="done" class="mb-2 text-[15px]">Done lately</h2>
      {#if data.done.length > 0}
        <ul class="border-hair bg-surface border">
          {#each data.done as n (n.id)}
            <li class="border-hair border-b last:border-0">
              <a class="hover:bg-wash block px-4 py-1.5" href={n.href}>
                <span class="line-clamp-2 {n.tone === 'good' ? '' : tones[n.tone]}" dir="auto">{n.text}</span>
                <span class="text-quiet text-[12.5px]">{when(n.at)}</span>
              </a>
            </li>
          {/each}
        </ul>
      {:else}<p class="text-quiet">Finished work appears here.</p>{/if}
    </section>
  </div>
  <section class="mt-6" aria-labelledby="brought">
    <div class="mb-2 flex items-baseline gap-3">
      <h2 id="brought" class="text-[15px]">Came in</h2>
      {#if data.packages.length > 0}<a class="act text-[13px]" href="/packages">All packages</a>{/if}
    </div>
    {#if data.packages.length > 0}<PackageTable packages={data.packages} />
    {:else}<p class="text-quiet">No files yet.</p>{/if}
  </section>
</Page>

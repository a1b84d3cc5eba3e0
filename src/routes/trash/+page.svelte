<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import Page from '$lib/ui/shell/Page.svelte';
  import { ask } from '$lib/ui/ask';
  import { plural, when } from '$lib/ui/format';
  import { live } from '$lib/ui/live.svelte';
  import { KEPT_DAYS, type Thrown } from '$lib/shared/trash';

  let { data } = $props();
  let trouble = $state('');
  const names = {
    package: 'package',
    transfer: 'transfer',
    batch: 'batch',
    look: 'copy of a course',
    made: 'made here',
  } as const;
  const DAY_MS = 86_400_000;
  const left = (t: Thrown): number => Math.max(0, Math.ceil(KEPT_DAYS - (Date.now() - t.thrownAt) / DAY_MS));

  async function back({ kind, id }: Thrown): Promise<void> {
    trouble = '';
    await ask('/api/trash', { kind, id, back: true }).catch((e: Error) => (trouble = e.message));
    await live.reload();
  }
</script>

<Page title="Thrown away">
  {#snippet aside()}Kept for {plural(KEPT_DAYS, 'day')}, then removed. What a receipt rests on stays.{/snippet}
  {#if trouble}<p class="text-brick mb-2" role="alert">{trouble}</p>{/if}
  {#if data.thrown.length === 0}
    <p class="text-quiet">
      Nothing was thrown away. Packages, transfers, batches and copies of courses can be.
    </p>
  {:else}
    <table class="border-hair bg-surface w-full border text-left">
      <thead class="text-quiet border-hair border-b text-[12.5px]">
        <tr>
          <th class="px-4 py-1.5 font-semibold">Name</th><th class="px-3 py-1.5 font-semibold">What it was</th
          >
          <th class="px-3 py-1.5 font-semibold">Thrown away</th><th class="px-3 py-1.5 font-semibold"
            >Kept for</th
          >
          <td></td>
        </tr>
      </thead>
      <tbody>
        {#each data.thrown as t (t.kind + t.id)}
          <tr class="border-hair border-b last:border-0">
            <td class="max-w-[420px] truncate px-4 py-1.5 font-serif text-[15px]" dir="auto">{t.name}</td>
            <td class="px-3 py-1.5">{names[t.kind]}</td>
            <td class="text-quiet px-3 py-1.5">{when(t.thrownAt)}</td>
            <td class="num text-quiet px-3 py-1.5">{plural(left(t), 'more day')}</td>
            <td class="px-4 py-1 text-right"
              ><Button color="alternative" onclick={() => back(t)}
                >Bring back<span class="sr-only">: {t.name}</span></Button
              ></td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
</Page>

<script lang="ts">
  import type { TransferListing } from '$lib/shared/transfers';
  import { count, when } from './format';

  let { transfers }: { transfers: readonly TransferListing[] } = $props();
  const verdicts = { intact: 'intact', altered: 'altered', incomplete: 'incomplete' } as const;
</script>

<table class="border-hair bg-surface w-full border text-left">
  <thead class="text-quiet border-hair border-b text-[12.5px]">
    <tr>
      <th class="px-4 py-2 font-semibold">Transfer</th>
      <th class="px-3 py-2 font-semibold">From</th>
      <th class="px-3 py-2 font-semibold">Written</th>
      <th class="px-3 py-2 font-semibold">Arrival</th>
      <th class="px-4 py-2 font-semibold">Begun</th>
    </tr>
  </thead>
  <tbody>
    {#each transfers as t (t.id)}
      <tr class="border-hair hover:bg-wash border-b last:border-0">
        <td class="max-w-[300px] px-4 py-2"
          ><a class="block truncate font-serif text-[15.5px] hover:underline" href="/transfers/{t.id}"
            >{t.title}</a
          ></td
        >
        <td class="text-quiet max-w-[220px] truncate px-3 py-2">{t.packageName}</td>
        <td class="px-3 py-2">{t.sentAt ? when(t.sentAt) : 'not yet'}</td>
        <td class="px-3 py-2">
          {#if t.takenBack}
            <span class="text-brick font-semibold"
              >{t.takenBack.refused.length > 0 ? 'taken back in part' : 'taken back'}</span
            >
            <span class="text-quiet block text-[12.5px]">{when(t.takenBack.at)}, by {t.takenBack.by}</span>
          {:else if t.counts && t.verdict}
            <span
              class={t.verdict === 'intact'
                ? 'font-semibold'
                : t.verdict === 'altered'
                  ? 'text-ochre font-semibold'
                  : 'text-brick font-semibold'}>{verdicts[t.verdict]}</span
            >
            <span class="num text-quiet block text-[12.5px]"
              >{count(t.counts.intact)} intact, {count(t.counts.altered)} altered, {count(t.counts.missing)} missing,
              {count(t.counts.extra)} extra{t.open + t.accepted > 0
                ? `; ${count(t.accepted)} accepted, ${count(t.open)} open`
                : ''}</span
            >
          {:else}<span class="text-quiet">not checked yet</span>{/if}
        </td>
        <td class="text-quiet px-4 py-2 whitespace-nowrap">{when(t.createdAt)}</td>
      </tr>
    {/each}
  </tbody>
</table>

<script lang="ts">
  import type { State } from '@alforja/core';
  import Stitch from '../seam/Stitch.svelte';

  const rows: readonly {
    readonly state: State;
    readonly accepted: boolean;
    readonly left: string;
    readonly right: string;
    readonly says: string;
  }[] = [
    {
      state: 'intact',
      accepted: false,
      left: '3.3 m ± 0.1',
      right: '3.3 m ± 0.1',
      says: 'intact: nothing differs',
    },
    {
      state: 'altered',
      accepted: false,
      left: '3.3 m ± 0.1',
      right: '3.3 m',
      says: 'altered: it scores otherwise',
    },
    {
      state: 'altered',
      accepted: true,
      left: 'Unit 3',
      right: 'Unit 1',
      says: 'accepted: differs, with a reason',
    },
    {
      state: 'missing',
      accepted: false,
      left: 'Mark the entrance',
      right: '',
      says: 'missing: it did not arrive',
    },
    { state: 'extra', accepted: false, left: '', right: 'A second copy', says: 'extra: nobody sent it' },
  ];
</script>

<table class="border-hair bg-surface w-full border text-left">
  <thead class="text-quiet border-hair border-b text-[12.5px]">
    <tr
      ><th class="px-3 py-1 font-semibold">Sent</th><td class="w-24"></td><th class="px-3 py-1 font-semibold"
        >Arrived</th
      ><th class="px-3 py-1 font-semibold">The thread says</th></tr
    >
  </thead>
  <tbody>
    {#each rows as row, n (n)}
      <tr class="border-hair border-b last:border-0">
        <td class="px-3 py-0.5 font-serif">{row.left}</td>
        <td class="border-hair border-x"><Stitch state={row.state} knotted={row.accepted} /></td>
        <td class="px-3 py-0.5 font-serif">{row.right}</td>
        <td class="px-3 py-0.5">{row.says}</td>
      </tr>
    {/each}
  </tbody>
</table>

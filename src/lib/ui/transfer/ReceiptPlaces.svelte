<script lang="ts">
  import type { Receipt } from '$lib/shared/receipt';
  import { count } from '../format';

  /** Who sent it, from where, to where. */
  let { receipt }: { receipt: Receipt } = $props();
</script>

<dl class="mb-4 grid grid-cols-[96px_minmax(0,1fr)] gap-x-3 gap-y-0.5 text-[13.5px]">
  {#if receipt.way.from}<dt class="text-quiet">From</dt>
    <dd>{receipt.way.from}</dd>{/if}
  <dt class="text-quiet">{receipt.way.to ? 'Into' : 'Became'}</dt>
  <dd>{receipt.way.to ?? 'a file'}</dd>
  {#if receipt.way.by}<dt class="text-quiet">Sent by</dt>
    <dd>{receipt.way.by}</dd>{/if}
  {#if receipt.verdict}<dt class="text-quiet">Differences</dt>
    <dd>{count(receipt.accepted)} accepted, <b>{count(receipt.open)} open</b></dd>{/if}
</dl>

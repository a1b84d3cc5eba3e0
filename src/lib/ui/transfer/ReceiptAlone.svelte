<script lang="ts">
  import type { Receipt } from '$lib/shared/receipt';
  import ReceiptSheet from './ReceiptSheet.svelte';

  /** The receipt with a page around it. */
  let { receipt }: { receipt: Receipt } = $props();
</script>

<svelte:head><title>{receipt.transfer.title}, receipt</title></svelte:head>
<main><ReceiptSheet {receipt} /></main>

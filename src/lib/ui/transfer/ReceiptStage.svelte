<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { Receipt } from '$lib/shared/receipt';
  import ReceiptSheet from './ReceiptSheet.svelte';

  let { receipt, base }: { receipt: Receipt | null; base: string } = $props();
</script>

{#if !receipt}
  <p class="text-quiet">
    Nothing to put on a receipt yet. <a class="act" href="{base}/send">Write the package</a>, or
    <a class="act" href="{base}/arrival">upload the returned export</a>.
  </p>
{:else}
  <div class="no-print mx-auto flex w-full max-w-[820px] flex-wrap gap-3">
    <Button color="primary" onclick={() => window.print()}>Print</Button>
    <Button color="alternative" href="{base}/receipt.html" download="receipt.html">As a page</Button>
    <Button color="alternative" href="{base}/receipt.csv" download="receipt.csv">CSV</Button>
    <Button color="alternative" href="{base}/receipt.json" download="receipt.json">JSON</Button>
  </div>
  <article
    data-testid="receipt"
    class="sheet border-hair bg-surface mx-auto w-full max-w-[820px] border px-10 py-8 max-md:px-4 max-md:py-4 print:border-0 print:p-0"
    aria-label="Receipt"
  >
    <ReceiptSheet {receipt} />
  </article>
{/if}

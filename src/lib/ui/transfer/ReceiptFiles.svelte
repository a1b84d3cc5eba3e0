<script lang="ts">
  import type { SentPart } from '$lib/shared/transfers';
  import type { Receipt } from '$lib/shared/receipt';
  import { bytes, count, stamp } from '../format';

  /** The files with their checksums, and the totals of both sides. */
  let { receipt }: { receipt: Receipt } = $props();
  interface Line {
    readonly what: string;
    readonly file: SentPart;
    readonly at: string | null;
  }
  const TOTALS = ['items', 'points', 'quizzes', 'banks', 'draws', 'files', 'rubrics'] as const;
  /** Of a transfer of rubrics alone the questions are not told: there are none. */
  const told = $derived(
    TOTALS.filter((key) => {
      const [left, right] = [receipt.totals?.left[key] ?? 0, receipt.totals?.right[key] ?? 0];
      return key === 'items' ? left + right > 0 || receipt.rubrics.length === 0 : left + right > 0;
    }),
  );
  const sent = $derived(receipt.sent ? [receipt.sent, ...receipt.sent.more].filter((f) => f.name) : []);
  const lines = $derived<Line[]>([
    { what: 'Source', file: receipt.source, at: receipt.source.brought },
    ...sent.map((file, n) => ({
      what: n === 0 ? 'Sent' : `Sent, ${n + 1}`,
      file,
      at: receipt.sent?.at ?? null,
    })),
    ...(receipt.arrived ? [{ what: 'Arrived', file: receipt.arrived, at: receipt.arrived.compared }] : []),
  ]);
</script>

<table class="mb-5 w-full text-left text-[13px]">
  <thead
    ><tr class="border-hair border-b"
      ><th class="py-1 pr-3">File</th><th class="pr-3">Name</th><th class="pr-3 text-right">Size</th><th
        >When</th
      ></tr
    ></thead
  >
  <tbody>
    {#each lines as line, n (n)}
      <tr
        ><th scope="row" class="pt-1.5 pr-3 font-semibold">{line.what}</th><td class="pr-3 break-all"
          >{line.file.name}</td
        ><td class="num pr-3 text-right md:whitespace-nowrap print:whitespace-nowrap"
          >{bytes(line.file.bytes)}</td
        ><td class="md:whitespace-nowrap print:whitespace-nowrap">{stamp(line.at)}</td></tr
      >
      <tr class="border-hair border-b"
        ><td></td><td colspan="3" class="text-quiet pb-1.5 font-mono text-[11.5px] break-all"
          >SHA-256 {line.file.sha256}</td
        ></tr
      >
    {/each}
  </tbody>
</table>
{#if receipt.totals}
  <table class="mb-5 w-full max-w-[460px] text-left text-[13px]">
    <thead
      ><tr class="border-hair border-b"
        ><th class="py-1">Totals</th><th class="text-right">Planned</th><th class="text-right">Arrived</th
        ></tr
      ></thead
    >
    <tbody>
      {#each told as key (key)}
        {@const [left, right] = [receipt.totals.left[key], receipt.totals.right[key]]}
        <tr class="border-hair border-b"
          ><th scope="row" class="py-1 font-normal">{key}</th><td class="num text-right">{count(left)}</td><td
            class="num text-right {left !== right ? 'font-semibold' : ''}">{count(right)}</td
          ></tr
        >
      {/each}
    </tbody>
  </table>
{/if}

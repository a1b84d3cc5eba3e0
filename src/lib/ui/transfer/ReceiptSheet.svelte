<script lang="ts">
  import { STATES } from '@alforja/core';
  import type { Receipt } from '$lib/shared/receipt';
  import { saysTakenBack } from '$lib/shared/record';
  import { count, plural, readable, stamp } from '../format';
  import ReceiptArrived from './ReceiptArrived.svelte';
  import ReceiptFiles from './ReceiptFiles.svelte';
  import ReceiptPlaces from './ReceiptPlaces.svelte';
  import ReceiptPurpose from './ReceiptPurpose.svelte';
  import ReceiptWay from './ReceiptWay.svelte';

  /** What a receipt says, on the screen, on paper and as a page of its own. */
  let { receipt }: { receipt: Receipt } = $props();
  const VERDICTS = {
    intact: 'Intact: everything arrived, nothing differs.',
    altered: 'Altered: everything arrived, some of it differs.',
    incomplete: 'Incomplete: not everything arrived.',
  } as const;
  const verdictSays = ({ verdict, accepted, open }: Receipt): string => {
    if (verdict === null || verdict === 'taken-back') return 'Sent; the arrival has not been checked yet.';
    const decided = accepted + open > 0 ? ` ${count(accepted)} accepted, ${count(open)} open.` : '';
    return `${VERDICTS[verdict]}${decided}`;
  };
  const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
  const rubricsOnly = $derived(
    receipt.rubrics.length > 0 && (receipt.totals?.left.items ?? receipt.sent?.items ?? 0) === 0,
  );
  const rubricsSay = $derived.by(() => {
    const list = receipt.rubrics;
    const said = STATES.map((s) => ({ s, n: list.filter((r) => r.state === s).length })).filter(
      ({ n }) => n > 0,
    );
    return `${plural(list.length, 'rubric')}: ${said.map(({ s, n }) => `${count(n)} ${s}`).join(', ')}`;
  });
  const MOST_LOSSES = 40;
  const losses = $derived((receipt.sent?.losses.length ?? 0) + (receipt.more?.losses ?? 0));
  const found = (set: boolean | null): string =>
    set === null ? 'to be set by hand' : set ? 'confirmed' : 'not as planned';
</script>

<header class="border-saddle mb-4 flex flex-wrap items-baseline border-b-2 pb-2">
  <h2 class="font-serif text-[24px]">Receipt</h2>
  <span class="text-quiet ml-auto break-all">Alforja · {receipt.transfer.id}</span>
</header>
<h3 class="font-serif text-[18px]">{receipt.transfer.title}</h3>
{#if receipt.takenBack}
  <p class="text-brick mb-1 font-semibold" data-testid="taken-back">
    Undone{receipt.takenBack.refused.length > 0 ? ' in part' : ''}, {stamp(receipt.takenBack.at)}, by
    {receipt.takenBack.by}.
  </p>
  <p class="mb-3" dir="auto">{capital(saysTakenBack(receipt.takenBack))}.</p>
  <p class="text-quiet mb-4">
    {receipt.foundBefore
      ? `Before that the check found it ${receipt.foundBefore}. What follows was found then or later.`
      : 'It had not been checked before that.'}
  </p>
{:else}
  <p class="mb-4">{verdictSays(receipt)}</p>
{/if}
{#if rubricsOnly}
  <p class="num mb-4 text-[16px]">{rubricsSay}</p>
{:else if receipt.counts}
  <p class="num mb-4 text-[16px]">
    <b>{count(receipt.counts.intact)}</b> intact, <b>{count(receipt.counts.altered)}</b> altered,
    <b>{count(receipt.counts.missing)}</b>
    missing, <b>{count(receipt.counts.extra)}</b> extra
  </p>
{/if}
<ReceiptPlaces {receipt} />
<ReceiptFiles {receipt} />
<dl
  class="mt-8 mb-2 grid grid-cols-2 gap-x-8 text-[12.5px] break-after-page print:mt-16"
  aria-label="Signature"
>
  <div class="border-ink border-t pt-1">
    <dt class="text-quiet">Checked by</dt>
    <dd>{receipt.way.by ?? ''}</dd>
  </div>
  <div class="border-ink border-t pt-1">
    <dt class="text-quiet">Date and signature</dt>
    <dd></dd>
  </div>
</dl>
<ReceiptWay {receipt} />
{#if receipt.sheet.length > 0}
  <h3 class="mt-3 text-[14px]">Settings no package carries</h3>
  <ul class="mb-3">
    {#each receipt.sheet as line, n (n)}
      <li class="border-hair flex items-baseline gap-2 border-b py-1 text-[13px]">
        <span aria-hidden="true">{line.found ? '☑' : '☐'}</span>
        <span
          ><b class="font-serif text-[14.5px]" dir="auto">{line.quiz}</b>: {line.setting}
          {readable(line.value)}</span
        >
        <span class="text-quiet ml-auto">{found(line.found)}</span>
      </li>
    {/each}
  </ul>
{/if}
<ReceiptPurpose {receipt} />
<ReceiptArrived {receipt} />
{#if receipt.sent && losses > 0}
  <h3 class="mt-3 text-[14px]">Named before sending</h3>
  <ul>
    {#each receipt.sent.losses.slice(0, MOST_LOSSES) as loss, at (at)}<li class="text-[13px]">
        {loss.message}
      </li>{/each}
  </ul>
  {#if losses > MOST_LOSSES}<p class="text-quiet text-[13px]">
      and {plural(losses - MOST_LOSSES, 'more', 'more')} in the JSON
    </p>{/if}
{/if}

<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { LossView } from '$lib/shared/losses';
  import type { SentPart, SentShown } from '$lib/shared/transfers';
  import { bytes, plural, when } from '../format';
  import Losses from './Losses.svelte';

  /** What was written, to be taken away, and what the format had no place for. */
  interface Props {
    transferId: string;
    sent: SentShown;
    sentAt: number | null;
    losses: LossView;
    packageId: string;
    stale: boolean;
    base: string;
  }
  let { transferId, sent, sentAt, losses, packageId, stale, base }: Props = $props();
  const first = $derived(sent.parts[0]);
  const { real, notes } = $derived(losses);
  /** Later files with their place in the series, from 1. */
  const again = $derived.by(() => {
    let part = sent.parts.length;
    return sent.again.map((a) => ({ at: a.at, parts: a.parts.map((p) => ({ ...p, part: ++part })) }));
  });
</script>

{#snippet file(part: SentPart, place: number)}
  <p class="mt-2">
    <a class="act" href="/transfers/{transferId}/package?part={place}" download>{part.name}</a>
    <span class="text-quiet text-[12.5px]"
      >{bytes(part.bytes)} · SHA-256 <span class="font-mono break-all">{part.sha256}</span></span
    >
  </p>
{/snippet}

<section class="border-hair bg-surface border px-5 py-4" aria-labelledby="written">
  <h2 id="written" class="font-serif text-[18px]">{first?.name ?? 'Nothing had to be written'}</h2>
  <p>
    {plural(sent.items, 'item')}, {plural(sent.points, 'point')}{first
      ? `, ${bytes(first.bytes)}`
      : ''}{sentAt ? `, written ${when(sentAt)}` : ''}
  </p>
  {#if stale}<p class="text-ochre font-semibold">
      The choice or the format has changed since. Write it again to include what is chosen now.
    </p>{/if}
  {#if first}<p class="text-quiet mt-1 text-[12.5px]">
      SHA-256 <span class="font-mono break-all">{first.sha256}</span>
    </p>{/if}
  {#each sent.parts.slice(1) as part, at (at)}{@render file(part, at + 2)}{/each}
  {#if first}
    <div class="mt-3 flex items-center gap-4">
      <Button href="/transfers/{transferId}/package" download color={stale ? 'alternative' : 'primary'}
        >Download</Button
      >
      <span class="text-quiet"
        >Import it into your course system, export it there again, and upload the export under <a
          class="act"
          href="{base}/arrival">Arrival</a
        >.</span
      >
    </div>
  {/if}
  {#each again as a (a.at)}
    <h3 class="mt-4 text-[14px]">Only what was missing or altered, written {when(a.at)}</h3>
    {#each a.parts as part (part.part)}{@render file(part, part.part)}{/each}
  {/each}
</section>
<section class="border-hair bg-surface border px-5 py-4" aria-labelledby="losses">
  <h2 id="losses" class="text-[15px]">
    {real.count === 0 ? 'No losses' : plural(real.count, 'loss', 'losses')}
  </h2>
  <Losses losses={real} {packageId} />
  {#if notes.count > 0}
    <details class="mt-3">
      <summary class="text-quiet">{plural(notes.count, 'note')}</summary>
      <Losses losses={notes} {packageId} />
    </details>
  {/if}
</section>

<script lang="ts">
  import { planTotals } from '@alforja/core';
  import { count, plural } from '../format';
  import type { Maker } from './maker.svelte';

  /** What one candidate gets of the quiz as it stands; stays in sight. */
  let { maker }: { maker: Maker } = $props();
  const v = $derived(maker.view);
  const minutes = $derived(Math.max(v.items > 0 ? 1 : 0, Math.round(v.minutes)));
  const limit = $derived(maker.draft.settings.timeLimitMinutes);
  const planned = $derived(planTotals(maker.draft.plan).points);
</script>

<p
  class="bg-paper border-hair num sticky top-0 z-10 mb-3 flex flex-wrap items-baseline gap-x-4 border-b py-2 text-[15px]"
  data-testid="totals"
>
  <b>{plural(v.items, 'question')}</b>
  <b class={v.least === v.most ? '' : 'text-ochre'}
    >{v.least === v.most ? plural(v.least, 'point') : `${count(v.least)} to ${count(v.most)} points`}</b
  >
  {#if planned > 0}<span class="text-quiet">{count(planned)} planned</span>{/if}
  <span>about {plural(minutes, 'minute')}{limit === null ? '' : ` of ${count(limit)}`}</span>
  <span class="text-quiet ml-auto text-[12.5px]">{maker.weighing ? 'saving…' : 'saved'}</span>
</p>

<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { ForecastLoss } from '$lib/shared/transfers';
  import { count } from '../format';

  /** What avoids losses of the same words, seen before it is done; where scores change, it has to be said twice. */
  let { all, avoid }: { all: readonly ForecastLoss[]; avoid: (at: readonly number[]) => Promise<void> } =
    $props();
  const can = $derived(all.flatMap((loss) => loss.avoid ?? []));
  const first = $derived(can[0]);
  const scoring = $derived(can.filter((c) => c.scores !== null));
  let asked = $state(false);
  let busy = $state(false);
  async function press(): Promise<void> {
    if (scoring.length > 0 && !asked) return void (asked = true);
    busy = true;
    asked = false;
    await avoid(can.map((c) => c.at)).finally(() => (busy = false));
  }
</script>

{#if first}
  <div class="mt-1 mb-1 text-[13.5px]" data-testid="avoid">
    <p dir="auto">
      Avoided by a change of what goes: {first.says}.
      {#if scoring.length > 0}<span class="text-ochre font-semibold"
          >Scores change{scoring[0]!.scores ? `: ${scoring[0]!.scores}` : ''}.</span
        >{:else}<span class="text-quiet">Every answer scores as before.</span>{/if}
    </p>
    <div class="mt-1 flex flex-wrap items-center gap-3">
      <Button size="xs" color={asked ? 'primary' : 'alternative'} disabled={busy} onclick={press}
        >{asked
          ? 'Yes, change the scores'
          : can.length === 1
            ? 'Put right'
            : `Put all ${count(can.length)} right`}</Button
      >
      {#if asked}<button type="button" class="act" onclick={() => (asked = false)}>Leave it</button>{/if}
      {#if can.length < all.length}<span class="text-quiet"
          >{count(can.length)} of {count(all.length)} can be avoided</span
        >{/if}
    </div>
  </div>
{/if}
